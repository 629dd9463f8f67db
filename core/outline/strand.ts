import type { Point } from '../units'
import type { Ring } from './contour'

/** A line along its middle, open or closed, flattened. */
export interface Strand extends Ring {
  closed: boolean
  /** Share of the line's thickness at each point; the whole of it where left out. */
  widths?: number[]
}

/** Length up to each point of a strand, from 0; for a closed one the whole length comes last. */
export function lengthsOf({ points, closed }: Strand): number[] {
  const lengths = [0]
  const n = points.length / 2
  for (let i = 1; i < (closed ? n + 1 : n); i++) {
    const j = (i % n) * 2
    const [dx, dy] = [points[j]! - points[i * 2 - 2]!, points[j + 1]! - points[i * 2 - 1]!]
    lengths.push(lengths[i - 1]! + Math.sqrt(dx * dx + dy * dy))
  }
  return lengths
}

export const lengthOf = (strand: Strand): number => lengthsOf(strand).at(-1)!

/** A strand that can be asked for its parts. */
export class MeasuredStrand {
  readonly length: number
  private readonly lengths: number[]
  /** The strand with its first point once more at the end where it is closed. */
  private readonly points: number[]
  private readonly smooth: boolean[]
  private readonly widths: number[] | undefined

  constructor(readonly strand: Strand) {
    this.lengths = lengthsOf(strand)
    this.length = this.lengths.at(-1)!
    const { points, smooth, widths, closed } = strand
    this.points = closed ? [...points, points[0]!, points[1]!] : points
    this.smooth = closed ? [...smooth, smooth[0]!] : smooth
    this.widths = widths && closed ? [...widths, widths[0]!] : widths
  }

  /** The point at a length, 0 up to the whole; and the share of the thickness there. */
  at(length: number): { x: number; y: number; width: number } {
    const { lengths, points, widths } = this
    const i = this.segmentAt(length)
    const span = lengths[i + 1]! - lengths[i]!
    const t = span > 0 ? Math.min(1, Math.max(0, (length - lengths[i]!) / span)) : 0
    const mix = (a: number, b: number) => a + (b - a) * t
    return {
      x: mix(points[i * 2]!, points[i * 2 + 2]!),
      y: mix(points[i * 2 + 1]!, points[i * 2 + 3]!),
      width: widths ? mix(widths[i]!, widths[i + 1]!) : 1,
    }
  }

  /** The length at which the strand comes nearest to a point. */
  nearest({ x, y }: Point): number {
    const { lengths, points } = this
    let [found, least] = [0, Infinity]
    for (let i = 0; i + 1 < lengths.length; i++) {
      const [ax, ay] = [points[i * 2]!, points[i * 2 + 1]!]
      const [dx, dy] = [points[i * 2 + 2]! - ax, points[i * 2 + 3]! - ay]
      const span = dx * dx + dy * dy
      const t = span > 0 ? Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / span)) : 0
      const distance = (ax + dx * t - x) ** 2 + (ay + dy * t - y) ** 2
      if (distance >= least) continue
      least = distance
      found = lengths[i]! + t * (lengths[i + 1]! - lengths[i]!)
    }
    return found
  }

  /** The index of the point before a length. */
  private segmentAt(length: number): number {
    const { lengths } = this
    let [low, high] = [0, lengths.length - 2]
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if (lengths[middle]! <= length) low = middle
      else high = middle - 1
    }
    return low
  }

  /**
   * The parts between two lengths, `to` not before `from`. Along a closed strand lengths go on round the ring and a part may
   * lead across its start; of an open one only what lies on it is there. All of it is the strand itself.
   */
  parts(from: number, to: number): Strand[] {
    const { length, strand } = this
    if (length <= 0 || !(to > from)) return []
    if (!strand.closed) {
      const [a, b] = [Math.max(0, from), Math.min(length, to)]
      if (a <= 0 && b >= length) return [strand]
      return b > a ? [this.part(a, b)] : []
    }
    if (to - from >= length) return [strand]
    const start = from - Math.floor(from / length) * length
    const end = start + (to - from)
    if (end <= length) return [this.part(start, end)]
    return [joined(this.part(start, length), this.part(0, end - length), this.smooth[0]!)]
  }

  private part(from: number, to: number): Strand {
    const { lengths } = this
    const [start, end] = [this.at(from), this.at(to)]
    const points = [start.x, start.y]
    const smooth = [true]
    const widths = [start.width]
    for (let i = this.segmentAt(from) + 1; i < lengths.length && lengths[i]! < to; i++) {
      if (lengths[i]! <= from) continue
      points.push(this.points[i * 2]!, this.points[i * 2 + 1]!)
      smooth.push(this.smooth[i]!)
      if (this.widths) widths.push(this.widths[i]!)
    }
    points.push(end.x, end.y)
    smooth.push(true)
    widths.push(end.width)
    return { points, smooth, closed: false, ...(this.widths ? { widths } : {}) }
  }
}

/** Two open strands, the second of which begins where the first one ends; `smooth`: whether there is no corner there. */
export function joined(a: Strand, b: Strand, smooth: boolean): Strand {
  return {
    points: [...a.points, ...b.points.slice(2)],
    smooth: [...a.smooth.slice(0, -1), smooth, ...b.smooth.slice(1)],
    closed: false,
    ...(a.widths && b.widths ? { widths: [...a.widths, ...b.widths.slice(1)] } : {}),
  }
}

/** A strand with more points, so that no straight piece is longer than `longest`; those between have no corner. */
export function denser(strand: Strand, longest: number): Strand {
  const { points, smooth, closed, widths } = strand
  const n = points.length / 2
  const out: Strand = { points: [], smooth: [], closed, ...(widths ? { widths: [] } : {}) }
  for (let i = 0; i < n; i++) {
    out.points.push(points[i * 2]!, points[i * 2 + 1]!)
    out.smooth.push(smooth[i]!)
    if (widths) out.widths!.push(widths[i]!)
    if (i === n - 1 && !closed) break
    const j = (i + 1) % n
    const [dx, dy] = [points[j * 2]! - points[i * 2]!, points[j * 2 + 1]! - points[i * 2 + 1]!]
    const pieces = Math.ceil(Math.sqrt(dx * dx + dy * dy) / longest)
    for (let k = 1; k < pieces; k++) {
      const t = k / pieces
      out.points.push(points[i * 2]! + dx * t, points[i * 2 + 1]! + dy * t)
      out.smooth.push(true)
      if (widths) out.widths!.push(widths[i]! + (widths[j]! - widths[i]!) * t)
    }
  }
  return out
}
