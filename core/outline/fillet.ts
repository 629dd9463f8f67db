import { acosDegrees, cosDegrees, sinDegrees } from '../kernels/exact'
import type { Point } from '../units'
import type { Ring } from './contour'
import type { Strand } from './strand'
import { lengthsOf, MeasuredStrand } from './strand'

// Corners rounded by circles that touch both of their sides.

export interface Radii {
  /** Of corners that point out of the ink. */
  outer: number
  /** Of corners that point into it. */
  inner: number
}

/** Turns smaller than this are no corners: 2°, as a cosine. */
const STRAIGHT = 0.99939
/** Halvings in which a radius or a place is found. */
const HALVINGS = 24

/**
 * Rings with round corners. A radius that has no room between two corners becomes the largest that has; half of what lies
 * between two rounded corners is each one's. `tolerance`: how close the straight pieces keep to the circles, in the same unit.
 */
export function filletedRings(rings: readonly Ring[], radii: Radii, tolerance: number): Ring[] {
  const outward = rings.reduce((sum, { points }) => sum + areaOf(points), 0) >= 0 ? 1 : -1
  return rings.map((ring) => filleted(ring, radii, outward, tolerance))
}

function areaOf(points: readonly number[]): number {
  let area = 0
  for (let i = 0, j = points.length - 2; i < points.length; j = i, i += 2) {
    area += points[j]! * points[i + 1]! - points[i]! * points[j + 1]!
  }
  return area
}

interface RoundCorner {
  /** Its point of the ring. */
  index: number
  /** Length along the ring up to it. */
  at: number
  radius: number
  /** 1 where the ring turns to the right on screen. */
  turn: 1 | -1
  /** Lengths on both sides that it may take. */
  before: number
  after: number
}

function filleted(ring: Ring, radii: Radii, outward: 1 | -1, tolerance: number): Ring {
  const strand: Strand = { ...ring, closed: true }
  const lengths = lengthsOf(strand)
  const whole = lengths.at(-1)!
  const corners = cornersOf(ring, radii, outward).map((corner) => ({ ...corner, at: lengths[corner.index]! }))
  const round = corners.filter(({ radius }) => radius > 0)
  if (round.length === 0) return ring
  const measured = new MeasuredStrand(strand)
  const cuts = round.flatMap((corner) => {
    const i = corners.findIndex(({ index }) => index === corner.index)
    const [before, after] = [corners[(i + corners.length - 1) % corners.length]!, corners[(i + 1) % corners.length]!]
    const room = (other: typeof before, way: number) => (other.radius > 0 ? way / 2 : way)
    const back = corners.length === 1 ? whole : (corner.at - before.at + whole) % whole || whole
    const forth = corners.length === 1 ? whole : (after.at - corner.at + whole) % whole || whole
    return arcAt(measured, { ...corner, before: room(before, back), after: room(after, forth) }, tolerance) ?? []
  })
  if (cuts.length === 0) return ring
  const points: number[] = []
  const smooth: boolean[] = []
  cuts.forEach((cut, i) => {
    points.push(...cut.points)
    smooth.push(...new Array<boolean>(cut.points.length / 2).fill(true))
    const next = cuts[(i + 1) % cuts.length]!
    const to = next.from + (i + 1 < cuts.length ? 0 : whole)
    // What lies between two arcs, without its ends, which are theirs.
    for (const part of measured.parts(cut.to, to)) {
      points.push(...part.points.slice(2, -2))
      smooth.push(...part.smooth.slice(1, -1))
    }
  })
  return { points, smooth }
}

/** Places where a ring turns sharply, with the radius that each is to have. */
function cornersOf({ points, smooth }: Ring, { outer, inner }: Radii, outward: 1 | -1) {
  const n = points.length / 2
  const found: Pick<RoundCorner, 'index' | 'radius' | 'turn'>[] = []
  for (let i = 0; i < n; i++) {
    if (smooth[i]) continue
    const [p, v, q] = [pointAt(points, i + n - 1), pointAt(points, i), pointAt(points, i + 1)]
    const [ax, ay, bx, by] = [v.x - p.x, v.y - p.y, q.x - v.x, q.y - v.y]
    const [la, lb] = [Math.sqrt(ax * ax + ay * ay), Math.sqrt(bx * bx + by * by)]
    if (la === 0 || lb === 0 || (ax * bx + ay * by) / (la * lb) > STRAIGHT) continue
    const turn = ax * by - ay * bx >= 0 ? 1 : -1
    found.push({ index: i, turn, radius: turn === outward ? outer : inner })
  }
  return found
}

const pointAt = (points: readonly number[], i: number): Point => {
  const j = (i % (points.length / 2)) * 2
  return { x: points[j]!, y: points[j + 1]! }
}

/** The arc of a corner: its points, and between which lengths along the ring it stands. */
interface Cut {
  points: number[]
  from: number
  to: number
}

/** Null where there is no room for any. */
function arcAt(strand: MeasuredStrand, corner: RoundCorner, tolerance: number): Cut | null {
  let best = touching(strand, corner, corner.radius)
  if (!best) {
    let [low, high] = [0, corner.radius]
    for (let k = 0; k < HALVINGS; k++) {
      const middle = (low + high) / 2
      const found = touching(strand, corner, middle)
      if (found) [best, low] = [found, middle]
      else high = middle
    }
  }
  if (!best) return null
  const { centre, radius, back, forth } = best
  const [from, to] = [corner.at - back, corner.at + forth]
  const [start, end] = [pointOn(strand, from), pointOn(strand, to)]
  const [u, v] = [start, end].map(({ x, y }) => ({ x: (x - centre.x) / radius, y: (y - centre.y) / radius })) as [
    Point,
    Point,
  ]
  const angle = acosDegrees(u.x * v.x + u.y * v.y)
  const step = 2 * acosDegrees(Math.max(0, 1 - tolerance / radius))
  const n = Math.max(1, Math.ceil(angle / Math.max(step, 0.5)))
  const points = [start.x, start.y]
  for (let i = 1; i < n; i++) {
    const turned = (corner.turn * angle * i) / n
    const [c, s] = [cosDegrees(turned), sinDegrees(turned)]
    points.push(centre.x + (u.x * c - u.y * s) * radius, centre.y + (u.x * s + u.y * c) * radius)
  }
  points.push(end.x, end.y)
  return { points, from, to }
}

interface Touch {
  centre: Point
  radius: number
  /** Lengths from the corner to where the circle touches its sides. */
  back: number
  forth: number
}

/** The circle of a radius that touches both sides of a corner within the room that it has; null where there is none. */
function touching(strand: MeasuredStrand, corner: RoundCorner, radius: number): Touch | null {
  const { at, before, turn } = corner
  if (radius <= 0) return null
  /** Where the circle stands that touches the side before the corner at a way back from it. */
  const centreAt = (back: number): Point => {
    const { x, y, way } = along(strand, at - back, -1)
    return { x: x - turn * way.y * radius, y: y + turn * way.x * radius }
  }
  const far = (back: number) => nearestAfter(strand, corner, centreAt(back)).distance - radius
  if (far(before) < 0) return null
  let [low, high] = [0, before]
  for (let k = 0; k < HALVINGS; k++) {
    const middle = (low + high) / 2
    if (far(middle) < 0) low = middle
    else high = middle
  }
  const centre = centreAt(high)
  const { forth, inside } = nearestAfter(strand, corner, centre)
  return inside ? { centre, radius, back: high, forth } : null
}

/** The nearest place of the side after a corner; `inside` where it lies before the end of that side's room. */
function nearestAfter(strand: MeasuredStrand, { at, after }: RoundCorner, { x, y }: Point) {
  let best = { distance: Infinity, forth: 0, inside: false }
  for (const { points } of strand.parts(at, at + after)) {
    let way = 0
    for (let i = 0; i + 3 < points.length; i += 2) {
      const [ax, ay] = [points[i]!, points[i + 1]!]
      const [dx, dy] = [points[i + 2]! - ax, points[i + 3]! - ay]
      const length = Math.sqrt(dx * dx + dy * dy)
      const t = length > 0 ? Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / (length * length))) : 0
      const [ex, ey] = [x - ax - t * dx, y - ay - t * dy]
      const distance = Math.sqrt(ex * ex + ey * ey)
      const last = i + 5 >= points.length
      if (distance < best.distance) best = { distance, forth: way + t * length, inside: !(last && t >= 1) }
      way += length
    }
  }
  return best
}

function pointOn(strand: MeasuredStrand, length: number): Point {
  const { x, y } = strand.at(((length % strand.length) + strand.length) % strand.length)
  return { x, y }
}

/** The point at a length of the ring and the direction there, seen from the side that lies before or after it. */
function along(strand: MeasuredStrand, length: number, side: 1 | -1): Point & { way: Point } {
  const near = strand.length * 1e-7
  const here = pointOn(strand, length)
  const other = pointOn(strand, length + side * near)
  const [dx, dy] = [(other.x - here.x) * side, (other.y - here.y) * side]
  const l = Math.sqrt(dx * dx + dy * dy) || 1
  return { ...here, way: { x: dx / l, y: dy / l } }
}
