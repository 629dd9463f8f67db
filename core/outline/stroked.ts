import { acosDegrees, cosDegrees, sinDegrees } from '../kernels/exact'
import type { Ring, Stretch } from './contour'
import type { Join } from './corners'

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
 * The pieces that make up a stroked line: a rectangle an edge, a wedge a joint, a cap at each end. They overlap and
 * all run the same way round: their union by the non-zero rule is the line. Arcs stay within `tolerance`.
 */
export function strokePieces(
  { points, smooth, closed }: Stretch,
  { thickness, cap, join, limit }: LineStyle,
  tolerance: number,
): Ring[] {
  const r = thickness / 2
  if (r <= 0) return []
  const vertices = withoutRepeats(points, smooth)
  const n = vertices.length
  if (n === 0) return []
  // A line of no length has caps only where they are round or square, as SVG 2 draws it; here it draws nothing.
  if (n === 1) return []
  const pieces: Ring[] = []
  const edges = closed ? n : n - 1
  const way = Array.from({ length: edges }, (_, i) => towards(vertices[i]!, vertices[(i + 1) % n]!))
  for (let i = 0; i < edges; i++) {
    const [a, b, d] = [vertices[i]!, vertices[(i + 1) % n]!, way[i]!]
    const [nx, ny] = [d.y * r, -d.x * r]
    const corners = [a.x + nx, a.y + ny, b.x + nx, b.y + ny, b.x - nx, b.y - ny, a.x - nx, a.y - ny]
    // Along the sides curves stay smooth; the ends vanish in the joints.
    pieces.push({ points: corners, smooth: [a.smooth, b.smooth, b.smooth, a.smooth] })
  }
  for (let i = closed ? 0 : 1; i < (closed ? n : n - 1); i++) {
    const v = vertices[i]!
    const joined = joint(v, way[(i - 1 + edges) % edges]!, way[i]!, r, v.smooth ? 'round' : join, limit, tolerance)
    if (joined) pieces.push(joined)
  }
  if (!closed && cap !== 'butt') {
    pieces.push(capAt(vertices[0]!, { x: -way[0]!.x, y: -way[0]!.y }, r, cap, tolerance))
    pieces.push(capAt(vertices[n - 1]!, way[edges - 1]!, r, cap, tolerance))
  }
  return pieces.map(clockwise)
}

interface Vertex {
  x: number
  y: number
  smooth: boolean
}

function withoutRepeats(points: readonly number[], smooth: readonly boolean[]): Vertex[] {
  const found: Vertex[] = []
  for (let i = 0; i < points.length; i += 2) {
    const last = found[found.length - 1]
    if (last && last.x === points[i] && last.y === points[i + 1]) continue
    found.push({ x: points[i]!, y: points[i + 1]!, smooth: smooth[i / 2]! })
  }
  return found
}

function towards(a: Vertex, b: Vertex): { x: number; y: number } {
  const length = Math.sqrt((b.x - a.x) ** 2 + (b.y - a.y) ** 2)
  return { x: (b.x - a.x) / length, y: (b.y - a.y) / length }
}

type Way = { x: number; y: number }

/** What fills the gap on the outer side of a turn. */
function joint(v: Vertex, come: Way, go: Way, r: number, join: Join, limit: number, tolerance: number): Ring | null {
  const cross = come.x * go.y - come.y * go.x
  const dot = come.x * go.x + come.y * go.y
  if (cross === 0 && dot > 0) return null
  const turn = cross >= 0 ? 1 : -1
  const from = { x: turn * come.y, y: -turn * come.x }
  const to = { x: turn * go.y, y: -turn * go.x }
  const half = Math.sqrt(Math.max(0, (1 + dot) / 2))
  if (join === 'round') return { ...arc(v, from, to, turn, r, tolerance) }
  const [x0, y0, x1, y1] = [v.x + from.x * r, v.y + from.y * r, v.x + to.x * r, v.y + to.y * r]
  if (join === 'bevel' || half < 1e-6 || 1 / half > limit) {
    return { points: [v.x, v.y, x0, y0, x1, y1], smooth: [false, false, false] }
  }
  const k = r / (2 * half * half)
  const tip = [v.x + (from.x + to.x) * k, v.y + (from.y + to.y) * k] as const
  return { points: [v.x, v.y, x0, y0, ...tip, x1, y1], smooth: [false, false, false, false] }
}

function capAt(v: Vertex, way: Way, r: number, cap: Cap, tolerance: number): Ring {
  const from = { x: way.y, y: -way.x }
  if (cap === 'round') return arc(v, from, { x: -from.x, y: -from.y }, 1, r, tolerance)
  const [fx, fy, wx, wy] = [from.x * r, from.y * r, way.x * r, way.y * r]
  return {
    points: [v.x + fx, v.y + fy, v.x + fx + wx, v.y + fy + wy, v.x - fx + wx, v.y - fy + wy, v.x - fx, v.y - fy],
    smooth: [false, false, false, false],
  }
}

/** A fan around a point from one radius to another. */
function arc(v: Vertex, from: Way, to: Way, turn: 1 | -1, r: number, tolerance: number): Ring {
  const angle = acosDegrees(from.x * to.x + from.y * to.y)
  // A chord of angle s leaves r(1 − cos(s/2)) to its arc.
  const step = 2 * acosDegrees(Math.max(0, 1 - tolerance / r))
  const n = Math.max(1, Math.ceil(angle / Math.max(step, 0.5)))
  const points = [v.x, v.y]
  for (let i = 0; i <= n; i++) {
    // On screen, with y down, a turn to the right is a turn of the radius to the right.
    const a = (-turn * angle * i) / n
    const [c, s] = [cosDegrees(a), sinDegrees(a)]
    points.push(v.x + (from.x * c + from.y * s) * r, v.y + (-from.x * s + from.y * c) * r)
  }
  return { points, smooth: points.flatMap((_, i) => (i % 2 ? [] : [i > 0])) }
}

function clockwise(ring: Ring): Ring {
  const { points, smooth } = ring
  let area = 0
  for (let i = 0; i < points.length; i += 2) {
    const j = (i + 2) % points.length
    area += points[i]! * points[j + 1]! - points[j]! * points[i + 1]!
  }
  if (area >= 0) return ring
  const turned: number[] = []
  for (let i = points.length - 2; i >= 0; i -= 2) turned.push(points[i]!, points[i + 1]!)
  return { points: turned, smooth: [...smooth].reverse() }
}
