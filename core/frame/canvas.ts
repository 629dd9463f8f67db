import type { Layers } from '../kernels/kernels'
import type { GridBox } from './grid-box'

/** The picture that pieces are laid on, and the part of it that is not clear. */
export class Canvas {
  touched: GridBox | null = null

  constructor(readonly layers: Layers) {}

  /** Widens the touched part; x and width are multiples of 4. */
  touch(box: GridBox): void {
    const old = this.touched ?? box
    const x = Math.min(old.x, box.x)
    const y = Math.min(old.y, box.y)
    const right = Math.max(old.x + old.w, box.x + box.w)
    const bottom = Math.max(old.y + old.h, box.y + box.h)
    this.touched = { x, y, w: right - x, h: bottom - y }
  }
}
