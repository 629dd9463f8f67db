import type { FramePicture } from '../../core/frame/engine'
import { RowHolder } from '../../core/kernels/hold'
import { SquareHolder } from '../../core/kernels/hold-squares'
import { isClear, isZero } from './encoders/clear-rows'
import type { SeenPicture } from './encoders/encoder'
import { numbersOf } from './encoders/matte'

/** How far values are from others, on a scale of 0–1. */
export class Differences {
  largest = 0
  /** The place in the run where that is. */
  frame = 0
  /** The sum of all. */
  total = 0
  /** Values that were held against others. */
  count = 0

  /** Those of a frame. */
  take(frame: number, { most, sum, count }: Sums): void {
    if (most > this.largest) {
      this.largest = most
      this.frame = frame
    }
    this.total += sum
    this.count += count
  }

  get mean(): number {
    return this.count > 0 ? this.total / this.count : 0
  }

  /** In steps of 8 bits; where they are most. */
  get place(): string {
    return `${this.words}, most in frame ${this.frame}`
  }

  /** In steps of 8 bits. */
  get words(): string {
    return `largest difference ${(this.largest * 255).toFixed(2)}, mean ${(this.mean * 255).toFixed(3)} of 255`
  }
}

/** Differences of a frame: the largest, their sum, and how many values were held against others. */
export interface Sums {
  most: number
  sum: number
  count: number
}

/** The same of squares in even colours. */
export interface SquareSums extends Sums {
  /** The sum of the differences of their pixels, each by itself. */
  single: number
}

/** Of alpha everywhere, and of colour where there is any alpha. */
export interface HeldPicture {
  alpha: Sums
  colour: Sums
  /** The sum of what colours are moved by rounding alone, over as many values as `colour`; 0 where that is not asked. */
  rounding: number
}

const nothing = (count = 0): Sums => ({ most: 0, sum: 0, count })

let holder: { width: number; rows: RowHolder } | null = null

/**
 * Holds a picture that was read against what was meant: alpha everywhere, colour where it is not 0. `roundedTo`: bits of luma and chromas
 * whose rounding alone is told too.
 */
export function holdPicture(meant: FramePicture, found: SeenPicture, roundedTo: number | null = null): HeldPicture {
  const { width, height, bits } = meant
  const values = bits === 'float' ? new Float32Array(meant.pixels.buffer, meant.pixels.byteOffset) : numbersOf(meant)
  const scale = { 8: 1 / 255, 16: 1 / 65_535, half: 1, float: 1 }[bits]
  if (holder?.width !== width) holder = { width, rows: new RowHolder(width) }
  const alpha = nothing(found.alpha ? width * height : 0)
  const colour = nothing()
  let rounding = 0
  for (let y = 0; y < height; y++) {
    const stored = found.alpha?.(y) ?? null
    // Most of a title's frame: nothing is meant there, and nothing found.
    if (isZero(values, y * width * 4, width * 4) && (!stored || isClear(stored, width))) continue
    const { most, sum, inked } = holder.rows.hold(values, y * width * 4, scale, found.row(y, 0, width))
    if (stored) {
      alpha.most = Math.max(alpha.most, most[3]!)
      alpha.sum += sum[3]!
    }
    colour.most = Math.max(colour.most, most[0]!, most[1]!, most[2]!)
    colour.sum += sum[0]! + sum[1]! + sum[2]!
    colour.count += 3 * inked
    if (roundedTo !== null && inked > 0) rounding += holder.rows.rounding(values, scale, roundedTo)
  }
  return { alpha, colour, rounding }
}

/** The same of a picture that is the same to the byte. */
export function sameHeld({ width, height }: FramePicture): HeldPicture {
  return { alpha: nothing(width * height), colour: nothing(), rounding: 0 }
}

/** How far the channels of pixels may be apart that count as one even colour, in steps of 8 bits. */
const EVEN = 12

let squares: { width: number; holder: SquareHolder } | null = null

/**
 * Holds the means of squares of four pixels against each other: of those that stand, with what is beside them, in an even colour
 * with alpha. There a colour that is kept for several pixels is that of each; at an edge it cannot be.
 */
export function holdSquares(meant: FramePicture, found: SeenPicture): SquareSums {
  const { width, height, bits } = meant
  const values = numbersOf(meant)
  const top = bits === 8 ? 255 : 65_535
  if (squares?.width !== width) squares = { width, holder: new SquareHolder(width) }
  const held = { ...nothing(), single: 0 }
  for (let y = 2; y + 3 < height; y += 2) {
    if (isZero(values, y * width * 4, width * 4)) continue
    const above = (y - 2) * width * 4
    const { most, sum, count, single } = squares.holder.hold(values, above, { top, apart: (EVEN * top) / 255 }, (row) =>
      found.row(y + row, 0, width),
    )
    held.most = Math.max(held.most, most)
    held.sum += sum
    held.single += single
    held.count += 3 * count
  }
  return held
}
