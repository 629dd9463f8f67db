import type { Rect } from '../units'
import { arcCurves } from './arc'
import type { PathCommand } from './contour'

/** Radii of the corners: top left, top right, bottom right, bottom left. */
export type Corners = readonly [number, number, number, number]

/**
 * A box around the origin with round corners, clockwise on screen from its top left. Radii that do not fit side by
 * side are all made smaller by the same factor (CSS Backgrounds 3 §5.5, Overlapping Curves).
 */
export function boxPath(width: number, height: number, corners: Corners): PathCommand[] {
  const [w, h] = [width / 2, height / 2]
  const [a, b, c, d] = corners
  const room = (side: number, sum: number) => (sum > side ? side / sum : 1)
  const fit = Math.min(room(width, a + b), room(height, b + c), room(width, c + d), room(height, d + a))
  const [tl, tr, br, bl] = [a * fit, b * fit, c * fit, d * fit]
  const path: PathCommand[] = [{ type: 'M', x: -w + tl, y: -h }]
  const line = (x: number, y: number) => path.push({ type: 'L', x, y })
  /** A quarter turn about (x, y), clockwise from the direction (ux, uy). */
  const quarter = (r: number, x: number, y: number, ux: number, uy: number) => {
    if (r > 0) path.push(...arcCurves({ x, y }, { x: ux * r, y: uy * r }, { x: -uy * r, y: ux * r }, 90))
  }
  line(w - tr, -h)
  quarter(tr, w - tr, -h + tr, 0, -1)
  line(w, h - br)
  quarter(br, w - br, h - br, 1, 0)
  line(-w + bl, h)
  quarter(bl, -w + bl, h - bl, 0, 1)
  line(-w, -h + tl)
  quarter(tl, -w + tl, -h + tl, -1, 0)
  path.push({ type: 'Z' })
  return path
}

/** The rectangle of some bounds. */
export const rectanglePath = ({ left, top, right, bottom }: Rect): PathCommand[] => [
  { type: 'M', x: left, y: top },
  { type: 'L', x: right, y: top },
  { type: 'L', x: right, y: bottom },
  { type: 'L', x: left, y: bottom },
  { type: 'Z' },
]
