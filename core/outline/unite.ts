import { Clipper, FillRule } from 'clipper2-ts'
import type { Point, Rect } from '../units'
import type { Ring } from './contour'
import { GridPoints } from './grid-points'
import { spanOf } from './span'

/** Rings thinner than this, and edges shorter that a crossing made, come from snapping: in steps of the grid. */
const SNAPPED = 3

/**
 * The union of overlapping rings, by the non-zero rule unless told otherwise, so that only true edges are left: an
 * edge inside the shape would give wrong inner distances. Points are snapped to a grid of 1/`grid`; where two edges
 * cross, a corner is made. Slivers that the snapping leaves are dropped.
 */
export function unite(rings: readonly Ring[], grid: number, rule: 'nonzero' | 'evenodd' = 'nonzero'): Ring[] {
  const snap = new Snap(grid, rings)
  return snap.rings(Clipper.union(snap.paths(rings), rule === 'nonzero' ? FillRule.NonZero : FillRule.EvenOdd))
}

/** What lies in both of two shapes, or in the first alone; snapped as in `unite`. */
export function combine(how: 'intersect' | 'difference', a: readonly Ring[], b: readonly Ring[], grid: number): Ring[] {
  const snap = new Snap(grid, [...a, ...b])
  const [subject, clip] = [snap.paths(a), snap.paths(b)]
  return snap.rings(Clipper[how](subject, clip, FillRule.NonZero))
}

/** Rings on the clipper's grid, and back: points that were there before know whether a curve runs through them. */
class Snap {
  private readonly given: GridPoints

  constructor(
    private readonly grid: number,
    rings: readonly Ring[],
  ) {
    this.given = new GridPoints(rings.reduce((sum, { smooth }) => sum + smooth.length, 0))
  }

  paths(rings: readonly Ring[]): GridPoint[][] {
    const { grid, given } = this
    return rings.map(({ points, smooth }) =>
      smooth.map((isSmooth, i) => {
        const point = { x: Math.round(points[i * 2]! * grid), y: Math.round(points[i * 2 + 1]! * grid) }
        given.put(point, isSmooth)
        return point
      }),
    )
  }

  rings(paths: readonly (readonly GridPoint[])[]): Ring[] {
    const { grid, given } = this
    const rings: Ring[] = []
    for (const path of paths) {
      const kept = withoutStubs(path, given)
      if (isSliver(kept)) continue
      const points = new Array<number>(kept.length * 2)
      kept.forEach(({ x, y }, i) => {
        points[i * 2] = x / grid
        points[i * 2 + 1] = y / grid
      })
      rings.push({ points, smooth: kept.map((point) => given.marked(point)) })
    }
    return rings
  }
}

type GridPoint = Readonly<Point>

/** Leaves out crossings so close to a neighbour that the edge between them has a direction by chance. */
function withoutStubs(path: readonly GridPoint[], given: GridPoints): readonly GridPoint[] {
  return path.filter((point, i) => {
    const [before, after] = [path[(i + path.length - 1) % path.length]!, path[(i + 1) % path.length]!]
    const near = (other: GridPoint) => Math.abs(other.x - point.x) + Math.abs(other.y - point.y) <= SNAPPED
    const [nearBefore, nearAfter] = [near(before), near(after)]
    if (!nearBefore && !nearAfter) return true
    return given.has(point) || (!nearBefore && !given.has(after))
  })
}

function isSliver(path: readonly GridPoint[]): boolean {
  let area = 0
  let length = 0
  path.forEach(({ x, y }, i) => {
    const next = path[(i + 1) % path.length]!
    area += (x * next.y - next.x * y) / 2
    length += Math.sqrt((next.x - x) ** 2 + (next.y - y) ** 2)
  })
  // A long thin ring of width w has an area of w/2 times its length round.
  return path.length < 3 || Math.abs(area) * 2 < SNAPPED * length
}

const meet = (a: Rect, b: Rect) => a.left <= b.right && b.left <= a.right && a.top <= b.bottom && b.top <= a.bottom

/**
 * The union of shapes that are each united already (letters): only those whose bounds meet are put through the
 * clipper, the rest is taken as it is.
 */
export function uniteShapes(shapes: readonly Ring[][], grid: number): Ring[] {
  const inked = shapes.filter((shape) => shape.length > 0).map((rings) => ({ rings, bounds: spanOf(rings)! }))
  const clusters: (typeof inked)[] = []
  for (const shape of inked) {
    const touched = clusters.filter((cluster) => cluster.some((other) => meet(other.bounds, shape.bounds)))
    const rest = clusters.filter((cluster) => !touched.includes(cluster))
    clusters.splice(0, clusters.length, ...rest, [...touched.flat(), shape])
  }
  return clusters.flatMap((cluster) =>
    cluster.length === 1 || !crossing(cluster.map(({ rings }) => rings))
      ? cluster.flatMap(({ rings }) => rings)
      : unite(
          cluster.flatMap(({ rings }) => rings),
          grid,
        ),
  )
}

/** Pairs of edges that are looked at one by one, of all shapes together. */
const MOST_PAIRS = 10_000_000

/**
 * Whether edges of two shapes cross. Kerned letters often share a stretch of their bounds without touching. Shapes
 * that lie wholly in one another are not told apart from those that cross.
 */
function crossing(shapes: readonly Ring[][]): boolean {
  let pairs = 0
  for (let a = 0; a < shapes.length; a++) {
    for (let b = a + 1; b < shapes.length; b++) {
      const [first, second] = [spanOf(shapes[a]!)!, spanOf(shapes[b]!)!]
      if (!meet(first, second)) continue
      const common = {
        left: Math.max(first.left, second.left),
        right: Math.min(first.right, second.right),
        top: Math.max(first.top, second.top),
        bottom: Math.min(first.bottom, second.bottom),
      }
      const inA = edgesIn(shapes[a]!, common)
      const inB = edgesIn(shapes[b]!, common)
      // One without an edge in the common stretch may still hold the other.
      if (inA.length === 0 || inB.length === 0) {
        const [outer, [edge]] = inA.length === 0 ? [shapes[a]!, inB] : [shapes[b]!, inA]
        if (edge && holds(outer, edge[0], edge[1])) return true
        continue
      }
      // What would take longer to tell than to unite is united.
      pairs += inA.length * inB.length
      if (pairs > MOST_PAIRS) return true
      for (const p of inA) for (const q of inB) if (cross(p, q)) return true
      if (holds(shapes[a]!, inB[0]![0], inB[0]![1]) || holds(shapes[b]!, inA[0]![0], inA[0]![1])) return true
    }
  }
  return false
}

type Edge = readonly [number, number, number, number]

function edgesIn(rings: readonly Ring[], box: Rect): Edge[] {
  const found: Edge[] = []
  for (const { points } of rings) {
    for (let i = 0; i < points.length; i += 2) {
      const j = (i + 2) % points.length
      const edge = [points[i]!, points[i + 1]!, points[j]!, points[j + 1]!] as const
      const bounds = {
        left: Math.min(edge[0], edge[2]),
        right: Math.max(edge[0], edge[2]),
        top: Math.min(edge[1], edge[3]),
        bottom: Math.max(edge[1], edge[3]),
      }
      if (meet(bounds, box)) found.push(edge)
    }
  }
  return found
}

function cross([ax, ay, bx, by]: Edge, [cx, cy, dx, dy]: Edge): boolean {
  const side = (px: number, py: number, qx: number, qy: number, x: number, y: number) =>
    (qx - px) * (y - py) - (qy - py) * (x - px)
  const [a, b] = [side(cx, cy, dx, dy, ax, ay), side(cx, cy, dx, dy, bx, by)]
  const [c, d] = [side(ax, ay, bx, by, cx, cy), side(ax, ay, bx, by, dx, dy)]
  return a * b <= 0 && c * d <= 0
}

function holds(rings: readonly Ring[], x: number, y: number): boolean {
  let inside = false
  for (const { points } of rings) {
    for (let i = 0, j = points.length - 2; i < points.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [points[i]!, points[i + 1]!, points[j]!, points[j + 1]!]
      if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside
    }
  }
  return inside
}
