import { acosDegrees, cosDegrees, sinDegrees } from '../kernels/exact'
import type { Point } from '../units'
import type { CubicCommand } from './arc'
import { arcCurves } from './arc'
import type { PathCommand } from './contour'

export interface PolygonForm {
  /** Size of the ellipse on which the outer corners lie. */
  width: number
  height: number
  /** Rounded to a whole number, at least 3. */
  sides: number
  /** Share 0–1 by which the middle of each side is drawn to the centre; 0 is a polygon. */
  inset: number
  /** Radius of the outer corners. */
  radius: number
}

/** A regular polygon or star around the origin, its first corner at the top, clockwise on screen. */
export function polygonPath({ width, height, sides, inset, radius }: PolygonForm): PathCommand[] {
  const n = Math.max(3, Math.round(sides))
  const star = inset > 0
  const on = (angle: number, share: number): Point => ({
    x: (sinDegrees(angle) * share * width) / 2,
    y: (-cosDegrees(angle) * share * height) / 2,
  })
  const points = Array.from({ length: n }, (_, i) => [
    on((360 * i) / n, 1),
    ...(star ? [on((360 * (i + 0.5)) / n, cosDegrees(180 / n) * (1 - inset))] : []),
  ]).flat()
  const path: PathCommand[] = []
  points.forEach((corner, i) => {
    const before = points[(i + points.length - 1) % points.length]!
    const after = points[(i + 1) % points.length]!
    const isOuter = !star || i % 2 === 0
    for (const command of rounded(before, corner, after, isOuter ? radius : 0, star ? 1 : 0.5)) {
      path.push(path.length === 0 ? { type: 'M', x: command.x, y: command.y } : command)
    }
  })
  return [...path, { type: 'Z' }]
}

type Reach = Exclude<PathCommand, { type: 'Z' }>

/** One corner: a point, or a circle's arc that touches both sides. `most` is the share of a side it may take. */
function rounded(before: Point, corner: Point, after: Point, radius: number, most: number): Reach[] {
  const [from, to] = [unit(corner, before), unit(corner, after)]
  const dot = from.x * to.x + from.y * to.y
  // tan of half the corner's angle, by the half-angle formula.
  const half = Math.sqrt(Math.max(0, (1 - dot) / Math.max(1e-12, 1 + dot)))
  const cut = Math.min(radius / Math.max(1e-9, half), from.length * most, to.length * most)
  if (cut <= 0) return [{ type: 'L', ...corner }]
  const [start, end] = [along(corner, from, cut), along(corner, to, cut)]
  const turn = 180 - acosDegrees(Math.max(-1, Math.min(1, dot)))
  // The radius that fits the cut, across the side on the way to the corner; the arc starts in that side's direction.
  const r = cut * half
  const way = { x: -from.x * r, y: -from.y * r }
  const bend = from.x * to.y - from.y * to.x > 0 ? 1 : -1
  const u = { x: -bend * way.y, y: bend * way.x }
  return [{ type: 'L', ...start }, ...arcCurves({ x: start.x - u.x, y: start.y - u.y }, u, way, turn).map(last(end))]
}

/** Ends the last curve in a given point, to the bit. */
const last =
  (end: Point) =>
  (curve: CubicCommand, i: number, all: readonly CubicCommand[]): CubicCommand =>
    i < all.length - 1 ? curve : { ...curve, ...end }

function unit(from: Point, to: Point): Point & { length: number } {
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  const length = Math.sqrt(dx * dx + dy * dy)
  return { x: dx / length, y: dy / length, length }
}

const along = ({ x, y }: Point, way: Point, by: number): Point => ({ x: x + way.x * by, y: y + way.y * by })
