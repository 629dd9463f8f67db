import type { GivenPicture, Kernels } from '../kernels/kernels'
import type { PixelForm } from '../kernels/pixel-form'
import { toDisplay, toLinear } from '../values/oklab'
import type { Canvas } from './canvas'
import type { GridBox } from './grid-box'

/** Steps of the tables between linear light and display. */
const STEPS = 4096
/** Over √v, where the function is almost straight. */
const TO_DISPLAY = Float32Array.from({ length: STEPS + 1 }, (_, i) => toDisplay((i / STEPS) ** 2))
/** Over v: the straight part near black is exact. */
const TO_LINEAR = Float32Array.from({ length: STEPS + 1 }, (_, i) => toLinear(i / STEPS))
/** Rows that are brought from one light to the other at once. */
const STRIP = 16

/** Writes a part of the canvas, a box of the render grid, into a picture. `linear`: the canvas holds linear light. */
export function giveOut(
  kernels: Kernels,
  canvas: Canvas,
  part: GridBox,
  linear: boolean,
  pixels: Uint8Array,
  to: GivenPicture & Pick<PixelForm, 'light'>,
): void {
  const at = { x: part.x - to.origin.x, y: part.y - to.origin.y }
  if (linear === (to.light === 'linear')) {
    kernels.giveOut(canvas.window(part), at, pixels, to)
    return
  }
  // The canvas stays in its own light: the next frame may begin with it.
  const mark = kernels.mark()
  const copy = kernels.layers(part.w, Math.min(part.h, STRIP), false)
  for (let row = 0; row < part.h; row += STRIP) {
    const h = Math.min(STRIP, part.h - row)
    const rows = kernels.window(copy, 0, 0, part.w, h)
    kernels.copy(canvas.window({ ...part, y: part.y + row, h }), rows)
    if (linear) kernels.transfer(rows, TO_DISPLAY, true)
    else kernels.transfer(rows, TO_LINEAR, false)
    kernels.giveOut(rows, { x: at.x, y: at.y + row }, pixels, to)
  }
  kernels.release(mark)
}
