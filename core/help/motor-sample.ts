import { createPiece } from '../card/create'
import type { Card, Piece } from '../card/schema'
import type { HelpSample } from './samples'
import { changed, solid, withMotor, WORD, wordCard } from './samples'

interface Shown {
  /** The value that it drives. */
  name: 'x' | 'y' | 'rotation' | 'scale'
  values: object
  /** What it works on, where that is no value that stands still. */
  keys?: readonly object[]
}

const linear = (...places: (readonly [frame: number, value: number])[]) =>
  places.map(([frame, value], i) => ({ frame, value, easing: i < places.length - 1 ? 'linear' : 'hold' }))

const MOTORS: Readonly<Record<string, Shown>> = {
  sway: { name: 'x', values: { amount: 90 } },
  spin: { name: 'rotation', values: {} },
  jitter: { name: 'y', values: { amount: 24 } },
  formula: { name: 'scale', values: { text: 'v + 20 * sin(tau * p)' } },
  settle: { name: 'x', values: { amount: 100, frequency: 2, decay: 4 }, keys: linear([0, 150], [12, 240]) },
  repeat: { name: 'scale', values: { way: 'to-and-fro' }, keys: linear([0, 80], [12, 125]) },
  step: { name: 'rotation', values: { frames: 5 }, keys: linear([0, -30], [49, 30]) },
}

/** A disc under the word that does what the word did some frames before. */
function followed(): Card {
  const keys = linear([0, 130], [20, 350], [46, 130])
  const card = changed(wordCard({ size: 76, y: 105 }), (piece) => ({ ...piece, x: { keys } }) as unknown as Piece)
  const disc = {
    ...createPiece('ellipse', card),
    ...{ id: 'sample-disc', width: 44, height: 44, y: 205 },
  } as unknown as Piece
  const [fill] = disc.coats.face
  disc.coats.face = [{ ...fill!, id: 'sample-disc-fill', paint: solid('#1E6B6A') } as never]
  const both = { ...card, pieces: [...card.pieces, disc] }
  return withMotor(both, 'sample-disc/x', 'follow', { source: `${WORD}/x`, delay: 8 })
}

export function motorSample(kind: string): HelpSample | null {
  if (kind === 'follow') return { before: null, after: followed(), plays: true }
  const shown = MOTORS[kind]
  if (!shown) return null
  const { name, keys, values } = shown
  const still = changed(wordCard({ size: 110 }), (piece) => (keys ? ({ ...piece, [name]: { keys } } as Piece) : piece))
  return { before: null, after: withMotor(still, `${WORD}/${name}`, kind, values), plays: true }
}
