import type { Ring } from './contour'
import type { Join } from './corners'
import type { Fineness } from './mould'
import { strokeRings } from './stroked'
import { combine, unite } from './unite'

/** A mitre longer than this many times the way becomes a bevel: the default of SVG 2, stroke-miterlimit. */
const LIMIT = 4

/** Rings whose edge is moved outward by some px, inward where it is negative: what a stroke across the edge adds or takes. */
export function grownRings(rings: readonly Ring[], by: number, join: Join, { tolerance, grid }: Fineness): Ring[] {
  if (by === 0) return [...rings]
  const style = { thickness: Math.abs(by) * 2, cap: 'butt', join, limit: LIMIT } as const
  const border = rings.flatMap((ring) => strokeRings({ ...ring, closed: true }, style, tolerance / 2))
  return by > 0 ? unite([...rings, ...border], grid) : combine('difference', rings, unite(border, grid), grid)
}
