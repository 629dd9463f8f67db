import type { Strand } from '../outline/strand'
import { MeasuredStrand } from '../outline/strand'

/** A path along which words stand, in em around the place of the type. */
export interface TextPath {
  /** Names it: equal keys, equal paths. */
  key: string
  strand: Strand
  /** Where the words begin, or their middle or end stands, as a share of its length. */
  start: number
  /** The words stand to the left of its direction, or its direction is turned round. */
  side: 'left' | 'right'
  /** What has no room on an open path is hidden, or goes on straight. */
  overflow: 'hide' | 'straight'
}

/** A place on the path: the point, and the direction of the path there as a unit vector. */
export interface PathPlace {
  x: number
  y: number
  dx: number
  dy: number
}

/** What is asked of a path at lengths from where the words begin. */
export class PathLine {
  private readonly measured: MeasuredStrand
  private readonly from: number

  constructor(private readonly path: TextPath) {
    this.measured = new MeasuredStrand(path.side === 'right' ? reversed(path.strand) : path.strand)
    this.from = path.start * this.measured.length
  }

  get length(): number {
    return this.measured.length
  }

  /** Null where nothing stands. */
  at(way: number): PathPlace | null {
    const { length, strand } = this.measured
    if (length <= 0) return null
    const along = this.from + way
    if (strand.closed) return this.on(along - Math.floor(along / length) * length)
    if (along >= 0 && along <= length) return this.on(along)
    if (this.path.overflow === 'hide') return null
    const end = this.on(along < 0 ? 0 : length)
    const beyond = along < 0 ? along : along - length
    return { ...end, x: end.x + end.dx * beyond, y: end.y + end.dy * beyond }
  }

  private on(length: number): PathPlace {
    const { measured } = this
    // The direction over a short stretch, so that flattened curves turn smoothly.
    const near = Math.min(measured.length / 2, 0.02)
    const { closed } = measured.strand
    const turned = (v: number) => (closed ? ((v % measured.length) + measured.length) % measured.length : v)
    const clamped = (v: number) => (closed ? turned(v) : Math.min(measured.length, Math.max(0, v)))
    const [a, b] = [measured.at(clamped(length - near)), measured.at(clamped(length + near))]
    const { x, y } = measured.at(clamped(length))
    const span = Math.sqrt((b.x - a.x) ** 2 + (b.y - a.y) ** 2)
    return span > 0 ? { x, y, dx: (b.x - a.x) / span, dy: (b.y - a.y) / span } : { x, y, dx: 1, dy: 0 }
  }
}

const reversed = ({ points, smooth, closed }: Strand): Strand => {
  const n = smooth.length
  // A closed one keeps its first point.
  const order = Array.from({ length: n }, (_, i) => (closed ? (n - i) % n : n - 1 - i))
  return {
    points: order.flatMap((i) => [points[i * 2]!, points[i * 2 + 1]!]),
    smooth: order.map((i) => smooth[i]!),
    closed,
  }
}
