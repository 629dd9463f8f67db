import { acosDegrees, cosDegrees, sinDegrees } from '../kernels/exact'
import type { Point } from '../units'
import type { Ring } from './contour'
import type { Join } from './corners'
import type { Strand } from './strand'

// A line of some thickness as an outline: SVG 2 §13.5 (stroke-linecap, stroke-linejoin, stroke-miterlimit).

export type Cap = 'butt' | 'round' | 'square'

export interface LineStyle {
  thickness: number
  cap: Cap
  join: Join
  /** A mitre longer than this many thicknesses becomes a bevel. */
  limit: number
}

/**
 * Rings that make up a stroked line; their union by the non-zero rule is the line. As long as the line bends more
 * gently than half its thickness, it is one ring along both of its sides (two where it is closed); where it bends more
 * sharply, the ring is parted there and the gap on the outer side filled by a wedge. Rings overlap by far more than
 * the grid on which they are united, so no sliver is left between them. All run the same way round. Arcs stay within
 * `tolerance`.
 */
export function strokeRings(strand: Strand, style: LineStyle, tolerance: number): Ring[] {
  const { closed } = strand
  const vertices = verticesOf(strand, style.thickness / 2, nearest(style.thickness))
  const fine = Math.max(tolerance, nearest(style.thickness) / 8)
  // SVG 2 draws the caps of a line of no length; here it draws nothing.
  if (style.thickness <= 0 || vertices.length < 2) return []
  const line = new Line(vertices, closed && vertices.length > 2, { ...style, tolerance: fine })
  return line.rings()
}

/** Thickness in px beyond which a line is made less finely the thicker it is: it is larger than what it goes round. */
const THICK = 1000

/** How close points of a line may lie. */
export const nearest = (thickness: number) => (thickness > THICK ? (thickness - THICK) / 200 : 0)

/** A point of a line's side. */
interface Edge extends Point {
  smooth: boolean
}

/** A point of a line, with half of its thickness there. */
interface Vertex extends Edge {
  r: number
}

/** Vertices of a line that a round thing needs at the least to go round it. */
const LEAST_VERTICES = 3

/** The vertices of a line, those left out that lie closer than `near`: closer ones count where hardly any would be left. */
function verticesOf(strand: Strand, r: number, near: number): Vertex[] {
  const found = withoutRepeats(strand, r, near)
  return found.length >= LEAST_VERTICES || near === 0 ? found : verticesOf(strand, r, near < 0.01 ? 0 : near / 4)
}

function withoutRepeats({ points, smooth, widths, closed }: Strand, r: number, near: number): Vertex[] {
  const found: Vertex[] = []
  for (let i = 0; i < points.length; i += 2) {
    const last = found[found.length - 1]
    if (last && last.x === points[i] && last.y === points[i + 1]) continue
    if (last && near > 0 && Math.abs(last.x - points[i]!) + Math.abs(last.y - points[i + 1]!) < near) continue
    const width = widths ? widths[i / 2]! : 1
    found.push({ x: points[i]!, y: points[i + 1]!, smooth: smooth[i / 2]!, r: r * width })
  }
  const [first, last] = [found[0], found[found.length - 1]]
  if (closed && found.length > 1 && first!.x === last!.x && first!.y === last!.y) found.pop()
  return found
}

/** The sides of a line at one of its vertices: seen in its direction, one to the left and one to the right. */
interface Joint {
  left: Edge[]
  right: Edge[]
  /** The side that the line turns away from. */
  outer: 'left' | 'right'
  /** False where the inner side would run backwards: the line is parted there. */
  whole: boolean
}

interface LineWork extends LineStyle {
  tolerance: number
}

/** A side that keeps less than this share of its edge's length counts as running backwards. */
const LEAST_ADVANCE = 0.05

class Line {
  private readonly edges: number
  private readonly ways: Point[]
  private readonly joints: (Joint | null)[]

  constructor(
    private readonly vertices: readonly Vertex[],
    private readonly closed: boolean,
    private readonly work: LineWork,
  ) {
    const n = vertices.length
    this.edges = closed ? n : n - 1
    this.ways = Array.from({ length: this.edges }, (_, i) => towards(vertices[i]!, vertices[(i + 1) % n]!))
    this.joints = vertices.map((v, i) =>
      closed || (i > 0 && i < n - 1) ? jointAt(v, this.way(i - 1), this.way(i), work) : null,
    )
    this.part()
  }

  private way(i: number): Point {
    return this.ways[(i + this.edges) % this.edges]!
  }

  private vertex(i: number): Vertex {
    return this.vertices[i % this.vertices.length]!
  }

  /** Parts the line at joints between which a side has no room. */
  private part(): void {
    for (let i = 0; i < this.edges; i++) {
      const [a, b, way] = [this.vertex(i), this.vertex(i + 1), this.way(i)]
      const length = (b.x - a.x) * way.x + (b.y - a.y) * way.y
      const ends = [this.joints[i], this.joints[(i + 1) % this.vertices.length]] as const
      for (const side of ['left', 'right'] as const) {
        const from = ends[0]?.[side].at(-1) ?? a
        const to = ends[1]?.[side][0] ?? b
        const [x0, x1] = [from, to].map((p) => (p.x - a.x) * way.x + (p.y - a.y) * way.y) as [number, number]
        if (x1 - x0 > LEAST_ADVANCE * length) continue
        for (const joint of ends) if (joint && joint.outer !== side) joint.whole = false
      }
    }
  }

  rings(): Ring[] {
    const n = this.vertices.length
    const parted = this.joints.flatMap((joint, i) => (joint && !joint.whole ? [i] : []))
    if (this.closed && parted.length === 0) return this.band()
    const wedges = parted.map((i) => this.wedge(i))
    const starts = this.closed ? parted : [0, ...parted]
    const runs = starts.map((start, k) => {
      const end = this.closed ? (parted[k + 1] ?? parted[0]! + n) : (starts[k + 1] ?? n - 1)
      return this.run(start, end)
    })
    return [...runs, ...wedges]
  }

  /** A closed line: one ring along each side. */
  private band(): Ring[] {
    const left = this.joints.flatMap((joint) => joint!.left)
    const right = this.joints.flatMap((joint) => joint!.right)
    return [ringOf(left), ringOf(right.reverse())]
  }

  /** The stretch between two vertices at which the line is parted or ends: there along its left side, back along the right. */
  private run(start: number, end: number): Ring {
    const [first, last] = [this.way(start), this.way(end - 1)]
    const [a, b] = [this.vertex(start), this.vertex(end)]
    const isEnd = (i: number) => !this.closed && (i === 0 || i === this.vertices.length - 1)
    const left = [beside(a, first, a.r)]
    const right = [beside(a, first, -a.r)]
    for (let i = start + 1; i < end; i++) {
      const joint = this.joints[i % this.vertices.length]!
      left.push(...joint.left)
      right.push(...joint.right)
    }
    left.push(beside(b, last, b.r))
    right.push(beside(b, last, -b.r))
    const { cap } = this.work
    const closing = isEnd(end) ? this.capAt(b, last) : []
    const opening = isEnd(start) ? this.capAt(a, { x: -first.x, y: -first.y }) : []
    if (cap === 'round') {
      // The sides run on into a round cap without a corner.
      if (isEnd(start)) left[0]!.smooth = right[0]!.smooth = true
      if (isEnd(end)) left[left.length - 1]!.smooth = right[right.length - 1]!.smooth = true
    }
    return ringOf([...left, ...closing, ...right.reverse(), ...opening])
  }

  /** What goes round an end of the line from the left of `way` to its right. */
  private capAt(v: Vertex, way: Point): Edge[] {
    const { cap, tolerance } = this.work
    const { r } = v
    if (cap === 'butt') return []
    if (cap === 'round') {
      const from = { x: way.y, y: -way.x }
      return arc(v, from, { x: -from.x, y: -from.y }, 1, r, tolerance).slice(1, -1)
    }
    const [left, right] = [beside(v, way, r), beside(v, way, -r)]
    return [left, right].map(({ x, y }) => ({ x: x + way.x * r, y: y + way.y * r, smooth: false }))
  }

  /** Fills the outer side of a joint at which the line is parted; reaches back into both of its runs. */
  private wedge(i: number): Ring {
    const [v, come, go] = [this.vertex(i), this.way(i - 1), this.way(i)]
    const joint = this.joints[i]!
    const before = this.vertex(i + this.vertices.length - 1)
    const after = this.vertex(i + 1)
    const turn = turnOf(come, go)
    // As deep as both edges go on: so far back along each of them lies the tip.
    const slant = Math.sqrt(Math.max(1e-12, 1 - turn.half * turn.half))
    const room = Math.min(v.r, apart(before, v) / slant, apart(v, after) / slant) / 2
    const [x, y] = [come.x - go.x, come.y - go.y]
    const length = Math.sqrt(x * x + y * y)
    const tip = { x: v.x - (x / length) * room, y: v.y - (y / length) * room, smooth: false }
    const rim = rimOf(v, turn, this.work)
    return ringOf(joint.outer === 'left' ? [tip, ...rim] : [tip, ...rim.reverse()])
  }
}

/** How a line turns: `from` and `to` are the normals of both edges on the outer side. */
interface Turn {
  sign: 1 | -1
  from: Point
  to: Point
  /** Cosine of half the turn. */
  half: number
}

function turnOf(come: Point, go: Point): Turn {
  // On screen, with y down, a positive cross product is a turn to the right.
  const sign = come.x * go.y - come.y * go.x >= 0 ? 1 : -1
  const half = Math.sqrt(Math.max(0, (1 + come.x * go.x + come.y * go.y) / 2))
  return { sign, from: { x: sign * come.y, y: -sign * come.x }, to: { x: sign * go.y, y: -sign * go.x }, half }
}

/** Cosine of half a turn so sharp that neither a mitre nor a meeting of the inner sides is near. */
const SHARP = 1e-3

function jointAt(v: Vertex, come: Point, go: Point, work: LineWork): Joint {
  const { tolerance } = work
  const { r } = v
  const turn = turnOf(come, go)
  const { sign, half } = turn
  const outer = sign > 0 ? 'left' : 'right'
  const side = (rim: Edge[], hollow: Edge[], whole: boolean): Joint =>
    outer === 'left' ? { left: rim, right: hollow, outer, whole } : { left: hollow, right: rim, outer, whole }
  // A curve that was flattened: its offset curve is flattened at the same places.
  if (v.smooth && r * (1 - half) <= tolerance) {
    const k = r / (2 * half)
    return side([onBisector(v, turn, k, true)], [onBisector(v, turn, -k, true)], true)
  }
  const rim = rimOf(v, turn, work)
  if (half < SHARP) return side(rim, [beside(v, come, -sign * r)], false)
  // The inner sides meet where both offset edges cross.
  return side(rim, [onBisector(v, turn, -r / (2 * half * half), v.smooth)], true)
}

const onBisector = (v: Point, { from, to }: Turn, k: number, smooth: boolean): Edge => {
  const [x, y] = [v.x + (from.x + to.x) * k, v.y + (from.y + to.y) * k]
  return { x, y, smooth }
}

/** The outer side of a turn, from one edge to the other. */
function rimOf(v: Vertex, turn: Turn, { join, limit, tolerance }: LineWork): Edge[] {
  const { sign, from, to, half } = turn
  const { r } = v
  if (v.smooth || join === 'round') return arc(v, from, to, sign, r, tolerance)
  const [start, end] = [from, to].map((n) => ({ x: v.x + n.x * r, y: v.y + n.y * r, smooth: false })) as [Edge, Edge]
  if (join === 'bevel' || half < SHARP || 1 / half > limit) return [start, end]
  return [start, onBisector(v, turn, r / (2 * half * half), false), end]
}

/** Points round a vertex from one radius to another; both ends belong to it. */
function arc(v: Point, from: Point, to: Point, turn: 1 | -1, r: number, tolerance: number): Edge[] {
  const angle = acosDegrees(from.x * to.x + from.y * to.y)
  // A chord of angle s leaves r(1 − cos(s/2)) to its arc.
  const step = 2 * acosDegrees(Math.max(0, 1 - tolerance / r))
  const n = Math.max(1, Math.ceil(angle / Math.max(step, 0.5)))
  return Array.from({ length: n + 1 }, (_, i) => {
    // On screen, with y down, a turn to the right is a turn of the radius to the right.
    const a = (-turn * angle * i) / n
    const [c, s] = [cosDegrees(a), sinDegrees(a)]
    return { x: v.x + (from.x * c + from.y * s) * r, y: v.y + (-from.x * s + from.y * c) * r, smooth: true }
  })
}

/** The point `by` to the left of a vertex, seen in a direction. */
const beside = (v: Point, way: Point, by: number): Edge => ({
  ...{ x: v.x + way.y * by, y: v.y - way.x * by },
  smooth: false,
})

const apart = (a: Point, b: Point) => Math.sqrt((b.x - a.x) ** 2 + (b.y - a.y) ** 2)

function towards(a: Point, b: Point): Point {
  const length = apart(a, b)
  return { x: (b.x - a.x) / length, y: (b.y - a.y) / length }
}

function ringOf(vertices: readonly Edge[]): Ring {
  const points = new Array<number>(vertices.length * 2)
  vertices.forEach(({ x, y }, i) => {
    points[i * 2] = x
    points[i * 2 + 1] = y
  })
  return { points, smooth: vertices.map(({ smooth }) => smooth) }
}
