import type { BlendMode } from '../paint/blend-modes'
import type { Px, Rgba } from '../units'
import { gaussTaps, planBlur } from './gauss'
import type { Address, KernelExports } from './module'
import { forMode, instantiateKernels } from './module'

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

/** Line segments x0, y0, x1, y1 (f32) in the pixels of some box. */
export interface Segments {
  readonly at: Address
  readonly count: number
}

/** t = t0 + x·tx + y·ty at pixel centres, looked up in a ramp of premultiplied colours. */
export interface RampPaint {
  ramp: Address
  steps: number
  t0: number
  tx: number
  ty: number
}

/** Where paint goes: through a mask (null: everywhere), and only where a gate is open (null: everywhere). */
export interface Stencil {
  mask: Plane | null
  gate: Plane | null
}

const PAGE = 65_536
const FIRST_FREE = PAGE
const FAR = 1e12

/**
 * The typed face of the pixel kernels: one memory, one bump allocator. Everything taken after `mark()` is given
 * back by `release()`. Not thread-safe; each worker has its own.
 */
export class Kernels {
  private readonly memory = new WebAssembly.Memory({ initial: 256 })
  private readonly run: KernelExports = instantiateKernels(this.memory)
  private top: Address = FIRST_FREE
  private readonly tile: { at: Address; seed: number | undefined } = { at: this.take(64 * 64 * 16), seed: undefined }

  /** Aligned to 64 bytes, contents undefined. */
  private take(bytes: number): Address {
    const at = this.top
    this.top = (at + bytes + 63) & ~63
    const missing = this.top + 64 - this.memory.buffer.byteLength
    if (missing > 0) this.memory.grow(Math.ceil(missing / PAGE))
    return at
  }

  /** Where the allocator stands; give it to `release` to take back all that came after. */
  mark(): Address {
    return this.top
  }

  release(mark: Address): void {
    this.top = mark
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

  /** A window into layers, without copying. x and width are multiples of 4. */
  window(of: Layers, x: number, y: number, w: number, h: number): Layers {
    return { at: of.at + y * of.stride + x * 16, w, h, stride: of.stride }
  }

  /** Segments (x0, y0, x1, y1 …) moved by (dx, dy). */
  segments(coordinates: Float64Array, dx: Px, dy: Px): Segments {
    const at = this.take(coordinates.length * 4)
    const view = new Float32Array(this.memory.buffer, at, coordinates.length)
    for (let i = 0; i < coordinates.length; i += 2) {
      view[i] = coordinates[i]! + dx
      view[i + 1] = coordinates[i + 1]! + dy
    }
    return { at, count: coordinates.length / 4 }
  }

  /** Exact area coverage of the outline. */
  coverage(segments: Segments, w: number, h: number): Plane {
    const plane = this.plane(w, h)
    const mark = this.mark()
    const acc = this.take((w + 4) * h * 4)
    this.run.fillPlane(acc, (w + 4) * h, 0)
    this.run.rasterSegments(segments.at, segments.count, acc, w, h)
    this.run.integrateCoverage(acc, plane.at, w, h)
    this.release(mark)
    return plane
  }

  /** Signed distance from pixel centres, negative inside; exact up to `reach`, farther ones are very large. */
  distance(segments: Segments, w: number, h: number, reach: Px): Plane {
    const plane = this.plane(w, h)
    const mark = this.mark()
    const squared = this.plane(w, h, FAR)
    const winding = this.plane(w, h, 0)
    this.run.nearestSegment(segments.at, segments.count, squared.at, w, h, reach)
    this.run.windAtCentres(segments.at, segments.count, winding.at, w, h)
    this.run.signDistance(squared.at, winding.at, plane.at, w, h)
    this.release(mark)
    return plane
  }

  /** A new plane: the Gaussian blur; outside the plane counts as 0. */
  blurred(src: Plane, sigma: Px): Plane {
    const { levels, sigma: low, radius } = planBlur(sigma)
    const dst = this.plane(src.w, src.h)
    if (radius === 0) {
      this.run.copyRows(src.at, 0, dst.at, 0, src.w * src.h * 4, 1)
      return dst
    }
    const mark = this.mark()
    const row = this.take((src.w * 4 + 1024) * 4)
    const steps: Plane[] = [src]
    for (let i = 0; i < levels; i++) {
      const from = steps[i]!
      const to = this.plane((Math.ceil(from.w / 2) + 3) & ~3, Math.ceil(from.h / 2))
      this.run.halve(from.at, to.at, from.w, from.h, to.w, to.h, row)
      steps.push(to)
    }
    const lowest = steps[levels]!
    const taps = this.take((radius + 1) * 4)
    new Float32Array(this.memory.buffer, taps, radius + 1).set(gaussTaps(low, radius))
    const between = this.plane(lowest.w, lowest.h)
    this.run.convolveColumns(lowest.at, between.at, lowest.w, lowest.h, taps, radius)
    let current = levels === 0 ? dst : lowest
    this.run.convolveRows(between.at, current.at, lowest.w, lowest.h, taps, radius, row)
    for (let i = levels - 1; i >= 0; i--) {
      // The finer plane's own contents are no longer needed, except the source's.
      const to = i === 0 ? dst : steps[i]!
      this.run.double(current.at, to.at, current.w, current.h, to.w, to.h, row)
      current = to
    }
    this.release(mark)
    return dst
  }

  band(distance: Plane, inner: Px, outer: Px, above: number): Plane {
    const plane = this.plane(distance.w, distance.h)
    this.run.bandMask(distance.at, plane.at, plane.w * plane.h, inner, outer, above)
    return plane
  }

  grown(distance: Plane, edge: Px): Plane {
    const plane = this.plane(distance.w, distance.h)
    this.run.insideMask(distance.at, plane.at, plane.w * plane.h, edge)
    return plane
  }

  /** A new plane: 1 − plane. */
  complemented({ at, w, h }: Plane): Plane {
    const plane = this.plane(w, h)
    this.run.complement(at, plane.at, w * h)
    return plane
  }

  /** A new plane with the window (x, y, w, h) of another. */
  cut(plane: Plane, x: number, y: number, w: number, h: number): Plane {
    if (x === 0 && y === 0 && w === plane.w && h === plane.h) return plane
    const cut = this.plane(w, h)
    this.run.copyRows(plane.at + (y * plane.w + x) * 4, plane.w * 4, cut.at, w * 4, w * 4, h)
    return cut
  }

  /** Premultiplied colours for `ramp()`, from the engine's own table. */
  ramp(colours: Float32Array): { ramp: Address; steps: number } {
    const at = this.take(colours.length * 4)
    new Float32Array(this.memory.buffer, at, colours.length).set(colours)
    return { ramp: at, steps: colours.length / 4 - 1 }
  }

  /** A colour through a mask, blended in place. For masks and gates see assembly/lay.ts. */
  laySolid(mode: BlendMode, dst: Layers, stencil: Stencil, [r, g, b, a]: Rgba, opacity: number): void {
    const alpha = a * opacity
    const numbers = [dst.stride, dst.w, dst.h, r * alpha, g * alpha, b * alpha, alpha] as const
    forMode(this.run, 'solid', mode)(stencil.mask?.at ?? 0, stencil.gate?.at ?? 0, dst.at, ...numbers)
  }

  /** A ramp through a mask, blended in place. */
  layRamp(mode: BlendMode, dst: Layers, stencil: Stencil, paint: RampPaint, opacity: number): void {
    const { ramp, steps, t0, tx, ty } = paint
    const numbers = [dst.stride, dst.w, dst.h, ramp, steps, t0, tx, ty, opacity] as const
    forMode(this.run, 'ramp', mode)(stencil.mask?.at ?? 0, stencil.gate?.at ?? 0, dst.at, ...numbers)
  }

  /** dst = blend(src · opacity, dst). */
  blend(mode: BlendMode, src: Layers, dst: Layers, opacity: number, gate: Plane | null = null): void {
    const size = [dst.w, dst.h, opacity, gate?.at ?? 0] as const
    forMode(this.run, 'blend', mode)(src.at, src.stride, dst.at, dst.stride, ...size)
  }

  /** dst = inside · coverage + outside · (1 − coverage). */
  mix(coverage: Plane, inside: Layers, outside: Layers, dst: Layers): void {
    const strides = [outside.stride, dst.at, dst.stride, dst.w, dst.h] as const
    this.run.mixByCoverage(coverage.at, inside.at, inside.stride, outside.at, ...strides)
  }

  copy(src: Layers, dst: Layers): void {
    this.run.copyRows(src.at, src.stride, dst.at, dst.stride, src.w * 16, src.h)
  }

  /** Sets RGBA to clear. */
  clear(layers: Layers): void {
    if (layers.stride === layers.w * 16) this.run.fillPlane(layers.at, layers.w * layers.h * 4, 0)
    else for (let y = 0; y < layers.h; y++) this.run.fillPlane(layers.at + y * layers.stride, layers.w * 4, 0)
  }

  /**
   * Straight RGBA integers of a window at (x, y), dithered by `seed`, written at their place into a picture of
   * `width` pixels a row. What of the window lies beyond the picture's right edge is cut off.
   */
  straight(window: Layers, x: number, y: number, out: Uint8Array, width: number, bits: 8 | 16, seed: number): void {
    const tile = this.dither(seed)
    const mark = this.mark()
    const pixel = bits / 2
    const stride = window.w * pixel
    const at = this.take(stride * window.h)
    const kernel = bits === 8 ? this.run.straight8 : this.run.straight16
    kernel(window.at, window.stride, at, stride, window.w, window.h, x, y, tile)
    const whole = new Uint8Array(this.memory.buffer, at, stride * window.h)
    const kept = Math.min(window.w, width - x) * pixel
    if (kept === stride && stride === width * pixel) out.set(whole, y * stride)
    else {
      for (let row = 0; row < window.h; row++) {
        out.set(whole.subarray(row * stride, row * stride + kept), ((y + row) * width + x) * pixel)
      }
    }
    this.release(mark)
  }

  private dither(seed: number): Address {
    if (this.tile.seed !== seed) {
      this.run.ditherTile(this.tile.at, seed)
      this.tile.seed = seed
    }
    return this.tile.at
  }
}
