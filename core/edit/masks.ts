import { createMask } from '../card/create'
import type { Card, Mask } from '../card/schema'
import type { Rect } from '../units'
import { pasteEntry } from './entries'

// Edits of masks.

/**
 * Adds a mask: the last to work. `around`: what the piece spans in its own space, which a box or an ellipse then covers; whole px.
 */
export function addMask(
  card: Card,
  pieceId: string,
  kind: string,
  around: Rect | null = null,
): { card: Card; id: string } {
  const mask = createMask(kind, 'new')
  const fitted = around && 'width' in mask ? coverOf(around) : {}
  return pasteEntry(card, pieceId, 'mask', { ...mask, ...fitted } as Mask)
}

const coverOf = ({ left, top, right, bottom }: Rect) => ({
  ...{ x: Math.round((left + right) / 2), y: Math.round((top + bottom) / 2) },
  ...{ width: Math.max(1, Math.round(right - left)), height: Math.max(1, Math.round(bottom - top)) },
})
