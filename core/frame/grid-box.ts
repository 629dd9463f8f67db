import type { Insets } from '../coats/definition'
import { BOX_GRID } from '../kernels/gauss'
import type { Rect } from '../units'

/** A whole-pixel rectangle of the render grid. */
export interface GridBox {
  x: number
  y: number
  w: number
  h: number
}

/** The box in which a piece is computed, and the part of it that lies on the frame. */
export interface PieceBoxes {
  box: GridBox
  visible: GridBox
}

/**
 * The smallest box on the blur's grid that holds everything a piece can touch on the frame, plus `margin`
 * around the frame for what is blurred into it. Null where nothing is visible.
 */
export function boxesFor(
  bounds: Rect,
  reach: Insets,
  margin: number,
  frame: { w: number; h: number },
): PieceBoxes | null {
  const touched = {
    left: bounds.left - reach.left,
    top: bounds.top - reach.top,
    right: bounds.right + reach.right,
    bottom: bounds.bottom + reach.bottom,
  }
  const left = down(Math.max(touched.left, -margin))
  const top = down(Math.max(touched.top, -margin))
  const right = Math.min(Math.ceil(touched.right), frame.w + margin)
  const bottom = Math.min(Math.ceil(touched.bottom), frame.h + margin)
  const box = { x: left, y: top, w: (right - left + 15) & ~15, h: Math.ceil(bottom - top) }
  const x = Math.max(0, left)
  const y = Math.max(0, top)
  const visible = { x, y, w: Math.min(frame.w, left + box.w) - x, h: Math.min(frame.h, top + box.h) - y }
  return box.w > 0 && box.h > 0 && visible.w > 0 && visible.h > 0 ? { box, visible } : null
}

const down = (value: number) => Math.floor(value / BOX_GRID) * BOX_GRID
