import type { Rgba } from '../units'
import type { Layers, Picture, Plane } from './memory'
import type { Address } from './module'
import { PlaneKernels } from './planes'

/** Steps of a table for straight colours; linear in between. */
const STEPS = 4096

/** What a straight value of 0–1 becomes, for red, green and blue. */
export interface ColourTables {
  tables: readonly [Float32Array, Float32Array, Float32Array]
  /** The tables lie over √v, where they are steep near black. */
  root: boolean
}

/** A table of a function; with `root` over √v. */
export const tableOf = (of: (v: number) => number, root = false): Float32Array =>
  Float32Array.from({ length: STEPS + 1 }, (_, i) => of(root ? (i / STEPS) ** 2 : i / STEPS))

/** Three columns of a matrix for colours and a constant, each red, green, blue. */
export type ColourMatrix = readonly [Column, Column, Column, Column]
type Column = readonly [number, number, number]

/**
 * Operations on rows of premultiplied RGBA, in place: what becomes of a pixel depends on it alone and on its place. Clear
 * pixels stay clear; see assembly/points.ts and assembly/grain.ts.
 */
export class RowKernels extends PlaneKernels {
  /** dst = before + (dst − before) · share. */
  mixRows(before: Layers, dst: Layers, share: number): void {
    this.run.mixRows(before.at, before.stride, dst.at, dst.stride, dst.w, dst.h, share)
  }

  /** Straight colours through tables; they are copied once for all rows under a mark. */
  throughTables({ at, stride, w, h }: Layers, { tables: [red, green, blue], root }: ColourTables): void {
    const [r, g, b] = [this.numbersOnce(red), this.numbersOnce(green), this.numbersOnce(blue)]
    this.run.tableRows(at, stride, w, h, r, g, b, red.length - 1, root)
  }

  /** Straight colours through a matrix, cut to 0–1. */
  throughMatrix({ at, stride, w, h }: Layers, matrix: ColourMatrix): void {
    const mark = this.mark()
    this.run.matrixRows(at, stride, w, h, this.columns(matrix))
    this.release(mark)
  }

  /** Linear light changed among the roots of LMS (OKLab): through `into`, its roots through `change`, their cubes `back`. */
  throughRoots({ at, stride, w, h }: Layers, into: ColourMatrix, change: ColourMatrix, back: ColourMatrix): void {
    const mark = this.mark()
    const [a, b, c] = [this.columns(into), this.columns(change), this.columns(back)]
    this.run.oklabRows(at, stride, w, h, a, b, c, b + 48)
    this.release(mark)
  }

  private columns(matrix: ColourMatrix): Address {
    return this.numbers(matrix.flatMap((column) => [...column, 0]))
  }

  /** Colours by their BT.709 luma from premultiplied colours (null: as they are), first turned round with `invert`. */
  byLuma({ at, stride, w, h }: Layers, colours: Float32Array | null, invert: boolean): void {
    const ramp = colours ? this.numbersOnce(colours) : 0
    this.run.rampRows(at, stride, w, h, ramp, colours ? colours.length / 4 - 1 : 0, invert)
  }

  /** A few levels of each channel, or of the luma; `dither` 0–1. */
  inSteps({ at, stride, w, h, box }: Picture, levels: number, grey: boolean, dither: number, seed: number): void {
    this.run.stepRows(at, stride, w, h, box.x, box.y, levels, grey, dither, seed)
  }

  /** Colours, and with `alphaToo` alpha, times 1 − plane · amount. */
  fade({ at, stride, w, h }: Layers, plane: Plane, amount: number, alphaToo = false): void {
    this.run.fadeRows(at, stride, w, h, plane.at, amount, alphaToo)
  }

  /** Colours drawn to one by plane · amount. */
  drawTo({ at, stride, w, h }: Layers, plane: Plane, [r, g, b, a]: Rgba, amount: number): void {
    this.run.colourRows(at, stride, w, h, plane.at, r, g, b, a * amount)
  }

  /** Light of a colour added by a plane, on all, or (`lit`) in proportion to the luma of what is there. */
  lighten({ at, stride, w, h }: Layers, plane: Plane, [r, g, b, a]: Rgba, lit: boolean): void {
    this.run.lightRows(at, stride, w, h, plane.at, r * a, g * a, b * a, lit)
  }

  /** dst = max(dst, src · share) in every channel. */
  lighter(src: Layers, dst: Layers, share: number): void {
    this.run.lighterRows(src.at, src.stride, dst.at, dst.stride, dst.w, dst.h, share)
  }

  /** dst = dst + src · share, cut to 1. */
  plus(src: Layers, dst: Layers, share: number): void {
    this.run.plusRows(src.at, src.stride, dst.at, dst.stride, dst.w, dst.h, share)
  }

  /** dst = what of src is brighter than a threshold, coloured. */
  bright(src: Layers, dst: Layers, threshold: number, knee: number, [r, g, b, a]: Rgba): void {
    this.run.brightRows(
      ...([src.at, src.stride, dst.at, dst.stride, dst.w, dst.h] as const),
      ...[threshold, knee, r * a, g * a, b * a],
    )
  }

  /** dst = the colours of src, where it has none those of `soft`, with the alpha of a plane. */
  withAlpha(src: Layers, soft: Layers, alpha: Plane, dst: Layers): void {
    const from = [src.at, src.stride, soft.at, soft.stride] as const
    this.run.alphaRows(...from, alpha.at, dst.at, dst.stride, dst.w, dst.h)
  }

  /** sum = sum + src · share. */
  addShare(src: Layers, sum: Layers, share: number): void {
    this.run.addShareRows(src.at, src.stride, sum.at, sum.stride, sum.w, sum.h, share)
  }

  /** dst = src where `test` is clear. */
  keepWhereClear(test: Layers, src: Layers, dst: Layers): void {
    this.run.keepRows(test.at, test.stride, src.at, src.stride, dst.at, dst.stride, dst.w, dst.h)
  }

  /** Alpha that misses whole by no more than rounding becomes whole. */
  settle({ at, stride, w, h }: Layers): void {
    this.run.settleRows(at, stride, w, h)
  }

  /**
   * Grain of a size in px, `amount` the farthest that a value is moved, its variance amount²/3; `by` 0–1 of it is less
   * towards black and white.
   */
  grain({ at, stride, w, h, box }: Picture, { size, amount, by, coloured, bell }: Grain, seed: number): void {
    if (size <= 1) {
      this.run.grainRows(at, stride, w, h, box.x, box.y, amount, by, coloured, bell, seed)
      return
    }
    const mark = this.mark()
    const row = this.take(3 * (Math.ceil(w / size) + 4) * 16)
    const places = this.take(w * 16)
    this.run.coarseGrainRows(at, stride, w, h, box.x, box.y, size, amount, by, coloured, bell, seed, row, places)
    this.release(mark)
  }
}

export interface Grain {
  size: number
  amount: number
  by: number
  coloured: boolean
  bell: boolean
}
