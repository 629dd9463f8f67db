import type { Insets } from '../coats/definition'
import { BOX_GRID } from '../kernels/gauss'
import type { Rect } from '../units'

/** A whole-pixel rectangle of the card's render grid. */
export interface GridBox {
  x: number
  y: number
  w: number
  h: number
}

/** The box in which a coat is computed, and the part of it that lies on the canvas. */
export interface PieceBoxes {
  box: GridBox
  visible: GridBox
}

/** Card px beyond the frame from which nothing shines or throws its shadow into it any more. */
const WORLD = 2048

/** All that a frame can show, in whatever part of it one computes; `scale` is render px per card px. */
export function worldAround({ width, height }: { width: number; height: number }, scale: number): GridBox {
  const around = Math.ceil(WORLD * scale)
  return {
    ...{ x: -around, y: -around },
    ...{ w: Math.ceil(width * scale) + 2 * around, h: Math.ceil(height * scale) + 2 * around },
  }
}

/**
 * The smallest box on the blur's grid that holds everything a coat can touch on the canvas, plus `margin` around the
 * canvas for what is blurred into it, as far as the world goes. Null where nothing is visible.
 */
export function boxesFor(
  bounds: Rect,
  reach: Insets,
  margin: number,
  canvas: GridBox,
  world: GridBox,
): PieceBoxes | null {
  const left = down(Math.max(bounds.left - reach.left, canvas.x - margin, world.x))
  const top = down(Math.max(bounds.top - reach.top, canvas.y - margin, world.y))
  const right = Math.min(Math.ceil(bounds.right + reach.right), canvas.x + canvas.w + margin, world.x + world.w)
  const bottom = Math.min(Math.ceil(bounds.bottom + reach.bottom), canvas.y + canvas.h + margin, world.y + world.h)
  const box = { x: left, y: top, w: (right - left + 15) & ~15, h: Math.ceil(bottom - top) }
  const visible = common(box, canvas)
  return box.w > 0 && box.h > 0 && visible.w > 0 && visible.h > 0 ? { box, visible } : null
}

/** The part that two boxes share; without size where they do not meet. */
export function common(a: GridBox, b: GridBox): GridBox {
  const x = Math.max(a.x, b.x)
  const y = Math.max(a.y, b.y)
  return { x, y, w: Math.min(a.x + a.w, b.x + b.w) - x, h: Math.min(a.y + a.h, b.y + b.h) - y }
}

/** Bounds that hold both; null for nothing. */
export function joined(a: Rect | null, b: Rect | null): Rect | null {
  if (!a || !b) return a ?? b
  return {
    left: Math.min(a.left, b.left),
    top: Math.min(a.top, b.top),
    right: Math.max(a.right, b.right),
    bottom: Math.max(a.bottom, b.bottom),
  }
}

const down = (value: number) => Math.floor(value / BOX_GRID) * BOX_GRID

/** The smallest box that holds both; null for nothing. */
export function united(a: GridBox | null, b: GridBox | null): GridBox | null {
  if (!a || !b) return a ?? b
  const x = Math.min(a.x, b.x)
  const y = Math.min(a.y, b.y)
  const right = Math.max(a.x + a.w, b.x + b.w)
  const bottom = Math.max(a.y + a.h, b.y + b.h)
  return { x, y, w: right - x, h: bottom - y }
}
