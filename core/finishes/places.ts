import type { Length } from '../values/moving'
import type { EdgeArea, Edges, Picture } from '../kernels/kernels'
import type { Point, Px, Rect } from '../units'
import type { FinishBench, FinishScale } from './definition'

// Where on the picture a finish has its place.

export const isZero = (length: Length): boolean => (typeof length === 'number' ? length : length.value) === 0

/** A place in % of an area. */
export const placeIn = ({ left, top, right, bottom }: Rect, x: number, y: number): Point => ({
  x: left + ((right - left) * x) / 100,
  y: top + ((bottom - top) * y) / 100,
})

export const middleOf = (area: Rect): Point => placeIn(area, 50, 50)

/** The largest distance from a point to a corner of bounds. */
export function farthestFrom({ x, y }: Point, { left, top, right, bottom }: Rect): Px {
  const [dx, dy] = [
    Math.max(Math.abs(left - x), Math.abs(right - x)),
    Math.max(Math.abs(top - y), Math.abs(bottom - y)),
  ]
  return Math.sqrt(dx * dx + dy * dy)
}

/** The edges of a picture, in whole pixels. */
export function edgeArea(
  { picture: { left, top, right, bottom } }: Pick<FinishScale, 'picture'>,
  edges: Edges,
): EdgeArea {
  return { edges, left: Math.floor(left), top: Math.floor(top), right: Math.ceil(right), bottom: Math.ceil(bottom) }
}

/** Clears what lies beyond the edges of a piece: held, mirrored and wrapped pictures end there. */
export function keepWithin(
  { kernels, wash }: FinishBench,
  { edges, left, top, right, bottom }: EdgeArea,
  dst: Picture,
): void {
  if (wash || edges === 'open') return
  const { x, y, w, h } = dst.box
  const clear = (fromX: number, fromY: number, toX: number, toY: number) => {
    const [x0, y0, x1, y1] = [Math.max(x, fromX), Math.max(y, fromY), Math.min(x + w, toX), Math.min(y + h, toY)]
    if (x1 > x0 && y1 > y0) kernels.clear(kernels.window(dst, x0 - x, y0 - y, x1 - x0, y1 - y0))
  }
  clear(x, y, x + w, top)
  clear(x, bottom, x + w, y + h)
  clear(x, top, left, bottom)
  clear(right, top, x + w, bottom)
}
