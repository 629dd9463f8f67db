import type { Ring } from './contour'
import type { Join } from './corners'
import { extentOf } from '../extent'
import { hullOf } from './hull'
import type { Fineness } from './mould'
import { nearest, strokeRings } from './stroked'
import { combine, unite } from './unite'

/** A mitre longer than this many times the way becomes a bevel: the default of SVG 2, stroke-miterlimit. */
const LIMIT = 4

/** Rings whose edge is moved outward by some px, inward where it is negative: what a stroke across the edge adds or takes. */
export function grownRings(rings: readonly Ring[], by: number, join: Join, { tolerance, grid }: Fineness): Ring[] {
  if (by === 0) return [...rings]
  if (isDwarfed(rings, Math.abs(by))) {
    // Each of them would be all but the same circle; and nothing is left of what is so small.
    const hull = by > 0 ? hullOf(rings) : null
    if (hull || by < 0) return hull ? grown([hull], by, join, { tolerance, grid }) : []
  }
  return grown(rings, by, join, { tolerance, grid })
}

/** Whether rings together are so small beside the way that only their outermost points are seen: what lies within is off by far less than counts. */
function isDwarfed(rings: readonly Ring[], by: number): boolean {
  const axis = (k: 0 | 1) => extentOf(rings.flatMap(({ points }) => points.filter((_, i) => i % 2 === k)))
  const near = nearest(by * 2)
  if (near === 0 || rings.length === 0) return false
  const [[left, right], [top, bottom]] = [axis(0), axis(1)]
  return (right - left) ** 2 + (bottom - top) ** 2 < by * near
}

function grown(rings: readonly Ring[], by: number, join: Join, { tolerance, grid }: Fineness): Ring[] {
  const style = { thickness: Math.abs(by) * 2, cap: 'butt', join, limit: LIMIT } as const
  const border = rings.flatMap((ring) => strokeRings({ ...ring, closed: true }, style, tolerance / 2))
  return by > 0 ? unite([...rings, ...border], grid) : combine('difference', rings, unite(border, grid), grid)
}
