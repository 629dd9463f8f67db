import type { Px } from '../units'
import { cosDegrees, sinDegrees } from './exact'
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
/** Even directions of a circle; linear in between, right to 10⁻⁶. */
const CIRCLE = 4096

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
    const { w, h } = sizes.at(-1)!
    const taps = this.numbers(gaussTaps(low, radius))
    const row = this.take((w + 2 * radius) * 16)
    const columns = this.layers(w, h, false)
    this.run.convolveColumns(halved.at, columns.at, w * 4, h, taps, radius)
    if (levels === 0) {
      const whole = dst.stride === dst.w * 16 ? dst : this.layers(w, h, false)
      this.run.convolveRowsRgba(columns.at, whole.at, w, h, taps, radius, row)
      if (whole !== dst) this.copy(whole, dst)
    } else {
      this.run.convolveRowsRgba(columns.at, columns.at, w, h, taps, radius, row)
      this.doubledInto(columns, sizes, dst)
    }
    this.settle(dst)
    this.release(mark)
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
      this.run.halveRgba(halved.at, halved.stride, lower.at, halved.w, halved.h, w, h, this.take((2 * w + 4) * 16))
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
      this.run.doubleRgba(from.at, into.at, into.stride, from.w, from.h, w, h, rows)
      this.release(mark)
      from = into
    }
  }

  /** dst = the mean of a line of `length` px around each pixel, at an angle in degrees anticlockwise. */
  smearInto(src: Picture, dst: Layers, angle: number, length: Px): void {
    const [right, down] = [cosDegrees(angle), -sinDegrees(angle)]
    const flat = Math.abs(right) >= Math.abs(down)
    const along = length * Math.max(Math.abs(right), Math.abs(down))
    const half = along / 2
    const inner = Math.max(0, Math.ceil(half - 0.5) - 1)
    const end = half - 0.5 - inner
    this.clear(dst)
    const { x, y, w, h } = src.box
    const [n, m] = flat ? [w, h] : [h, w]
    const mark = this.mark()
    const line = this.take((n + 2 * (inner + 1)) * 16)
    const steps = (layers: Layers) => (flat ? [16, layers.stride] : [layers.stride, 16])
    const [step, row] = steps(src) as [number, number]
    const slope = flat ? down / right : right / down
    this.run.smearLines(
      ...([src.at, step, row, dst.at] as const),
      ...[...steps(dst), n, m, ...(flat ? [x, y] : [y, x]), slope, inner, end, unitFor(2 * inner + 1), line],
    )
    this.release(mark)
  }

  /** dst = the mean of a line towards (cx, cy), from `less` to `more` times each pixel's distance. */
  zoomInto(src: Picture, dst: Layers, cx: Px, cy: Px, less: number, more: number): void {
    const { x, y, w, h } = src.box
    const far = Math.max(1, Math.abs(x - cx), Math.abs(x + w - cx), Math.abs(y - cy), Math.abs(y + h - cy))
    this.clear(dst)
    for (const flat of [true, false]) {
      const [n, m] = flat ? [w, h] : [h, w]
      const mark = this.mark()
      const [line, sums] = [this.take(n * 16), this.take((n + 1) * 16)]
      const steps = (layers: Layers) => (flat ? [16, layers.stride] : [layers.stride, 16])
      const [step, row] = steps(src) as [number, number]
      this.run.zoomLines(
        ...([src.at, step, row, dst.at] as const),
        ...[...steps(dst), n, m, ...(flat ? [x, y, cx, cy] : [y, x, cy, cx]), far, less, more],
        ...[flat, unitFor(n), line, sums],
      )
      this.release(mark)
    }
  }

  /** dst = the mean of an arc of `angle` degrees around each pixel, about (cx, cy). */
  spinInto(src: Picture, dst: Layers, cx: Px, cy: Px, angle: number): void {
    const { x, y, w, h } = src.box
    const [dx, dy] = [
      Math.max(Math.abs(x - cx), Math.abs(x + w - cx)),
      Math.max(Math.abs(y - cy), Math.abs(y + h - cy)),
    ]
    const count = Math.ceil(Math.sqrt(dx * dx + dy * dy)) + 2
    const mark = this.mark()
    const rings = this.take(this.run.ringPixels(count) * 16)
    const table = this.take(count * 8)
    const line = this.take((Math.ceil(2 * Math.PI * (count + 1)) + 16) * 16)
    this.run.spinRings(
      ...([src.at, src.stride, dst.at, dst.stride, w, h, x, y] as const),
      ...[cx, cy, angle / 360, count, rings, table, this.circleTable(), CIRCLE, line],
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

  /** dst = src read beside each pixel, by the px of two planes to the right and down. */
  displaceInto(src: Picture, dst: Picture, right: Plane, down: Plane, area: EdgeArea, smooth: boolean): void {
    const mark = this.mark()
    const { x, y } = dst.box
    const source = this.source(src, area)
    this.run.displaceRows(dst.at, dst.stride, dst.w, dst.h, x, y, source, smooth, right.at, down.at)
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

  /** (channel − neutral) · amount of straight colours, weighed by their alpha. */
  mapPlane({ at, stride, w, h }: Layers, channel: MapChannel, neutral: number, amount: number): Plane {
    const plane = this.plane(w, h)
    this.run.mapPlane(at, stride, plane.at, w, h, MAP_CHANNELS[channel], neutral, amount)
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

/** What 1 counts in sums of so many: as fine as 31 bits allow. */
const unitFor = (count: number) => 2 ** (30 - Math.ceil(Math.log2(Math.max(2, count))))
