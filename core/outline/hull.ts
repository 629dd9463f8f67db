import type { Ring } from './contour'

/**
 * The convex hull of the points of some rings, clockwise on screen (A. M. Andrew, Another Efficient Algorithm for Convex Hulls in Two
 * Dimensions, 1979). Null where they all lie on one line.
 */
export function hullOf(rings: readonly Ring[]): Ring | null {
  const points = rings
    .flatMap((ring) => Array.from({ length: ring.points.length / 2 }, (_, i) => ring.points.slice(i * 2, i * 2 + 2)))
    .sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!)
  const hull = [...half(points), ...half(points.reverse())]
  return hull.length < 3 ? null : { points: hull.flat(), smooth: hull.map(() => false) }
}

/** One side of the hull of sorted points, without its last point. */
function half(points: readonly number[][]): number[][] {
  const found: number[][] = []
  for (const point of points) {
    while (found.length > 1 && turn(found.at(-2)!, found.at(-1)!, point) <= 0) found.pop()
    found.push(point)
  }
  return found.slice(0, -1)
}

const turn = ([ax, ay]: number[], [bx, by]: number[], [cx, cy]: number[]) =>
  (bx! - ax!) * (cy! - ay!) - (by! - ay!) * (cx! - ax!)
