import { controlOf, placeAt, routeFrames } from '../edit/route'
import type { Card, Piece } from '../card/schema'
import { onRing } from '../values/moment'
import type { Frames, Point } from '../units'

/** The way that a piece's place takes over the card, in the space that it counts from. */
export interface Route {
  keys: { frame: Frames; at: Point }[]
  /** Lines along the way, one for each part between keys that does not jump. */
  ways: Point[][]
  /** Where the place is at each frame: close together where it is slow. Long loops are shown in larger steps. */
  dots: Point[]
}

/** Points of a line between two keys. */
const FINENESS = 32
const MOST_DOTS = 400

/** Null for a place that does not go anywhere by its keys. */
export function routeOf(card: Card, piece: Piece): Route | null {
  const frames = routeFrames(piece)
  if (frames.length < 2) return null
  const at = (frame: Frames) => placeAt(piece, onRing(frame, card.length), card.length)
  const keys = frames.map((frame) => ({ frame, at: at(frame) }))
  if (keys.every(({ at: { x, y } }) => x === keys[0]!.at.x && y === keys[0]!.at.y)) return null
  const ways = frames.flatMap((frame, i) => {
    if (!controlOf(card, piece.id, frame, 'out')) return []
    const next = frames[i + 1] ?? frames[0]! + card.length
    const samples = Array.from({ length: FINENESS }, (_, k) => at(frame + ((next - frame) * k) / FINENESS))
    return [[...samples, at(next)]]
  })
  const step = Math.ceil(card.length / MOST_DOTS)
  const dots = Array.from({ length: Math.ceil(card.length / step) }, (_, i) => at(i * step))
  return { keys, ways, dots }
}
