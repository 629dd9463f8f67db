import type { SettledPaint, SettledStop } from '../card/settled'
import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Placement } from '../outline/outline'
import { place } from '../outline/outline'
import type { Rect } from '../units'

/** Steps of the colour table; linear in between, so a smooth gradient is exact to float rounding. */
const STEPS = 1024

/** Premultiplied colours at STEPS + 1 even places; interpolated premultiplied (CSS Images 4 §3.4.2). */
export function rampColours(stops: readonly SettledStop[]): Float32Array {
  const sorted = [...stops].sort((a, b) => a.at - b.at)
  const colours = new Float32Array((STEPS + 1) * 4)
  for (let i = 0; i <= STEPS; i++) {
    const t = i / STEPS
    let next = sorted.findIndex((stop) => stop.at > t)
    if (next === -1) next = sorted.length
    const from = sorted[Math.max(0, next - 1)]!
    const to = sorted[Math.min(sorted.length - 1, next)]!
    const span = to.at - from.at
    const f = span > 0 ? Math.min(1, Math.max(0, (t - from.at) / span)) : 0
    for (let c = 0; c < 4; c++) {
      const a = c === 3 ? from.colour[3] : from.colour[c]! * from.colour[3]
      const b = c === 3 ? to.colour[3] : to.colour[c]! * to.colour[3]
      colours[i * 4 + c] = a + (b - a) * f
    }
  }
  return colours
}

/**
 * t over render pixels: t0 + x·tx + y·ty, 0 at the first stop and 1 at the last. The gradient line runs through
 * the middle of `bounds` and spans |w·cos a| + |h·sin a| (CSS Images 4 §3.1.1), in the space of `placement`.
 */
export function gradientLine(
  paint: Extract<SettledPaint, { type: 'linear' }>,
  bounds: Rect,
  placement: Placement,
): { t0: number; tx: number; ty: number } {
  const c = cosDegrees(paint.angle)
  const s = sinDegrees(paint.angle)
  const span = Math.abs((bounds.right - bounds.left) * c) + Math.abs((bounds.bottom - bounds.top) * s)
  const length = Math.max(1e-6, span * paint.scale * placement.scale)
  const middle = place(placement, { x: (bounds.left + bounds.right) / 2, y: (bounds.top + bounds.bottom) / 2 })
  const tx = cosDegrees(paint.angle + placement.rotation) / length
  const ty = -sinDegrees(paint.angle + placement.rotation) / length
  return { t0: 0.5 - middle.x * tx - middle.y * ty - paint.shift / paint.scale, tx, ty }
}
