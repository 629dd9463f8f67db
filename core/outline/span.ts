import type { Rect } from '../units'

/** What the points of rings or lines (x, y, x, y …) span; null for none. */
export function spanOf(rings: readonly { points: readonly number[] }[]): Rect | null {
  const span = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  for (const { points } of rings) {
    for (let i = 0; i < points.length; i += 2) {
      if (points[i]! < span.left) span.left = points[i]!
      if (points[i]! > span.right) span.right = points[i]!
      if (points[i + 1]! < span.top) span.top = points[i + 1]!
      if (points[i + 1]! > span.bottom) span.bottom = points[i + 1]!
    }
  }
  return span.left <= span.right ? span : null
}
