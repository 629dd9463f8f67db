import type { Point, Px, Rect } from '../units'

/** Lines that what is moved on the stage comes to rest on. Card pixels. */
export interface SnapLines {
  x: readonly Px[]
  y: readonly Px[]
}

export interface Snapped {
  by: Point
  /** The lines that it rests on now, to be shown. */
  guides: { x: Px[]; y: Px[] }
}

/**
 * A shift corrected so that an edge or the middle of `bounds` rests on the nearest line within `reach`; each axis by
 * itself. `grid` is the distance of a grid's lines, 0 for none; other lines win where both are in reach.
 */
export function snapShift(bounds: Rect, by: Point, lines: SnapLines, reach: Px, grid: Px = 0): Snapped {
  const x = snapAxis([bounds.left, (bounds.left + bounds.right) / 2, bounds.right], by.x, lines.x, reach, grid)
  const y = snapAxis([bounds.top, (bounds.top + bounds.bottom) / 2, bounds.bottom], by.y, lines.y, reach, grid)
  return { by: { x: x.by, y: y.by }, guides: { x: x.guides, y: y.guides } }
}

/** A point that comes to rest on lines or on the grid. */
export const snapPoint = (point: Point, lines: SnapLines, reach: Px, grid: Px = 0): Snapped =>
  snapShift({ left: point.x, right: point.x, top: point.y, bottom: point.y }, { x: 0, y: 0 }, lines, reach, grid)

function snapAxis(marks: readonly Px[], by: Px, lines: readonly Px[], reach: Px, grid: Px) {
  let best: Px | null = null
  for (const mark of marks) {
    for (const line of lines) {
      const off = line - (mark + by)
      if (Math.abs(off) <= reach && (best === null || Math.abs(off) < Math.abs(best))) best = off
    }
  }
  if (best === null && grid > 0) {
    for (const mark of marks) {
      const off = Math.round((mark + by) / grid) * grid - (mark + by)
      if (Math.abs(off) <= reach && (best === null || Math.abs(off) < Math.abs(best))) best = off
    }
  }
  if (best === null) return { by, guides: [] }
  const shift = by + best
  const guides = lines.filter((line) => marks.some((mark) => Math.abs(mark + shift - line) < 1e-6))
  return { by: shift, guides: [...new Set(guides)] }
}
