import { readFileSync, readdirSync } from 'node:fs'
import { expectCard } from '../core/card/read'
import type { Card } from '../core/card/schema'
import { Engine } from '../core/frame/engine'
import { fontsOf, shippedFonts } from '../server/fonts/shipped'
import { renderFrames } from '../server/renders/frame-pool'
import type { Row } from './measure'

const FRAMES = 50

/** Frames of the demo cards at full size: the median of single frames on one core, and the rate of one and two workers. */
export async function frameRows(): Promise<Row[]> {
  const rows: Row[] = []
  for (const file of readdirSync('demo/cards').sort()) {
    const card = expectCard(JSON.parse(readFileSync(`demo/cards/${file}`, 'utf8')))
    const fonts = await fontsOf(card, [shippedFonts])
    const { width, height } = card.frame
    const name = `${card.name}, ${width}×${height}`
    rows.push({ name: `${name}, a frame on one core`, ours_ms: singleFrame(card, fonts), ...ALONE })
    for (const threads of [1, 2]) {
      // The first frames of a worker start its engine and shape the type.
      const ours_ms = await pooled(card, fonts, threads)
      rows.push({ name: `${name}, ${threads === 1 ? '1 worker' : `${threads} workers`}, a frame`, ours_ms, ...ALONE })
    }
  }
  return rows
}

const ALONE = { peer: '', peer_ms: null, ratio: null }

function singleFrame(card: Card, fonts: Map<string, Uint8Array>): number {
  const engine = new Engine()
  for (const [id, bytes] of fonts) engine.fonts.add(id, bytes)
  let reuse: Uint8Array<ArrayBuffer> | undefined
  const times = Array.from({ length: FRAMES + 5 }, (_, i) => {
    const frame = Math.round((i * card.length) / (FRAMES + 5))
    const start = performance.now()
    reuse = engine.render(card, frame, reuse ? { reuse } : {}).pixels
    return performance.now() - start
  })
  return times.slice(5).sort((a, b) => a - b)[FRAMES / 2]!
}

async function pooled(card: Card, fonts: Map<string, Uint8Array>, threads: number): Promise<number> {
  const from = Math.floor((card.length - FRAMES) / 2)
  let started = 0
  let count = 0
  for await (const picture of renderFrames({ card, fonts, bits: 8, from, to: from + FRAMES, threads })) {
    // The clock starts when every worker is warm.
    if (count++ === threads * 2) started = performance.now()
    if (picture.width !== card.frame.width) throw new Error('not the full size')
  }
  return (performance.now() - started) / (FRAMES - threads * 2 - 1)
}
