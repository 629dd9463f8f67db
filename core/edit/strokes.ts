import type { BrushStroke } from '../brushes/stroke'
import { strokesOf } from '../brushes/stroke'
import { MOST_NUMBERS, MOST_STROKES } from '../brushes/schema'
import { distanceBetween } from '../outline/measure'
import type { Card, Mask, Piece } from '../card/schema'
import type { Px } from '../units'
import type { FreehandPoint } from './freehand'
import { pressures } from './freehand'
import { withPiece } from './path'

/** What is painted on: a painting, or a painted mask of a piece. */
export interface PaintTarget {
  piece: string
  mask: string | null
}

/** Lays a stroke on all others; a stroke of the same id that was laid last is replaced by it. Full, nothing more is taken. */
export const putStroke = (card: Card, target: PaintTarget, stroke: BrushStroke): Card =>
  withStrokes(card, target, (strokes) => {
    const before = strokes.at(-1)?.id === stroke.id ? strokes.slice(0, -1) : strokes
    return before.length < MOST_STROKES ? [...before, stroke] : strokes
  })

export const clearStrokes = (card: Card, target: PaintTarget): Card => withStrokes(card, target, () => [])

function withStrokes(
  card: Card,
  { piece: id, mask }: PaintTarget,
  change: (strokes: readonly BrushStroke[]) => readonly BrushStroke[],
): Card {
  const changed = <T extends object>(painted: T): T => ({ ...painted, strokes: change(strokesOf(painted)) })
  return withPiece(card, id, (piece): Piece => {
    if (mask === null) return piece.kind === 'painting' ? changed(piece) : piece
    const masks = piece.masks.map((one): Mask => (one.id === mask && one.kind === 'painted' ? changed(one) : one))
    return { ...piece, masks }
  })
}

/** Points of a hand nearer to each other than this are one. */
const NEAR: Px = 0.5

/**
 * Points of a stroke from those of a hand, in px of what is painted on, with the pressure of a pen, or without one from the speed
 * of the hand. `straight`: only its ends.
 */
export function strokePoints(drawn: readonly FreehandPoint[], straight = false): number[] {
  const [first, last] = [drawn[0]!, drawn.at(-1)!]
  const kept = straight
    ? [first, last]
    : drawn.filter((point, i) => i === 0 || i === drawn.length - 1 || distanceBetween(point, drawn[i - 1]!) >= NEAR)
  const points = kept.length > 1 && distanceBetween(kept[0]!, kept.at(-1)!) === 0 && kept.length === 2 ? [first] : kept
  const press = pressures(points)
  // What is too long for one stroke keeps its form with fewer points.
  const every = Math.ceil((points.length * 3) / (MOST_NUMBERS - 3))
  return points.flatMap(({ x, y }, i) =>
    i % every === 0 || i === points.length - 1 ? [tidy(x, 100), tidy(y, 100), tidy(press[i]!, 1000)] : [],
  )
}

const tidy = (value: number, steps: number) => Math.round(value * steps) / steps
