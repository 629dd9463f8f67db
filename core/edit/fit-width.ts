import type { Card, TypePiece } from '../card/schema'
import { withPiece } from './path'
import type { PieceOutlook } from '../frame/outlook'
import type { Px, Rect } from '../units'
import { isMoving } from '../values/moving'

/** The smallest share of its size that words are made to have room, in %. */
const SMALLEST = 45
/** The most that words are kept away from the end of their room, as a share of its width. */
const MOST_PADDING = 0.06

/**
 * Gives type a text box as wide as its room, in which words that are wider are made smaller; those that have room stay as they are.
 * `entry` is how it stands as it was designed, whose distance from the side of its room is kept.
 */
export function fitToWidth(card: Card, id: string, entry: PieceOutlook, room: Rect): Card {
  return withPiece(card, id, (piece) => {
    if (piece.kind !== 'type') return piece
    const width = roomFor(piece, entry, room) / Math.max(1e-6, entry.placement.scale)
    const least = isMoving(piece.least) ? piece.least : Math.min(piece.least as number, SMALLEST)
    return { ...piece, width: Math.max(1, Math.round(width)), wide: 'smaller', least } satisfies TypePiece
  })
}

function roomFor({ align }: TypePiece, { bounds, place }: PieceOutlook, room: Rect): Px {
  const most = (room.right - room.left) * MOST_PADDING
  const left = Math.min(Math.max(0, bounds.left - room.left), most)
  const right = Math.min(Math.max(0, room.right - bounds.right), most)
  if (align === 'left') return room.right - left - place.x
  if (align === 'right') return place.x - room.left - right
  const padding = Math.min(left, right)
  return 2 * (Math.min(place.x - room.left, room.right - place.x) - padding)
}
