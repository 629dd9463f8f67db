import type { Placement } from '../outline/outline'
import { unplace } from '../outline/outline'
import type { Frames, Point, Rect } from '../units'
import { numberValue } from '../values/evaluated'
import { PLACE_PARAMETERS } from '../pieces/place'
import type { Card } from '../card/schema'
import { allPieces } from '../card/tree'
import { momentIn } from '../time/clock'
import { writeValue } from './values'

// Pieces moved on the card together: by hand, aligned, shared out.

/** What is known of a piece on the card at the frame in work. */
export interface StandingPiece {
  id: string
  bounds: Rect
  /** Where the piece's place counts from: the card, or the groups that it lies in. */
  parent: Placement
}

export type Edge = 'left' | 'centre' | 'right' | 'top' | 'middle' | 'bottom'

/** Shifts a piece by px of the card; a moving place gets a key. Places are kept to hundredths of a px. */
export function shiftPiece(card: Card, piece: StandingPiece, by: Point, frame: Frames): Card {
  const own = allPieces(card.pieces).find(({ id }) => id === piece.id)
  if (!own) return card
  const { x, y } = unplace({ ...piece.parent, x: 0, y: 0 }, by)
  const at = { ...momentIn(card, piece.id, frame), bare: true }
  const put = (next: Card, name: 'x' | 'y', value: number) => {
    if (value === 0) return next
    const present = numberValue(own[name], at, PLACE_PARAMETERS[name])
    return writeValue(next, `${piece.id}/${name}`, frame, hundredths(present + value))
  }
  return put(put(card, 'x', x), 'y', y)
}

const hundredths = (value: number) => Math.round(value * 100) / 100

const START: Record<Edge, (rect: Rect) => number> = {
  left: (rect) => rect.left,
  centre: (rect) => (rect.left + rect.right) / 2,
  right: (rect) => rect.right,
  top: (rect) => rect.top,
  middle: (rect) => (rect.top + rect.bottom) / 2,
  bottom: (rect) => rect.bottom,
}

const isAcross = (edge: Edge) => edge === 'left' || edge === 'centre' || edge === 'right'

/** Moves pieces so that one of their edges or middles lies on that of `to`. */
export function alignPieces(card: Card, pieces: readonly StandingPiece[], edge: Edge, to: Rect, frame: Frames): Card {
  return pieces.reduce((next, piece) => {
    const by = START[edge](to) - START[edge](piece.bounds)
    return shiftPiece(next, piece, isAcross(edge) ? { x: by, y: 0 } : { x: 0, y: by }, frame)
  }, card)
}

/**
 * Shares pieces out so that the gaps between their bounds are equal. The first and last stay where they are, or go to
 * the edges of `within` where that is given.
 */
export function distributePieces(
  card: Card,
  pieces: readonly StandingPiece[],
  axis: 'x' | 'y',
  within: Rect | null,
  frame: Frames,
): Card {
  const [from, to] = axis === 'x' ? (['left', 'right'] as const) : (['top', 'bottom'] as const)
  const order = [...pieces].sort((a, b) => a.bounds[from] + a.bounds[to] - b.bounds[from] - b.bounds[to])
  if (order.length < (within ? 2 : 3)) return card
  const start = within ? within[from] : order[0]!.bounds[from]
  const end = within ? within[to] : order[order.length - 1]!.bounds[to]
  const filled = order.reduce((sum, { bounds }) => sum + bounds[to] - bounds[from], 0)
  const gap = (end - start - filled) / (order.length - 1)
  let at = start
  return order.reduce((next, piece) => {
    const by = at - piece.bounds[from]
    at += piece.bounds[to] - piece.bounds[from] + gap
    return shiftPiece(next, piece, axis === 'x' ? { x: by, y: 0 } : { x: 0, y: by }, frame)
  }, card)
}

/** The smallest rectangle around all bounds. */
export function boundsOf(pieces: readonly Pick<StandingPiece, 'bounds'>[]): Rect | null {
  if (pieces.length === 0) return null
  return {
    left: Math.min(...pieces.map(({ bounds }) => bounds.left)),
    top: Math.min(...pieces.map(({ bounds }) => bounds.top)),
    right: Math.max(...pieces.map(({ bounds }) => bounds.right)),
    bottom: Math.max(...pieces.map(({ bounds }) => bounds.bottom)),
  }
}
