import { KernelMemory } from './memory'
import type { Address } from './module'

/** Rows that are given: the two that are held, and two above and below. */
export const SQUARE_ROWS = 6

/** What was found of the squares of two rows. */
export interface HeldSquares {
  /** The largest difference of the means of red, green and blue, 0–1, and the sum of all. */
  most: number
  sum: number
  /** The sum of the differences of their pixels, each by itself. */
  single: number
  /** Squares that stand in an even colour. */
  count: number
}

/** Holds the means of squares of four pixels against each other, of those that stand with what is beside them in an even colour. */
export class SquareHolder extends KernelMemory {
  private readonly meant: Address
  private readonly upper: Address
  private readonly lower: Address
  private readonly room: Address
  private readonly sums: Address

  /** For rows of so many pixels. */
  constructor(private readonly width: number) {
    super()
    this.meant = this.take(SQUARE_ROWS * width * 8)
    this.upper = this.take(width * 16)
    this.lower = this.take(width * 16)
    this.room = this.take(width * 8)
    this.sums = this.take(48)
  }

  /**
   * `meant`: RGBA of whole numbers; the six rows begin at `at`. `top` stands for 1; values that are no further than `apart` from each
   * other are even. `read`: RGBA of 0–1 of the upper and of the lower row that are held, each used before the next is asked for.
   */
  hold(
    meant: Uint8Array | Uint16Array,
    at: number,
    { top, apart }: { top: number; apart: number },
    read: (row: 0 | 1) => Float32Array,
  ): HeldSquares {
    const { width, upper, lower, sums } = this
    const { buffer } = this.memory
    const bytes = meant.BYTES_PER_ELEMENT
    const rows = new Uint8Array(meant.buffer, meant.byteOffset + at * bytes, SQUARE_ROWS * width * 4 * bytes)
    new Uint8Array(buffer, this.meant, rows.length).set(rows)
    new Float32Array(buffer, upper, width * 4).set(read(0).subarray(0, width * 4))
    new Float32Array(buffer, lower, width * 4).set(read(1).subarray(0, width * 4))
    const count = this.run.holdSquares(this.meant, bytes === 2, width, 1 / top, apart, upper, lower, this.room, sums)
    const three = (at: number) => [...new Float32Array(buffer, sums + at, 3)] as [number, number, number]
    const sumOf = ([r, g, b]: [number, number, number]) => r + g + b
    return { count, most: Math.max(...three(0)), sum: sumOf(three(16)), single: sumOf(three(32)) }
  }
}
