import type { EvaluatedGradient } from '../values/evaluated'
import { acosDegrees, cosDegrees, sinDegrees } from '../kernels/exact'
import type { Affine } from '../kernels/kernels'
import type { Placement } from '../outline/outline'
import { inverted } from '../outline/linear'
import { linearOf, place } from '../outline/outline'
import type { Point, Rect } from '../units'

// Where the places of a gradient lie on the render pixels, for a shape with `bounds` in the space of `placement`.

/**
 * t over render pixels: t0 + x·tx + y·ty, 0 at the first stop and 1 at the last. The gradient line runs through
 * the middle of the bounds and spans |w·cos a| + |h·sin a| (CSS Images 4 §3.1.1).
 */
export function gradientLine(
  paint: EvaluatedGradient,
  bounds: Rect,
  placement: Placement,
): { t0: number; tx: number; ty: number } {
  const c = cosDegrees(paint.angle)
  const s = sinDegrees(paint.angle)
  const span = Math.abs((bounds.right - bounds.left) * c) + Math.abs((bounds.bottom - bounds.top) * s)
  const length = Math.max(1e-6, span * paint.scale * placement.scale)
  if (placement.stretch) return stretchedLine(paint, bounds, placement)
  const middle = place(placement, { x: (bounds.left + bounds.right) / 2, y: (bounds.top + bounds.bottom) / 2 })
  const tx = cosDegrees(paint.angle + placement.rotation) / length
  const ty = -sinDegrees(paint.angle + placement.rotation) / length
  return { t0: 0.5 - middle.x * tx - middle.y * ty - paint.shift / paint.scale, tx, ty }
}

/** As above, for a shape that is stretched: the gradient is stretched with it. */
function stretchedLine(paint: EvaluatedGradient, bounds: Rect, placement: Placement) {
  const { middle, span } = lineOf(paint.angle, bounds)
  const length = Math.max(1e-6, span * paint.scale)
  const { a, b, c, d } = inverted(linearOf(placement))
  const [dx, dy] = [cosDegrees(paint.angle) / length, -sinDegrees(paint.angle) / length]
  const [tx, ty] = [dx * a + dy * c, dx * b + dy * d]
  const at = place(placement, middle)
  return { t0: 0.5 - at.x * tx - at.y * ty - paint.shift / paint.scale, tx, ty }
}

/** The values of a gradient that its two ends on the stage stand for. Angle in degrees, the others in shares. */
export type GradientLineValues = Pick<EvaluatedGradient, 'angle' | 'scale' | 'shift'>

/** The points of the shape's own space at which a linear gradient has its first and its last colour. */
export function gradientEnds({ angle, scale, shift }: GradientLineValues, bounds: Rect): [Point, Point] {
  const { middle, span } = lineOf(angle, bounds)
  const way = { x: cosDegrees(angle) * span, y: -sinDegrees(angle) * span }
  const at = (t: number): Point => ({ x: middle.x + way.x * t, y: middle.y + way.y * t })
  // t on the paint is 0.5 + (place along the line − shift) / scale, places in spans from the middle.
  return [at(shift - scale / 2), at(shift + scale / 2)]
}

/** The inverse of gradientEnds: what lies across the line is left out, because the line runs through the middle. */
export function gradientBetween(start: Point, end: Point, bounds: Rect): GradientLineValues {
  const [dx, dy] = [end.x - start.x, end.y - start.y]
  const length = Math.sqrt(dx * dx + dy * dy)
  if (length < 1e-6) return { angle: 0, scale: 0.01, shift: 0 }
  const turn = acosDegrees(dx / length)
  const angle = dy <= 0 ? turn : -turn
  const { middle, span } = lineOf(angle, bounds)
  const along = ({ x, y }: Point) => ((x - middle.x) * dx + (y - middle.y) * dy) / length / span
  return { angle, scale: Math.max(0.01, length / span), shift: (along(start) + along(end)) / 2 }
}

function lineOf(angle: number, { left, top, right, bottom }: Rect) {
  const span = Math.abs((right - left) * cosDegrees(angle)) + Math.abs((bottom - top) * sinDegrees(angle))
  return { span: Math.max(1e-6, span), middle: { x: (left + right) / 2, y: (top + bottom) / 2 } }
}

function centreOf(paint: EvaluatedGradient, { left, top, right, bottom }: Rect) {
  return { x: left + (right - left) * paint.x, y: top + (bottom - top) * paint.y }
}

/** Render pixels to the unit circle: 1 where the gradient ends, at the farthest side (CSS Images 4 §3.2.1). */
export function gradientCircle(paint: EvaluatedGradient, bounds: Rect, placement: Placement): Affine {
  const centre = centreOf(paint, bounds)
  const rx = Math.max(centre.x - bounds.left, bounds.right - centre.x)
  const ry = Math.max(centre.y - bounds.top, bounds.bottom - centre.y)
  const circle = Math.max(rx, ry)
  const [w, h] = paint.form === 'circle' ? [circle, circle] : [rx, ry]
  return fromPixels(placement, centre, 1 / Math.max(1e-6, w * paint.scale), 1 / Math.max(1e-6, h * paint.scale))
}

/** Render pixels to directions around the middle: the u axis is the gradient's angle, v lies clockwise of it. */
export function gradientTurn(paint: EvaluatedGradient, bounds: Rect, placement: Placement): Affine {
  const { a, b, c, d, e, f } = fromPixels(placement, centreOf(paint, bounds), 1, 1)
  const [k, s] = [cosDegrees(paint.angle), sinDegrees(paint.angle)]
  // (x, y) in the shape's own space, y down, turned so that the angle's direction is u.
  return { a: a * k - c * s, b: b * k - d * s, e: e * k - f * s, c: a * s + c * k, d: b * s + d * k, f: e * s + f * k }
}

/** The inverse of a placement, around a point, stretched by (sx, sy). */
export function fromPixels(placement: Placement, origin: { x: number; y: number }, sx: number, sy: number): Affine {
  const { scale, rotation, stretch } = placement
  const [k, s] = [cosDegrees(rotation) / scale, sinDegrees(rotation) / scale]
  const p = place(placement, origin)
  const back = stretch ? inverted(linearOf(placement)) : { a: k, b: -s, c: s, d: k }
  const [a, b, c, d] = [back.a * sx, back.b * sx, back.c * sy, back.d * sy]
  return { a, b, c, d, e: -(a * p.x + b * p.y), f: -(c * p.x + d * p.y) }
}
