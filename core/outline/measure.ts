import { acosDegrees } from '../kernels/exact'
import type { Degrees, Point, Px } from '../units'

export const distanceBetween = (a: Point, b: Point): Px => Math.sqrt((a.x - b.x) ** 2 + (a.y - b.y) ** 2)

/** The direction from one point to another: −180 to 180, anticlockwise from the right, y down. 0 for equal points. */
export function directionOf(from: Point, to: Point): Degrees {
  const length = distanceBetween(from, to)
  if (length === 0) return 0
  const turn = acosDegrees((to.x - from.x) / length)
  return to.y <= from.y ? turn : -turn
}
