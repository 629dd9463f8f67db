import { Clipper, FillRule } from 'clipper2-ts'
import type { Ring } from './contour'

/**
 * The union of overlapping rings by the non-zero rule, so that only true edges are left: an edge inside the
 * shape would give wrong inner distances. Points are snapped to a grid of 1/`grid`.
 */
export function unite(rings: readonly Ring[], grid: number): Ring[] {
  const paths = rings.map((ring) => {
    const path = []
    for (let i = 0; i < ring.length; i += 2) {
      path.push({ x: Math.round(ring[i]! * grid), y: Math.round(ring[i + 1]! * grid) })
    }
    return path
  })
  return Clipper.union(paths, FillRule.NonZero).map((path) => path.flatMap(({ x, y }) => [x / grid, y / grid]))
}
