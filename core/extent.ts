import type { Point, Rect } from './units'

// The ends of lists of any length: given to a function one by one, a list of tens of thousands is more than a call can take.

/** The smallest and the largest of values; Infinity and −Infinity where there are none. */
export function extentOf(values: Iterable<number>): [least: number, most: number] {
  let [least, most] = [Infinity, -Infinity]
  for (const value of values) {
    least = Math.min(least, value)
    most = Math.max(most, value)
  }
  return [least, most]
}

/** The smallest upright rectangle about points; from Infinity to −Infinity where there are none. */
export function boundsOf(points: Iterable<Point>): Rect {
  const rect: Rect = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  for (const { x, y } of points) {
    rect.left = Math.min(rect.left, x)
    rect.top = Math.min(rect.top, y)
    rect.right = Math.max(rect.right, x)
    rect.bottom = Math.max(rect.bottom, y)
  }
  return rect
}
