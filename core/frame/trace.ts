import { boundsOf } from '../extent'
import type { Outline, Placement } from '../outline/outline'
import { place as placed, unplace } from '../outline/outline'
import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Degrees, Point, Px, Rect } from '../units'

// How far outlines go: only as far as it is seen.

/** An outline where it stands at one moment. */
export interface Trace {
  outline: Outline
  placement: Placement
}

const hulls = new WeakMap<Outline, Point[]>()
/** Directions in which an outline's farthest points are looked for: what turns around a point goes 2 % farther at most. */
const DIRECTIONS = 16

/** The points of an outline that stick out farthest, anticlockwise on paper: a convex polygon in its own units. */
function hullOf(outline: Outline): Point[] {
  let hull = hulls.get(outline)
  if (!hull) {
    hull = Array.from({ length: DIRECTIONS }, (_, k) => farthest(outline, (k * 360) / DIRECTIONS))
    hulls.set(outline, hull)
  }
  return hull
}

function farthest({ segments }: Outline, angle: Degrees): Point {
  const [c, s] = [cosDegrees(angle), sinDegrees(angle)]
  let best = -Infinity
  let at = 0
  for (let i = 0; i < segments.length; i += 4) {
    const reach = segments[i]! * c + segments[i + 1]! * s
    if (reach > best) [best, at] = [reach, i]
  }
  return { x: segments[at]!, y: segments[at + 1]! }
}

/** What an outline spans where it stands. */
export function placedBounds({ outline, placement }: Trace): Rect | null {
  if (!outline.bounds) return null
  return boundsOf(hullOf(outline).map((point) => placed(placement, point)))
}

/**
 * The longest way in pixels that a point of any outline goes through the moments of `traces`. Of an outline that keeps its
 * form only what lies in `seen` at the middle moment counts.
 */
export function longestWay(traces: readonly (readonly (Trace | null)[])[], seen: () => Rect): Px {
  let window: Rect | null = null
  const count = Math.max(...traces.map(({ length }) => length))
  let most = 0
  for (let i = 0; i < count; i++) {
    const way = traces.map((moment) => moment[i] ?? null)
    const standing = way.filter((trace) => trace !== null)
    if (standing.length < 2) continue
    const keepsForm = standing.every(({ outline }) => outline === standing[0]!.outline)
    const points = keepsForm ? seenPoints(standing[standing.length >> 1]!, (window ??= seen())) : null
    most = Math.max(most, wayOf(way, points))
  }
  return most
}

/** The hull of what an outline shows in a window, in the outline's own units. */
function seenPoints({ outline, placement }: Trace, window: Rect): Point[] {
  if (!outline.bounds) return []
  const standing = hullOf(outline).map((point) => placed(placement, point))
  return clipped(standing, window).map((point) => unplace(placement, point))
}

/** The longest way of some points; without any, of the corners of what is there at each moment. */
function wayOf(way: readonly (Trace | null)[], points: readonly Point[] | null): Px {
  const at = way.map((trace) => trace && (points ?? cornersOf(trace.outline)).map((p) => placed(trace.placement, p)))
  const lengths = Array.from({ length: points?.length ?? 4 }, (_, corner) => {
    let length = 0
    for (let k = 1; k < at.length; k++) {
      const [a, b] = [at[k - 1]?.[corner], at[k]?.[corner]]
      if (a && b) length += Math.sqrt((b.x - a.x) ** 2 + (b.y - a.y) ** 2)
    }
    return length
  })
  return Math.max(0, ...lengths)
}

function cornersOf({ bounds }: Outline): Point[] {
  if (!bounds) return []
  const { left, top, right, bottom } = bounds
  return [
    { x: left, y: top },
    { x: right, y: top },
    { x: right, y: bottom },
    { x: left, y: bottom },
  ]
}

/** A convex polygon cut by a rectangle, one side after the other (Sutherland & Hodgman 1974). */
function clipped(polygon: readonly Point[], { left, top, right, bottom }: Rect): readonly Point[] {
  const sides: ((p: Point) => number)[] = [
    ({ x }) => x - left,
    ({ x }) => right - x,
    ({ y }) => y - top,
    ({ y }) => bottom - y,
  ]
  return sides.reduce((points, inside) => cut(points, inside), polygon)
}

/** The part of a polygon in which `inside` is not negative. */
function cut(polygon: readonly Point[], inside: (p: Point) => number): Point[] {
  return polygon.flatMap((a, i) => {
    const b = polygon[(i + 1) % polygon.length]!
    const [da, db] = [inside(a), inside(b)]
    const kept = da >= 0 ? [a] : []
    if (da >= 0 === db >= 0) return kept
    const t = da / (da - db)
    return [...kept, { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t }]
  })
}
