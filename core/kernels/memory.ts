import { WaxError } from '../errors'
import type { Px } from '../units'
import type { Address, KernelExports } from './module'
import { instantiateKernels } from './module'

/** One f32 a pixel, rows without gaps. The width is a multiple of 4. */
export interface Plane {
  readonly at: Address
  readonly w: number
  readonly h: number
}

/** Four f32 a pixel, premultiplied RGBA; rows are `stride` bytes apart. The width is a multiple of 4. */
export interface Layers {
  readonly at: Address
  readonly w: number
  readonly h: number
  readonly stride: number
}

/** A window's place on the card, in render pixels, and its size. */
export interface PlaceWindow {
  x: number
  y: number
  w: number
  h: number
}

/** Pixels, and where they lie on the card's render grid. */
export interface Picture extends Layers {
  readonly box: PlaceWindow
}

/** Bytes that could be written while one segment is placed and drawn. */
const WORK_OF_SEGMENT = 200

/** Line segments x0, y0, x1, y1 (f32) in the pixels of some box. */
export interface Segments {
  readonly at: Address
  readonly count: number
}

const PAGE = 65_536
/** No picture takes more than 3 GB: several engines share a machine. */
const MOST_PAGES = (3 * 1024 * 1024 * 1024) / PAGE
const FIRST_FREE = PAGE
const LEAST_GROWTH = 256

/** Segments lie on a grid of 2^-10 px: moved by whole pixels they keep their exact form. */
export const SEGMENT_GRID = 1024

/**
 * The kernels' memory. Below lies a shelf for planes that are kept between frames (see PlaneShelf); above it one
 * bump allocator: everything taken after `mark()` is given back by `release()`. Each worker has its own.
 */
export class KernelMemory {
  protected readonly memory = new WebAssembly.Memory({ initial: 256, maximum: MOST_PAGES })
  protected readonly run: KernelExports = instantiateKernels(this.memory)
  private top: Address = FIRST_FREE
  /** Bytes that were taken since the work began, and how many may be. */
  private taken = 0
  private most = Infinity
  private readonly copied = new Map<Float32Array, Address>()

  /** Aligned to 64 bytes, contents undefined. */
  protected take(bytes: number): Address {
    this.charge(bytes)
    const at = this.top
    // Not by bit operations: addresses go up to 4 GB.
    const top = Math.ceil((at + bytes) / 64) * 64
    const missing = top + 64 - this.memory.buffer.byteLength
    if (missing > 0) this.grow(Math.ceil(missing / PAGE))
    this.top = top
    return at
  }

  /**
   * Begins a piece of work for which no more than `most` bytes are taken, given back or not: what is computed lies
   * somewhere, so they measure the work, the same on every host.
   */
  begin(most: number): void {
    this.taken = 0
    this.most = most
  }

  /** Counts work that takes as long as so many bytes. Throws a WaxError where it is more than may be. */
  charge(bytes: number): void {
    this.taken += bytes
    if (this.taken <= this.most) return
    throw new WaxError(
      'too-much',
      'card',
      'This frame is more work than one frame may be.',
      'Make blurs, strokes, scales or the frame smaller, or use fewer letters, coats or pieces.',
    )
  }

  /** Bytes that were taken since the work began. */
  get work(): number {
    return this.taken
  }

  /** Throws a WaxError where there is no more memory; what was taken before stays as it is. */
  private grow(pages: number): void {
    try {
      // Growing takes its time however little it is.
      if (!this.grew(Math.max(pages, LEAST_GROWTH))) this.memory.grow(pages)
    } catch {
      throw new WaxError(
        'out-of-memory',
        'card',
        'The picture needs more memory than there is.',
        'Make the frame, the blurs or the strokes smaller, or take pieces out of groups.',
      )
    }
  }

  private grew(pages: number): boolean {
    try {
      return this.memory.grow(pages) >= 0
    } catch {
      return false
    }
  }

  /** Where the allocator stands; give it to `release` to take back all that came after. */
  mark(): Address {
    return this.top
  }

  release(mark: Address): void {
    this.top = mark
    for (const [values, at] of this.copied) if (at >= mark) this.copied.delete(values)
  }

  /** Bytes that the memory has grown to. */
  get bytes(): number {
    return this.memory.buffer.byteLength
  }

  /** Room that is never given back. */
  reserve(bytes: number): Address {
    return this.take(bytes)
  }

  /** A view of a plane's floats; valid only until the next allocation. */
  floats(plane: Plane): Float32Array {
    return new Float32Array(this.memory.buffer, plane.at, plane.w * plane.h)
  }

  /** A view of RGBA floats; valid only until the next allocation. Rows must be without gaps. */
  rgba(layers: Layers): Float32Array {
    return new Float32Array(this.memory.buffer, layers.at, layers.w * layers.h * 4)
  }

  plane(w: number, h: number, value?: number): Plane {
    const plane = { at: this.take(w * h * 4), w, h }
    if (value !== undefined) this.run.fillPlane(plane.at, w * h, value)
    return plane
  }

  planeFrom(w: number, h: number, values: Float32Array): Plane {
    const plane = this.plane(w, h)
    this.floats(plane).set(values)
    return plane
  }

  layers(w: number, h: number, clear = true): Layers {
    const layers = { at: this.take(w * h * 16), w, h, stride: w * 16 }
    if (clear) this.run.fillPlane(layers.at, w * h * 4, 0)
    return layers
  }

  /** sum += src, of the same size. */
  addTo(src: Layers, sum: Layers): void {
    this.run.addRows(src.at, src.stride, sum.at, sum.stride, src.w, src.h)
  }

  /** dst = sum / count: divided, not multiplied, so that what is whole in every part is whole in the mean. */
  mean(sum: Layers, count: number, dst: Layers): void {
    this.run.meanRows(sum.at, sum.stride, count, dst.at, dst.stride, sum.w, sum.h)
  }

  /** Floats in the kernels' memory: look-up tables, colours, corners. */
  numbers(values: ArrayLike<number>): Address {
    const at = this.take(values.length * 4)
    new Float32Array(this.memory.buffer, at, values.length).set(values)
    return at
  }

  /** As `numbers`; asked for again before the mark is released, the same values are not copied again. */
  numbersOnce(values: Float32Array): Address {
    const at = this.copied.get(values) ?? this.numbers(values)
    this.copied.set(values, at)
    return at
  }

  /** Segments (x0, y0, x1, y1 …) moved by (dx, dy), on the segment grid. */
  segments(coordinates: Float64Array, dx: Px, dy: Px): Segments {
    this.charge((coordinates.length / 4) * WORK_OF_SEGMENT)
    const at = this.take(coordinates.length * 4)
    const view = new Float32Array(this.memory.buffer, at, coordinates.length)
    for (let i = 0; i < coordinates.length; i += 2) {
      view[i] = Math.round((coordinates[i]! + dx) * SEGMENT_GRID) / SEGMENT_GRID
      view[i + 1] = Math.round((coordinates[i + 1]! + dy) * SEGMENT_GRID) / SEGMENT_GRID
    }
    return { at, count: coordinates.length / 4 }
  }

  /** A window into layers, without copying. x and width are multiples of 4. */
  window(of: Layers, x: number, y: number, w: number, h: number): Layers {
    return { at: of.at + y * of.stride + x * 16, w, h, stride: of.stride }
  }

  /** Copies a plane to an address; gives the plane there. */
  copyPlane({ at, w, h }: Plane, to: Address): Plane {
    this.run.copyRows(at, 0, to, 0, w * h * 4, 1)
    return { at: to, w, h }
  }

  copy(src: Layers, dst: Layers): void {
    this.run.copyRows(src.at, src.stride, dst.at, dst.stride, src.w * 16, src.h)
  }

  /** Sets RGBA to clear. */
  clear(layers: Layers): void {
    if (layers.stride === layers.w * 16) this.run.fillPlane(layers.at, layers.w * layers.h * 4, 0)
    else for (let y = 0; y < layers.h; y++) this.run.fillPlane(layers.at + y * layers.stride, layers.w * 4, 0)
  }
}
