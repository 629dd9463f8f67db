import { readFileSync } from 'node:fs'
import { createCard, createPiece, createStep } from '../core/card/create'
import { expectCard } from '../core/card/read'
import type { Card, OutlineStep, Piece } from '../core/card/schema'
import { Engine } from '../core/frame/engine'
import type { Row } from './measure'
import { median } from './measure'
import { referenceTitle } from './reference-title'

// Outlines that change at every frame beside the frame in which nothing of the outline changes: 1920×1080, one core.

const over = (from: number, to: number) => ({
  keys: [
    { frame: 0, value: from, easing: 'linear' },
    { frame: 99, value: to },
  ],
  loop: false,
})
const step = (kind: string, values: object = {}) => ({ ...createStep(kind, kind), ...values }) as unknown as OutlineStep

const LINE = step('line', { thickness: 14 })
const DRAWN = step('draw-on', { end: over(0, 100) })
const ROUGH = step('rough', { amount: over(1, 5), every: 1 })

export async function outlineRows(): Promise<Row[]> {
  // The light moves, so that coats are computed anew while the outline stays.
  const title = referenceTitle('LanternRegat')
  const lit = { ...title, light: { ...title.light, azimuth: over(100, 160) } } as Card
  const withSteps = (outlineSteps: OutlineStep[]): Card => ({
    ...lit,
    pieces: lit.pieces.map((piece) => ({ ...piece, outlineSteps }) as Piece),
  })
  const still = await framesOf(lit, 'archivo-black')
  const rows: Row[] = [{ name: 'title, its outline stays', ours_ms: still, peer: '', peer_ms: null, ratio: null }]
  for (const [name, steps] of [
    ['title, drawn on', [DRAWN, LINE]],
    ['title, rough', [ROUGH]],
    ['title, drawn on and rough', [ROUGH, DRAWN, LINE]],
  ] as const) {
    const ours = await framesOf(withSteps([...steps]), 'archivo-black')
    rows.push({
      name,
      ours_ms: ours,
      peer: `${(ours / still).toFixed(2)} × its outline stays`,
      peer_ms: null,
      ratio: null,
    })
  }
  const bands = await framesOf(bandedLetters(), 'anton')
  return [...rows, { name: '200 letters in bands', ours_ms: bands, peer: '', peer_ms: null, ratio: null }]
}

/** 200 letters whose odd and even bands come from both sides. */
function bandedLetters(): Card {
  const card = createCard('Bands', { width: 1920, height: 1080, rate: { numerator: 25, denominator: 1 }, length: 100 })
  const range = (id: string, bands: string, x: number) => ({
    ...{ id, name: id, on: true, bands, x },
    ...{ sweep: over(0, 100), spread: 60, form: 'arrive' },
  })
  const words = {
    ...createPiece('type', card),
    ...{ wording: Array.from({ length: 10 }, () => 'LANTERNREGATTAOXBOWQ').join('\n'), font: 'anton', size: 90 },
    ...{ outlineSteps: [step('slices')], ranges: [range('a', '1 3', -600), range('b', '2 4', 600)] },
  }
  return { ...card, pieces: [words as unknown as Piece] }
}

/** Median time of a frame while the loop plays. */
async function framesOf(card: Card, font: string): Promise<number> {
  const engine = new Engine()
  engine.fonts.add(font, new Uint8Array(readFileSync(`public/fonts/${font}.ttf`)))
  const checked = expectCard(card)
  let frame = 20
  return median(() => engine.render(checked, frame++), undefined, 25)
}
