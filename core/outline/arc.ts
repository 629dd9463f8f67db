import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Degrees, Point } from '../units'
import type { PathCommand } from './contour'

export type CubicCommand = Extract<PathCommand, { type: 'C' }>

/** One cubic takes this much of an arc at most: its radius is then true to 7 in 100,000,000. */
const WIDEST: Degrees = 22.5

/**
 * An arc as cubics: the points centre + cos(t)·u + sin(t)·v for t from 0 to `turn` (positive). With u and v of one length
 * and at right angles it is a circle's, else an ellipse's.
 */
export function arcCurves(centre: Point, u: Point, v: Point, turn: Degrees): CubicCommand[] {
  const n = Math.max(1, Math.ceil(turn / WIDEST - 1e-9))
  const step = turn / n
  // Control points lie 4/3·tan(θ/4) of the tangent from the ends of an arc of angle θ (common practice).
  const k = ((4 / 3) * sinDegrees(step / 4)) / cosDegrees(step / 4)
  const at = (i: number, along: number): Point => {
    const [c, s] = [cosDegrees(step * i), sinDegrees(step * i)]
    const [a, b] = [c - s * along, s + c * along]
    return { x: centre.x + u.x * a + v.x * b, y: centre.y + u.y * a + v.y * b }
  }
  return Array.from({ length: n }, (_, i) => {
    const [first, second, end] = [at(i, k), at(i + 1, -k), at(i + 1, 0)]
    return { type: 'C', x1: first.x, y1: first.y, x2: second.x, y2: second.y, x: end.x, y: end.y }
  })
}
