import type { PathCommand } from './contour'

/** Control-point distance for a quarter circle: 4/3·(√2 − 1), radial error below 0.03 % (common practice). */
export const KAPPA = (4 / 3) * (Math.SQRT2 - 1)

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
  const k = 1 - KAPPA
  const path: PathCommand[] = [{ type: 'M', x: -w + tl, y: -h }]
  const line = (x: number, y: number) => path.push({ type: 'L', x, y })
  const arc = (r: number, x1: number, y1: number, x2: number, y2: number, x: number, y: number) => {
    if (r > 0) path.push({ type: 'C', x1, y1, x2, y2, x, y })
  }
  line(w - tr, -h)
  arc(tr, w - tr * k, -h, w, -h + tr * k, w, -h + tr)
  line(w, h - br)
  arc(br, w, h - br * k, w - br * k, h, w - br, h)
  line(-w + bl, h)
  arc(bl, -w + bl * k, h, -w, h - bl * k, -w, h - bl)
  line(-w, -h + tl)
  arc(tl, -w, -h + tl * k, -w + tl * k, -h, -w + tl, -h)
  path.push({ type: 'Z' })
  return path
}
