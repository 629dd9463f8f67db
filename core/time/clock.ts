import { holdersOf } from '../card/tree'
import type { Card, Piece } from '../card/schema'
import { PIECE_KINDS } from '../pieces/table'
import type { Frames } from '../units'
import { momentOf } from './ring'
import type { Clock, Moment } from '../values/moment'
import { atRest, movedTo, onRing } from '../values/moment'

// A piece may give what it holds a time of its own. Its own place and coats run by the time around it; what lies in it
// runs by its clock, and the clocks of pieces in pieces work one after the other. A value that follows another reads it
// at its own frame: pieces that run by one clock stay in step with each other.

const clockOf = (piece: Piece): Clock | null => PIECE_KINDS[piece.kind].clock?.(piece) ?? null

const clocked = new WeakMap<Card['pieces'], Map<string, readonly Piece[]>>()

/** The groups that a piece lies in, the outermost first; none where none of them has a clock. */
function clockedHolders({ pieces }: Card, id: string | null): readonly Piece[] {
  if (id === null) return []
  const known = clocked.get(pieces) ?? new Map<string, readonly Piece[]>()
  clocked.set(pieces, known)
  let found = known.get(id)
  if (!found) {
    const holders = holdersOf(pieces, id)
    found = holders.some((holder) => clockOf(holder) !== null) ? holders : []
    known.set(id, found)
  }
  return found
}

/** The innermost of the pieces with a clock that a piece lies in: all that lie in the same one run by one time. Null for none. */
export const clockAround = (card: Card, id: string | null): string | null =>
  clockedHolders(card, id)
    .filter((holder) => clockOf(holder) !== null)
    .at(-1)?.id ?? null

/** Whether a piece runs by another time than the card's. */
export const hasClock = (card: Card, id: string | null): boolean => clockedHolders(card, id).length > 0

/** The moment of what lies in a piece, at a moment of the piece. */
export function insideOf(piece: Piece, at: Moment): Moment {
  const clock = clockOf(piece)
  if (!clock) return at
  const inside = movedTo(at, clock.inside(at))
  if (at.exposed === undefined) return inside
  return { ...inside, exposed: onRing(clock.inside(atRest(at)), at.ring.length) }
}

/** Whether a piece's clock shows nothing of what lies in it. */
export const isStopped = (piece: Piece, at: Moment): boolean => clockOf(piece)?.stopped(at) ?? false

/** The moment by which a piece runs while the card is at a frame: `id` null is the card itself. */
export function momentIn(card: Card, id: string | null, frame: Frames): Moment {
  return clockedHolders(card, id).reduce((at, holder) => insideOf(holder, at), momentOf(card, frame))
}

/** The frame by which a piece runs while the card is at a frame. */
export const frameIn = (card: Card, id: string | null, frame: Frames): Frames => momentIn(card, id, frame).frame

/**
 * The card's frame at which a piece runs by one of its own, the nearest to `near`; null where it never does. The inverse
 * of `frameIn`.
 */
export function frameOutOf(card: Card, id: string | null, frame: Frames, near: Frames): Frames | null {
  const holders = clockedHolders(card, id)
  // What each holder is near to, from the card inwards; then back, from the piece outwards.
  const around = holders.reduce<Moment[]>(
    (moments, holder) => [...moments, insideOf(holder, moments.at(-1)!)],
    [momentOf(card, near)],
  )
  let out: Frames | null = frame
  for (let i = holders.length - 1; i >= 0 && out !== null; i--) {
    const clock = clockOf(holders[i]!)
    if (clock) out = clock.outside(out, around[i]!)
  }
  return out === null ? null : onRing(out, card.length)
}

/** The id of the piece that an address leads through; null for the card's own values. */
export function pieceAt(address: string): string | null {
  const [first] = address.split('/')
  return first === 'light' || first === 'background' ? null : first!
}
