import type { Address } from './module'
import { KernelMemory } from './memory'

/** Whole numbers, or numbers of 32 bits; RGBA, straight or premultiplied. */
export type HeldValues = Uint8Array | Uint16Array | Float32Array

/** What was found in a row. */
export interface HeldRow {
  /** The largest difference of red, green, blue and alpha, and their sums. */
  most: Float32Array
  sum: Float32Array
  /** Pixels with alpha. */
  inked: number
}

/** Holds rows of pixels against each other: alpha everywhere, colours where alpha is meant. */
export class RowHolder extends KernelMemory {
  private readonly meant: Address
  private readonly found: Address
  private readonly sums: Address

  /** For rows of so many pixels. */
  constructor(private readonly width: number) {
    super()
    this.meant = this.take(width * 16)
    this.found = this.take(width * 16)
    this.sums = this.take(32)
  }

  /**
   * `meant`: values times `scale` are 0–1; the row begins at `at`. `found`: RGBA of 0–1. What is given back is overwritten by the next
   * row.
   */
  hold(meant: HeldValues, at: number, scale: number, found: Float32Array): HeldRow {
    const count = this.width * 4
    const { buffer } = this.memory
    const bytes = meant.BYTES_PER_ELEMENT
    const row = new Uint8Array(meant.buffer, meant.byteOffset + at * bytes, count * bytes)
    new Uint8Array(buffer, this.meant, count * bytes).set(row)
    new Float32Array(buffer, this.found, count).set(found.subarray(0, count))
    const inked = this.run.holdRow(this.meant, bytes * 8, scale, this.found, this.width, this.sums)
    return {
      inked,
      most: new Float32Array(buffer, this.sums, 4),
      sum: new Float32Array(buffer, this.sums + 16, 4),
    }
  }

  /**
   * How far the colours of the row that was held last are moved by rounding alone, where luma and chromas have so many bits in the legal
   * range: the sum over its pixels with alpha.
   */
  rounding(meant: HeldValues, scale: number, depth: number): number {
    const [lumas, chromas] = [219 * 2 ** (depth - 8), 224 * 2 ** (depth - 8)]
    return this.run.roundRow(this.meant, meant.BYTES_PER_ELEMENT * 8, scale, this.width, lumas, chromas)
  }
}
