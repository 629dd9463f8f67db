import type { PathCommand } from './contour'

/** Control-point distance for a quarter circle: 4/3·(√2 − 1), radial error below 0.03 % (common practice). */
export const KAPPA = (4 / 3) * (Math.SQRT2 - 1)

/** A box around the origin with round corners; the radius is cut to half the smaller side. */
export function boxPath(width: number, height: number, radius: number): PathCommand[] {
  const w = width / 2
  const h = height / 2
  const r = Math.min(radius, w, h)
  const k = r * (1 - KAPPA)
  if (r <= 0) {
    return [
      { type: 'M', x: -w, y: -h },
      { type: 'L', x: w, y: -h },
      { type: 'L', x: w, y: h },
      { type: 'L', x: -w, y: h },
      { type: 'Z' },
    ]
  }
  return [
    { type: 'M', x: -w + r, y: -h },
    { type: 'L', x: w - r, y: -h },
    { type: 'C', x1: w - k, y1: -h, x2: w, y2: -h + k, x: w, y: -h + r },
    { type: 'L', x: w, y: h - r },
    { type: 'C', x1: w, y1: h - k, x2: w - k, y2: h, x: w - r, y: h },
    { type: 'L', x: -w + r, y: h },
    { type: 'C', x1: -w + k, y1: h, x2: -w, y2: h - k, x: -w, y: h - r },
    { type: 'L', x: -w, y: -h + r },
    { type: 'C', x1: -w, y1: -h + k, x2: -w + k, y2: -h, x: -w + r, y: -h },
    { type: 'Z' },
  ]
}
