import { distanceBetween } from './measure'
import type { Point } from '../units'
import type { PathCommand } from './contour'

// A path as hands edit it: points with bend handles, instead of commands.

export interface PathPoint extends Point {
  /** Bend handles, as points of the path's own space; null where that side is straight. */
  before: Point | null
  after: Point | null
}

export interface PathContour {
  closed: boolean
  points: PathPoint[]
}

/** Where a point stands among the contours. */
export interface PointPlace {
  contour: number
  point: number
}

const same = (a: Point, b: Point) => Math.abs(a.x - b.x) < 1e-9 && Math.abs(a.y - b.y) < 1e-9

/** Contours of a path; quadratic curves become the same curves as cubic ones. */
export function pointsOf(path: readonly PathCommand[]): PathContour[] {
  const contours: PathContour[] = []
  let current: PathContour | null = null
  let start: Point = { x: 0, y: 0 }
  const begin = (x: number, y: number) => {
    start = { x, y }
    current = { closed: false, points: [{ x, y, before: null, after: null }] }
    contours.push(current)
  }
  for (const c of path) {
    if (c.type === 'M') {
      begin(c.x, c.y)
      continue
    }
    if (c.type === 'Z') {
      if (current) closeContour(current)
      current = null
      continue
    }
    // After a Z drawing goes on from the contour's start.
    if (!current) begin(start.x, start.y)
    // `begin` has set it, which the compiler does not see.
    const { points } = current as unknown as PathContour
    const last = points[points.length - 1]!
    const point: PathPoint = { x: c.x, y: c.y, before: null, after: null }
    if (c.type === 'C') {
      last.after = handle(last, { x: c.x1, y: c.y1 })
      point.before = handle(point, { x: c.x2, y: c.y2 })
    } else if (c.type === 'Q') {
      // Degree elevation: the handles lie two thirds of the way to the quadratic's one.
      const toward = (p: Point): Point => ({ x: p.x + ((c.x1 - p.x) * 2) / 3, y: p.y + ((c.y1 - p.y) * 2) / 3 })
      last.after = handle(last, toward(last))
      point.before = handle(point, toward(point))
    }
    points.push(point)
  }
  return contours
}

const handle = (point: Point, at: Point): Point | null => (same(point, at) ? null : at)

/** A last point that lies on the first one is that one. */
function closeContour(contour: PathContour): void {
  contour.closed = true
  const { points } = contour
  const [first, last] = [points[0]!, points[points.length - 1]!]
  if (points.length > 1 && same(first, last)) {
    first.before = last.before
    points.pop()
  }
}

/** Path data (SVG 2 §9.3) of contours, to hundredths of a unit. */
export function writePoints(contours: readonly PathContour[]): string {
  return contours
    .filter(({ points }) => points.length > 0)
    .map(({ closed, points }) => {
      const [first] = points
      const parts = [`M ${pair(first!)}`]
      const edges = closed ? points.length : points.length - 1
      for (let i = 0; i < edges; i++) {
        const [a, b] = [points[i]!, points[(i + 1) % points.length]!]
        // A handle that lies on its point bends nothing.
        const bent = bends(a, a.after) || bends(b, b.before)
        // The straight way home is what Z draws.
        if (bent) parts.push(`C ${pair(a.after ?? a)} ${pair(b.before ?? b)} ${pair(b)}`)
        else if (i + 1 < points.length) parts.push(`L ${pair(b)}`)
      }
      return [...parts, ...(closed ? ['Z'] : [])].join(' ')
    })
    .join(' ')
}

const bends = (point: Point, handle: Point | null) => handle !== null && pair(handle) !== pair(point)
const pair = ({ x, y }: Point) => `${hundredths(x)} ${hundredths(y)}`
const hundredths = (v: number) => Math.round(v * 100) / 100 + 0

const changed = (
  contours: readonly PathContour[],
  { contour, point }: PointPlace,
  change: (points: PathPoint[], at: number) => PathPoint[],
): PathContour[] => contours.map((c, i) => (i === contour ? { ...c, points: change([...c.points], point) } : c))

/** A point and its handles moved together. */
export function movePoint(contours: readonly PathContour[], at: PointPlace, to: Point): PathContour[] {
  return changed(contours, at, (points, i) => {
    const p = points[i]!
    const by = { x: to.x - p.x, y: to.y - p.y }
    const along = (h: Point | null) => h && { x: h.x + by.x, y: h.y + by.y }
    points[i] = { ...to, before: along(p.before), after: along(p.after) }
    return points
  })
}

/** One bend handle moved; `both` turns the other one so that the path runs through the point without a corner. */
export function moveHandle(
  contours: readonly PathContour[],
  at: PointPlace,
  side: 'before' | 'after',
  to: Point,
  both: boolean,
): PathContour[] {
  return changed(contours, at, (points, i) => {
    const p = points[i]!
    const other = side === 'before' ? 'after' : 'before'
    const opposite = p[other]
    const next = { ...p, [side]: same(p, to) ? null : to }
    if (both && opposite) {
      const length = distanceBetween(opposite, p)
      const own = Math.max(1e-9, distanceBetween(to, p))
      next[other] = { x: p.x - ((to.x - p.x) / own) * length, y: p.y - ((to.y - p.y) / own) * length }
    }
    points[i] = next
    return points
  })
}

/** Whether the path runs through a point without a corner: both handles on one line, on either side. */
export function isSmooth({ x, y, before, after }: PathPoint): boolean {
  if (!before || !after) return false
  const [ax, ay, bx, by] = [before.x - x, before.y - y, after.x - x, after.y - y]
  const size = Math.sqrt((ax * ax + ay * ay) * (bx * bx + by * by))
  return size > 0 && (ax * bx + ay * by) / size < -0.999
}

/** Takes a point's handles away, or gives it handles along the line between its neighbours. */
export function toggleSmooth(contours: readonly PathContour[], at: PointPlace): PathContour[] {
  return changed(contours, at, (points, i) => {
    const p = points[i]!
    const { closed } = contours[at.contour]!
    if (isSmooth(p)) {
      points[i] = { ...p, before: null, after: null }
      return points
    }
    const n = points.length
    const prior = points[(i + n - 1) % n]!
    const next = points[(i + 1) % n]!
    const [from, to] = [closed || i > 0 ? prior : p, closed || i + 1 < n ? next : p]
    const [dx, dy] = [to.x - from.x, to.y - from.y]
    const span = Math.max(1e-9, distanceBetween(from, to))
    // A third of the way to either neighbour: the usual length of handles (common practice).
    const reach = (q: Point, way: 1 | -1): Point | null => {
      const d = distanceBetween(q, p) / 3
      return d > 0 ? { x: p.x + (way * dx * d) / span, y: p.y + (way * dy * d) / span } : null
    }
    points[i] = { ...p, before: reach(from, -1), after: reach(to, 1) }
    return points
  })
}

/** A new point on the edge that starts at `at`, at the share t of its curve; the form stays the same. */
export function insertPoint(contours: readonly PathContour[], at: PointPlace, t: number): PathContour[] {
  return changed(contours, at, (points, i) => {
    const j = (i + 1) % points.length
    const [a, b] = [points[i]!, points[j]!]
    const mix = (p: Point, q: Point): Point => ({ x: p.x + (q.x - p.x) * t, y: p.y + (q.y - p.y) * t })
    if (!a.after && !b.before) {
      points.splice(i + 1, 0, { ...mix(a, b), before: null, after: null })
      return points
    }
    // De Casteljau's construction.
    const [p1, p2] = [a.after ?? a, b.before ?? b]
    const [q0, q1, q2] = [mix(a, p1), mix(p1, p2), mix(p2, b)]
    const [r0, r1] = [mix(q0, q1), mix(q1, q2)]
    points[i] = { ...a, after: q0 }
    points[j] = { ...b, before: q2 }
    points.splice(i + 1, 0, { ...mix(r0, r1), before: r0, after: r1 })
    return points
  })
}

/** Without a point; a contour of fewer than two is gone. */
export function removePoint(contours: readonly PathContour[], at: PointPlace): PathContour[] {
  return changed(contours, at, (points, i) => points.filter((_, k) => k !== i)).filter(
    ({ points }) => points.length > 1,
  )
}

/** The place on the path nearest to a point: the edge that starts at `at`, and the share of its curve. */
export function nearestOn(
  contours: readonly PathContour[],
  to: Point,
): { at: PointPlace; t: number; distance: number } | null {
  let best: { at: PointPlace; t: number; distance: number } | null = null
  contours.forEach(({ closed, points }, contour) => {
    const edges = closed ? points.length : points.length - 1
    for (let point = 0; point < edges; point++) {
      const [a, b] = [points[point]!, points[(point + 1) % points.length]!]
      for (let k = 0; k <= STEPS; k++) {
        const t = k / STEPS
        const p = onEdge(a, b, t)
        const distance = distanceBetween(p, to)
        if (!best || distance < best.distance) best = { at: { contour, point }, t, distance }
      }
    }
  })
  return best
}

const STEPS = 48

function onEdge(a: PathPoint, b: PathPoint, t: number): Point {
  const [p1, p2, u] = [a.after ?? a, b.before ?? b, 1 - t]
  if (!a.after && !b.before) return { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t }
  const [k0, k1, k2, k3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t]
  return {
    x: k0 * a.x + k1 * p1.x + k2 * p2.x + k3 * b.x,
    y: k0 * a.y + k1 * p1.y + k2 * p2.y + k3 * b.y,
  }
}
