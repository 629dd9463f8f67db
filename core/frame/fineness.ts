import type { Fineness } from '../outline/mould'
import type { Outline } from '../outline/outline'

// How finely outlines are made: as finely as they are seen.

/** Curves stay within this many render pixels of their straight pieces. */
const TOLERANCE = 0.01
/** Points of united outlines are snapped to this share of a render pixel. */
const GRID = 4096

/** Render px that a formed outline spans at most with its curves as true as all others: more than twice the largest frame. */
const LARGEST_TRUE = 20_000

/** Render pixels per px for the steps of an outline: what is larger than any frame is made less finely. */
export function formScale(
  { outline: { bounds }, enlarge }: { outline: Outline; enlarge: number },
  scale: number,
): number {
  if (!bounds) return scale
  const extent = Math.max(bounds.right - bounds.left, bounds.bottom - bounds.top) * enlarge
  return Math.min(scale, LARGEST_TRUE / Math.max(1, extent))
}

/** How finely an outline in px is made for so many render pixels per px. */
export function finenessFor(scale: number): Fineness {
  return fineness(detailFor(scale))
}

/** Render pixels per outline unit, rounded up in steps of a quarter so that a growing piece is seldom flattened anew. */
export function detailFor(pixels: number): number {
  let detail = 1
  while (detail < pixels && detail < 1 << 20) detail *= 1.25
  return detail
}

/** The same for so many render pixels per unit of the outline. */
export const fineness = (detail: number): Fineness => ({ tolerance: TOLERANCE / detail, grid: detail * GRID })
