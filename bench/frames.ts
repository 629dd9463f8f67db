import { readFileSync, readdirSync } from 'node:fs'
import { expectCard } from '../core/card/read'
import type { Card } from '../core/card/schema'
import { Engine } from '../core/frame/engine'
import { fontsOf, shippedFonts } from '../server/fonts/shipped'
import { PLAIN_FORM } from '../core/kernels/pixel-form'
import { renderFrames } from '../server/renders/frame-pool'
import type { Row } from './measure'

const FRAMES = 50
/** The first frames of a worker start its engine, shape the type and find out what is worth keeping: they are not timed. */
const WARM = 40

/** Frames of the demo cards at full size: the median of single frames on one core, and the rate of one and two workers. */
export async function frameRows(): Promise<Row[]> {
  const rows: Row[] = []
  for (const file of readdirSync('demo/cards').sort()) {
    const card = expectCard(JSON.parse(readFileSync(`demo/cards/${file}`, 'utf8')))
    const fonts = await fontsOf([card], [shippedFonts])
    const { width, height } = card.frame
    const name = `${card.name}, ${width}×${height}`
    rows.push({ name: `${name}, a frame on one core`, ours_ms: singleFrame(card, fonts), ...ALONE })
    const peer_ms = await pooled(card, fonts, 1)
    const ours_ms = await pooled(card, fonts, 2)
    rows.push({ name: `${name}, 2 workers, a frame`, ours_ms, peer: '1 worker', peer_ms, ratio: peer_ms / ours_ms })
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
  let started = 0
  let count = 0
  const to = Math.min(card.length, WARM + FRAMES + 1)
  for await (const picture of renderFrames({
    card,
    fonts,
    form: PLAIN_FORM,
    frames: Array.from({ length: to }, (_, i) => i),
    threads,
  })) {
    if (++count === WARM) started = performance.now()
    if (picture.width !== card.frame.width) throw new Error('not the full size')
  }
  return (performance.now() - started) / (count - WARM)
}
