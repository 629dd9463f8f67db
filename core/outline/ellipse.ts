import { arcCurves } from './arc'
import type { PathCommand } from './contour'

/** An ellipse around the origin, clockwise on screen from its right end. */
export function ellipsePath(width: number, height: number): PathCommand[] {
  const [u, v] = [
    { x: width / 2, y: 0 },
    { x: 0, y: height / 2 },
  ]
  return [{ type: 'M', ...u }, ...arcCurves({ x: 0, y: 0 }, u, v, 360), { type: 'Z' }]
}
