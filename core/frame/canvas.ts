import type { Kernels, Layers } from '../kernels/kernels'
import type { GridBox } from './grid-box'
import { united } from './grid-box'

/** The picture that pieces are laid on, where it lies on the card's render grid, and the part that is not clear. */
export class Canvas {
  touched: GridBox | null = null
  /** What is not clear beside that: a ground that was taken as it lay. */
  ground: GridBox | null = null

  /** `box` has the size of `layers`; its place is a multiple of 4. */
  constructor(
    private readonly kernels: Kernels,
    readonly layers: Layers,
    readonly box: GridBox,
  ) {}

  /** The layers within a box of the render grid that lies on the canvas. */
  window({ x, y, w, h }: GridBox): Layers {
    return this.kernels.window(this.layers, x - this.box.x, y - this.box.y, w, h)
  }

  /** All that is not clear. */
  get inked(): GridBox | null {
    return united(this.ground, this.touched)
  }

  /** Widens the touched part; x and width are multiples of 4. */
  touch(box: GridBox): void {
    this.touched = united(this.touched, box)
  }
}
