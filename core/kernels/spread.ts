import type { Px } from '../units'
import { acosDegrees, cosDegrees, sinDegrees } from './exact'
import { gaussTaps, planBlur } from './gauss'
import type { Layers, Picture, PlaceWindow, Plane } from './memory'
import type { Address } from './module'
import { RowKernels } from './rows'

/** What a place beyond the edges of an area stands for: what lies there, nothing, the last pixel, the mirrored picture, the
 *  picture again. */
export type Edges = 'open' | 'clear' | 'held' | 'mirrored' | 'wrapped'
const EDGES: Record<Edges, number> = { open: 0, clear: 1, held: 2, mirrored: 3, wrapped: 4 }

/** Edges that count, in whole render pixels of the card. */
export interface EdgeArea {
  edges: Edges
  left: number
  top: number
  right: number
  bottom: number
}

/** u = a·x + b·y + e, v = c·x + d·y + f of a render pixel's centre (x, y). */
export interface Affine {
  a: number
  b: number
  c: number
  d: number
  e: number
  f: number
}

/** Directions of gradients; see assembly/flow-noise.ts. */
const DIRECTIONS = 256
/** Points that lines go towards lie on this part of a pixel: differences of places are exact. */
const POINT_GRID = 1024
/** Even directions of a circle; linear in between, right to 10⁻⁶. */
const CIRCLE = 4096

/** Pixels worked on at once: they stay in the processor's cache. */
const STRIP = 16_384

/** Fills, or uses, rows of a picture that begin at its row `y`. */
export type StripWork = (rows: Layers, y: number) => void

/** Pictures made of the neighbours of each pixel. `dst` has the size of `src` and shares no memory with it. */
export class SpreadKernels extends RowKernels {
  private readonly circle = { at: this.take((CIRCLE + 2) * 8), made: false }

  /** dst = src under a Gaussian, outside counting as clear: the pyramid of `blurred`, on whole pixels. */
  softenInto(src: Layers, dst: Layers, sigma: Px): void {
    const { levels, sigma: low, radius } = planBlur(sigma)
    if (radius === 0) {
      this.copy(src, dst)
      return
    }
    const mark = this.mark()
    const { halved, sizes } = this.halvedTimes(src, levels)
    const soft = this.convolved(halved, low, radius)
    if (levels === 0) this.copy(soft, dst)
    else this.doubledInto(soft, sizes, dst)
    this.settle(dst)
    this.release(mark)
  }

  /**
   * A Gaussian of a picture that is made and used in strips: unless sigma is small it never stands whole in full size.
   * `make` fills the rows from one on; `use` is given those of what came out.
   */
  softenRows(w: number, h: number, sigma: Px, make: StripWork, use: StripWork): void {
    const { levels, sigma: low, radius } = planBlur(sigma)
    const mark = this.mark()
    if (levels === 0) {
      const whole = this.layers(w, h, false)
      const soft = this.layers(w, h, false)
      make(whole, 0)
      this.softenInto(whole, soft, sigma)
      use(soft, 0)
    } else {
      const rows = Math.max(4, Math.floor(STRIP / w) & ~1)
      const lower = this.halvedFrom(w, h, rows, make)
      const { halved, sizes } = this.halvedTimes(lower, levels - 1)
      const soft = this.convolved(halved, low, radius)
      const half = levels === 1 ? soft : this.layers(lower.w, lower.h, false)
      if (half !== soft) this.doubledInto(soft, sizes, half)
      const strip = this.layers(w, rows, false)
      const work = this.take((2 * half.w + 4) * 16)
      for (let y = 0; y < h; y += rows) {
        const given = { ...strip, h: Math.min(rows, h - y) }
        const [from, count] = [y / 2, (given.h + 1) >> 1]
        const at = half.at + from * half.stride
        const goesOn = [from > 0, from + count < half.h] as const
        this.run.doubleRgba(at, given.at, given.stride, half.w, count, w, given.h, work, ...goesOn)
        this.settle(given)
        use(given, y)
      }
    }
    this.release(mark)
  }

  /** Halved in strips of so many rows, an even number, as they are made. */
  private halvedFrom(w: number, h: number, rows: number, make: StripWork): Layers {
    const lower = this.layers((w + 1) >> 1, (h + 1) >> 1, false)
    // A row over the strip, and one under it.
    const strip = this.layers(w, rows + 2, false)
    const work = this.take((2 * lower.w + 4) * 16)
    const row = (k: number, count: number) => this.window(strip, 0, k + 1, w, count)
    for (let y = 0; y < h; y += rows) {
      if (y > 0) this.copy(row(rows - 1, 2), row(-1, 2))
      const known = y > 0 ? 1 : 0
      const count = Math.min(rows + 1, h - y)
      if (count > known) make(row(known, count - known), y + known)
      const [from, half] = [row(0, count), (Math.min(rows, count) + 1) >> 1]
      const into = lower.at + (y / 2) * lower.stride
      this.run.halveRgba(from.at, from.stride, into, w, count, lower.w, half, work, y > 0)
    }
    return lower
  }

  /** Under a Gaussian of few px; rows without gaps. */
  private convolved({ at, w, h }: Layers, sigma: Px, radius: number): Layers {
    const taps = this.numbers(gaussTaps(sigma, radius))
    const soft = this.layers(w, h, false)
    const row = this.take((w + 2 * radius) * 16)
    this.run.convolveColumns(at, soft.at, w * 4, h, taps, radius)
    this.run.convolveRowsRgba(soft.at, soft.at, w, h, taps, radius, row)
    return soft
  }

  /** Halved so many times, without gaps between rows; the sizes of all steps, the first one's own. */
  private halvedTimes(src: Layers, times: number): { halved: Layers; sizes: { w: number; h: number }[] } {
    const sizes = [{ w: src.w, h: src.h }]
    let halved = src
    if (times === 0 && src.stride !== src.w * 16) {
      halved = this.layers(src.w, src.h, false)
      this.copy(src, halved)
    }
    for (let level = 0; level < times; level++) {
      const [w, h] = [(halved.w + 1) >> 1, (halved.h + 1) >> 1]
      const lower = this.layers(w, h, false)
      const mark = this.mark()
      const row = this.take((2 * w + 4) * 16)
      this.run.halveRgba(halved.at, halved.stride, lower.at, halved.w, halved.h, w, h, row, false)
      this.release(mark)
      halved = lower
      sizes.push({ w, h })
    }
    return { halved, sizes }
  }

  /** Doubled through the sizes of `halvedTimes`, the last step into `dst`. */
  private doubledInto(low: Layers, sizes: readonly { w: number; h: number }[], dst: Layers): void {
    let from = low
    for (let level = sizes.length - 2; level >= 0; level--) {
      const { w, h } = sizes[level]!
      const into = level === 0 ? dst : this.layers(w, h, false)
      const mark = this.mark()
      const rows = this.take((2 * from.w + 4) * 16)
      this.run.doubleRgba(from.at, into.at, into.stride, from.w, from.h, w, h, rows, false, false)
      this.release(mark)
      from = into
    }
  }

  /** dst = the mean of a line of `length` px around each pixel, at an angle in degrees anticlockwise. */
  smearInto(src: Picture, dst: Layers, angle: number, length: Px): void {
    const [right, down] = [cosDegrees(angle), -sinDegrees(angle)]
    const flat = Math.abs(right) >= Math.abs(down)
    const { x, y, w, h } = src.box
    // A mean over less than a pixel is that of a pixel.
    const half = Math.max(1, length * Math.max(Math.abs(right), Math.abs(down))) / 2
    const whole = Math.max(0, Math.ceil(half - 0.5) - 1)
    const end = Math.fround(half - 0.5 - whole)
    const unit = unitFor(2 * whole + 1)
    const total = (2 * whole + 1 + 2 * end) * unit
    // Beyond the window there is nothing to count.
    const inner = Math.min(whole, flat ? w : h)
    const mark = this.mark()
    const rows = [src.at, src.stride, dst.at, dst.stride, w, h] as const
    if (flat) {
      const work = this.take(w * 8 + (2 * w + 2 * inner + 2) * 16)
      this.run.smearAcross(...rows, x, down / right, inner, end, total, unit, work)
    } else {
      const slope = right / down
      const row = w + 2 * inner + 7
      const work = this.take(((2 * inner + 3) * row + w + Math.ceil(h * Math.abs(slope)) + 4) * 16)
      this.run.smearDown(...rows, y, slope, inner, end, total, unit, work)
    }
    this.release(mark)
  }

  /** dst = the mean of a line towards (cx, cy), from `less` to `more` times each pixel's distance. */
  zoomInto(src: Picture, dst: Layers, cx: Px, cy: Px, less: number, more: number): void {
    const { x, y, w, h } = src.box
    const [px, py] = [Math.round(cx * POINT_GRID) / POINT_GRID, Math.round(cy * POINT_GRID) / POINT_GRID]
    for (const flat of [true, false]) {
      const [n, m, from, point] = flat ? [w, h, x, px] : [h, w, y, py]
      const rays = Math.max(1, Math.ceil(Math.max(Math.abs(from + 0.5 - point), Math.abs(from + n - 0.5 - point))))
      const mark = this.mark()
      const work = this.take(n * 40 + 2 * (n + 2) * 16)
      const steps = (layers: Layers) => (flat ? [16, layers.stride] : [layers.stride, 16])
      const [step, row] = steps(src) as [number, number]
      this.run.zoomRays(
        ...([src.at, step, row, dst.at] as const),
        ...[...steps(dst), n, m, ...(flat ? [x, y, px, py] : [y, x, py, px]), rays, less, more],
        ...[flat, unitFor(n), work],
      )
      this.release(mark)
    }
  }

  /** dst = the mean of an arc of `angle` degrees around each pixel, about (cx, cy). */
  spinInto(src: Picture, dst: Layers, cx: Px, cy: Px, angle: number): void {
    const { x, y, w, h } = src.box
    const { nearest, farthest, from, span } = seenFrom(cx, cy, src.box)
    const first = Math.max(0, Math.floor(nearest) - 2)
    const count = Math.ceil(farthest) + 2
    const mark = this.mark()
    const pixels = this.run.ringPixels(first, count, span)
    const rings = this.take(pixels * 16)
    const table = this.take((count - first) * 16)
    const widest = Math.min(1, span) * (2 * Math.PI * (count + 1) + 16) + 16
    const line = this.take((3 * Math.ceil(widest) + 16) * 16)
    this.run.spinRings(
      ...([src.at, src.stride, dst.at, dst.stride, w, h, x, y] as const),
      ...[cx, cy, angle / 360, first, count, from, span],
      ...[rings, table, this.circleTable(), CIRCLE, line],
    )
    this.release(mark)
  }

  /** Made when it is asked for the first time; it stays. */
  private circleTable(): Address {
    const { circle } = this
    if (!circle.made) {
      const table = new Float32Array(this.memory.buffer, circle.at, (CIRCLE + 2) * 2)
      for (let i = 0; i <= CIRCLE + 1; i++) {
        table[i * 2] = cosDegrees((i * 360) / CIRCLE)
        table[i * 2 + 1] = sinDegrees((i * 360) / CIRCLE)
      }
      circle.made = true
    }
    return circle.at
  }

  /** dst = src at the map of each pixel's centre; with `smooth` through sixteen pixels in place of four. */
  moveInto(src: Picture, dst: Picture, { a, b, c, d, e, f }: Affine, area: EdgeArea, smooth: boolean): void {
    const mark = this.mark()
    const { x, y } = dst.box
    const source = this.source(src, area)
    this.run.moveRows(dst.at, dst.stride, dst.w, dst.h, x, y, source, smooth, a, b, c, d, e, f)
    this.release(mark)
  }

  /** dst = src read beside each pixel, by the px of two planes to the right and down; null for not at all. */
  displaceInto(
    src: Picture,
    dst: Picture,
    right: Plane | null,
    down: Plane | null,
    area: EdgeArea,
    smooth: boolean,
  ): void {
    const mark = this.mark()
    const { x, y } = dst.box
    const source = this.source(src, area)
    this.run.displaceRows(dst.at, dst.stride, dst.w, dst.h, x, y, source, smooth, right?.at ?? 0, down?.at ?? 0)
    this.release(mark)
  }

  /** dst = red, green and blue of src, each read so many px beside its place. */
  partInto(src: Picture, dst: Picture, offsets: readonly [Offset, Offset, Offset], area: EdgeArea): void {
    const mark = this.mark()
    const { x, y } = dst.box
    const numbers = offsets.flatMap((offset) => [offset.x, offset.y])
    this.run.partRows(dst.at, dst.stride, dst.w, dst.h, x, y, this.source(src, area), ...numbers)
    this.release(mark)
  }

  /** dst = red, green and blue of src, each read at a multiple of its distance from (cx, cy). */
  spreadInto(
    src: Picture,
    dst: Picture,
    cx: Px,
    cy: Px,
    factors: readonly [number, number, number],
    area: EdgeArea,
  ): void {
    const mark = this.mark()
    const { x, y } = dst.box
    this.run.spreadRows(dst.at, dst.stride, dst.w, dst.h, x, y, this.source(src, area), cx, cy, ...factors)
    this.release(mark)
  }

  private source({ at, stride, box }: Picture, { edges, left, top, right, bottom }: EdgeArea): Address {
    const numbers = [at, stride, box.x, box.y, box.w, box.h, EDGES[edges], left, top, right, bottom]
    const to = this.take(numbers.length * 4)
    // Addresses go up to 4 GB: written as unsigned, the others wrap to what they are.
    new Uint32Array(this.memory.buffer, to, numbers.length).set(numbers.map((v) => v >>> 0))
    return to
  }

  /** (channel − neutral) · amount of straight colours, weighed by their alpha; what is within `slack` of the neutral value is that. */
  mapPlane({ at, stride, w, h }: Layers, channel: MapChannel, neutral: number, amount: number, slack = 0): Plane {
    const plane = this.plane(w, h)
    this.run.mapPlane(at, stride, plane.at, w, h, MAP_CHANNELS[channel], neutral, slack, amount)
    return plane
  }

  /**
   * Noise of several octaves that flows with `evolution`, in whole turns the same again; −1 to 1. The map goes to
   * cells of the first octave; each octave has cells half as large and half the weight. Those smaller than a pixel fade.
   */
  flowNoise(window: PlaceWindow, map: Affine, octaves: number, evolution: number, seed: number): Plane {
    const { x, y, w, h } = window
    const plane = this.plane(w, h, 0)
    const mark = this.mark()
    const { a, b, c, d, e, f } = map
    const columns = this.take(w * 8 + 32)
    const cells = Math.sqrt(Math.max(a * a + c * c, b * b + d * d))
    // With gradients of length 1 an octave keeps within √½ (K. Perlin, Improving Noise, 2002).
    const whole = Array.from({ length: Math.ceil(octaves) }, (_, i) => Math.min(1, octaves - i) / 2 ** i)
    const most = Math.SQRT1_2 * whole.reduce((sum, weight) => sum + weight, 0)
    for (let octave = 0; octave < Math.ceil(octaves); octave++) {
      const k = 2 ** octave
      const fading = Math.min(1, Math.max(0, 2 - 2 * cells * k))
      const weight = (whole[octave]! * fading) / most
      if (weight <= 0) continue
      const table = this.numbers(gradients(evolution * (octave + 1)))
      // Octaves stand beside each other's points: where all are 0 at once a pattern would show.
      const [shiftX, shiftY] = [octave * 17.31, octave * 9.73]
      const numbers = [
        table,
        weight,
        (seed * 16 + octave) >>> 0,
        a * k,
        b * k,
        c * k,
        d * k,
        e * k + shiftX,
        f * k + shiftY,
        columns,
      ]
      this.run.addFlowNoise(plane.at, w, h, x, y, ...numbers)
    }
    this.release(mark)
    return plane
  }
}

export interface Offset {
  x: Px
  y: Px
}

/** How near and far a window lies from a point, and in which turns from the x axis towards y it is seen: all, from within. */
function seenFrom(cx: Px, cy: Px, { x, y, w, h }: PlaceWindow) {
  const [left, right, top, bottom] = [x - cx, x + w - cx, y - cy, y + h - cy]
  const dx = Math.max(left, -right, 0)
  const dy = Math.max(top, -bottom, 0)
  const farX = Math.max(Math.abs(left), Math.abs(right))
  const farY = Math.max(Math.abs(top), Math.abs(bottom))
  const distances = { nearest: Math.sqrt(dx * dx + dy * dy), farthest: Math.sqrt(farX * farX + farY * farY) }
  if (dx === 0 && dy === 0) return { ...distances, from: 0, span: 1 }
  // From outside all corners lie on one side of the way to the middle.
  const middle = turnTo((left + right) / 2, (top + bottom) / 2)
  const aside = [left, right].flatMap((u) => [top, bottom].map((v) => turnTo(u, v) - middle))
  const nearby = aside.map((turn) => turn - Math.round(turn))
  const from = middle + Math.min(...nearby)
  return { ...distances, from: from - Math.floor(from), span: Math.max(...nearby) - Math.min(...nearby) }
}

/** The turn of a direction from the x axis towards y, 0–1. */
function turnTo(x: number, y: number): number {
  const away = Math.sqrt(x * x + y * y)
  const turn = away > 0 ? acosDegrees(x / away) / 360 : 0
  return y < 0 ? 1 - turn : turn
}

const MAP_CHANNELS = { red: 0, green: 1, blue: 2, alpha: 3, lightness: 4 } as const
export type MapChannel = keyof typeof MAP_CHANNELS

/** Directions all round; each turns by one or two turns, forward or back, for one of the evolution. */
function gradients(evolution: number): Float32Array {
  const table = new Float32Array(DIRECTIONS * 2)
  for (let i = 0; i < DIRECTIONS; i++) {
    const rate = PACES[i & 3]!
    const angle = (i * 360) / DIRECTIONS + rate * evolution * 360
    table[i * 2] = cosDegrees(angle)
    table[i * 2 + 1] = sinDegrees(angle)
  }
  return table
}

const PACES = [1, -1, 2, -2]

/** What 1 counts in sums of so many: as fine as 31 bits, and the rounding of assembly/smear.ts, allow. */
const unitFor = (count: number) => 2 ** Math.min(21, 30 - Math.ceil(Math.log2(Math.max(2, count))))
