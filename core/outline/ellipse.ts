import { KAPPA } from './box'
import type { PathCommand } from './contour'

/** An ellipse around the origin, clockwise on screen from its right end. */
export function ellipsePath(width: number, height: number): PathCommand[] {
  const [w, h] = [width / 2, height / 2]
  const [kx, ky] = [w * KAPPA, h * KAPPA]
  return [
    { type: 'M', x: w, y: 0 },
    { type: 'C', x1: w, y1: ky, x2: kx, y2: h, x: 0, y: h },
    { type: 'C', x1: -kx, y1: h, x2: -w, y2: ky, x: -w, y: 0 },
    { type: 'C', x1: -w, y1: -ky, x2: -kx, y2: -h, x: 0, y: -h },
    { type: 'C', x1: kx, y1: -h, x2: w, y2: -ky, x: w, y: 0 },
    { type: 'Z' },
  ]
}
