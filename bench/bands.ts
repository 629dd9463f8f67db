import { readFileSync } from 'node:fs'
import { Bands } from '../app/workers/bands'
import { expectCard } from '../core/card/read'
import type { Card } from '../core/card/schema'
import type { View } from '../core/frame/engine'
import { Engine } from '../core/frame/engine'
import { fontsOf, shippedFonts } from '../server/fonts/shipped'
import type { Row } from './measure'

const CARDS = ['01-opening', '03-badge', '05-names', '08-lift']
/** The stage at 1280×800. */
const SCALE = 0.4
const FRAMES = 40
const WARM = 10

/**
 * A card under a moving hand, its first piece elsewhere in every picture: what a picture takes on one engine, and the longer
 * of two bands, each on an engine of its own; one after the other, so that nothing but the sharing counts.
 */
export async function bandRows(): Promise<Row[]> {
  const rows: Row[] = []
  for (const file of CARDS) {
    const card = expectCard(JSON.parse(readFileSync(`demo/cards/${file}.card.json`, 'utf8')))
    const fonts = await fontsOf([card], [shippedFonts])
    const one = dragger(card, fonts, 1)
    const two = dragger(card, fonts, 2)
    // In turn: the machine's speed changes.
    const times = Array.from({ length: WARM + FRAMES }, (_, i) => [one(i), two(i)] as const).slice(WARM)
    const middle = (k: 0 | 1) => times.map((pair) => pair[k]).sort((a, b) => a - b)[FRAMES / 2]!
    const [peer_ms, ours_ms] = [middle(0), middle(1)]
    const name = `${card.name}, dragged on the stage, two engines`
    rows.push({ name, ours_ms, peer: 'one engine', peer_ms, ratio: peer_ms / ours_ms })
  }
  return rows
}

/** Makes the picture of a move of the hand; gives the time of the longest band. */
function dragger(card: Card, fonts: Map<string, Uint8Array>, count: number): (move: number) => number {
  const engines = Array.from({ length: count }, () => {
    const engine = new Engine()
    for (const [id, bytes] of fonts) engine.fonts.add(id, bytes)
    return engine
  })
  const bands = new Bands()
  const [width, height] = [Math.round(card.frame.width * SCALE), Math.round(card.frame.height * SCALE)]
  return (move) => {
    const moved = { ...card, pieces: card.pieces.map((one, k) => (k === 0 ? { ...one, y: 400 + move * 1.3 } : one)) }
    const times = bands.split(width, count).map(({ x, w }, k) => {
      const view: View = { scale: SCALE, region: { x, y: 0, w, h: height } }
      const start = performance.now()
      engines[k]!.render(moved, Math.floor(card.length / 2), view)
      return performance.now() - start
    })
    bands.took(times)
    return Math.max(...times)
  }
}
