import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Degrees, Point, Rect } from '../units'
import type { Ring } from './contour'
import type { Linear } from './linear'
import { inverted, multiplied, turnBy } from './linear'

/** The vector form of a piece in its own units, before it is placed on the card. */
export interface Outline {
  /** Names the form: equal keys, equal outlines. */
  key: string
  /** x0, y0, x1, y1 of every edge; closed rings that do not overlap. */
  segments: Float64Array
  /** For each edge the index of the one that arrives at its start. */
  comesFrom: Int32Array
  /** For each edge 1 where its start is a corner of the form, 0 where a curve runs through it. */
  isCorner: Uint8Array
  /** 1 where ink lies to the right of the edges (y down), −1 where it lies to their left. */
  outward: 1 | -1
  /** Ink bounds; null for an outline without ink. */
  bounds: Rect | null
  /** What 100 % means: cap height for type, the smaller side for shapes. */
  reference: number
}

export function outlineOf(key: string, rings: readonly Ring[], reference: number): Outline {
  const count = rings.reduce((sum, { points }) => sum + points.length / 2, 0)
  const segments = new Float64Array(count * 4)
  const comesFrom = new Int32Array(count)
  const isCorner = new Uint8Array(count)
  const bounds = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  let at = 0
  let area = 0
  for (const { points, smooth } of rings) {
    const n = points.length / 2
    for (let i = 0; i < n; i++) {
      const next = i + 1 < n ? i + 1 : 0
      const [x, y, tx, ty] = [points[i * 2]!, points[i * 2 + 1]!, points[next * 2]!, points[next * 2 + 1]!]
      segments.set([x, y, tx, ty], (at + i) * 4)
      comesFrom[at + i] = at + (i > 0 ? i - 1 : n - 1)
      isCorner[at + i] = smooth[i] ? 0 : 1
      area += x * ty - tx * y
      if (x < bounds.left) bounds.left = x
      if (x > bounds.right) bounds.right = x
      if (y < bounds.top) bounds.top = y
      if (y > bounds.bottom) bounds.bottom = y
    }
    at += n
  }
  const outward = area >= 0 ? 1 : -1
  return { key, segments, comesFrom, isCorner, outward, bounds: at > 0 ? bounds : null, reference }
}

export const middleOf = ({ left, top, right, bottom }: Rect): Point => ({
  x: (left + right) / 2,
  y: (top + bottom) / 2,
})

/** Stretch, then uniform scale, then rotation (anticlockwise on screen, y down), then shift. */
export interface Placement {
  scale: number
  rotation: Degrees
  x: number
  y: number
  /** Acts on the outline alone: coats keep their width. None where left out. */
  stretch?: Linear
}

/** Applies a placement to one point. */
export function place({ scale, rotation, x, y, stretch }: Placement, point: Point): Point {
  const c = cosDegrees(rotation) * scale
  const s = sinDegrees(rotation) * scale
  const { x: px, y: py } = stretch ? applied(stretch, point) : point
  return { x: px * c + py * s + x, y: -px * s + py * c + y }
}

const applied = ({ a, b, c, d }: Linear, { x, y }: Point): Point => ({ x: a * x + b * y, y: c * x + d * y })

/** The inverse of `place`. */
export function unplace({ scale, rotation, x, y, stretch }: Placement, point: Point): Point {
  const [c, s] = [cosDegrees(rotation), sinDegrees(rotation)]
  const [dx, dy] = [point.x - x, point.y - y]
  const flat = { x: (dx * c - dy * s) / scale, y: (dx * s + dy * c) / scale }
  return stretch ? applied(inverted(stretch), flat) : flat
}

/** First `inner`, then `outer`: as a piece stands in a group. */
export function within(outer: Placement, inner: Placement): Placement {
  const { x, y } = place(outer, inner)
  const both = { scale: outer.scale * inner.scale, rotation: outer.rotation + inner.rotation, x, y }
  if (!outer.stretch) return inner.stretch ? { ...both, stretch: inner.stretch } : both
  // What the outer one stretches is turned already: turned back, it is a stretch before both.
  const turned = multiplied(turnBy(-inner.rotation), multiplied(outer.stretch, turnBy(inner.rotation)))
  return { ...both, stretch: inner.stretch ? multiplied(turned, inner.stretch) : turned }
}

/** All that a placement does but the shift. */
export function linearOf({ scale, rotation, stretch }: Placement): Linear {
  const turned = turnBy(rotation)
  const { a, b, c, d } = stretch ? multiplied(turned, stretch) : turned
  return { a: a * scale, b: b * scale, c: c * scale, d: d * scale }
}

/** The outline's segments on the render grid, and their bounds. */
export function placed(outline: Outline, placement: Placement): { segments: Float64Array; bounds: Rect } {
  const { x, y } = placement
  const { a, b, c, d } = linearOf(placement)
  const from = outline.segments
  const segments = new Float64Array(from.length)
  const bounds = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  for (let i = 0; i < from.length; i += 2) {
    const px = from[i]! * a + from[i + 1]! * b + x
    const py = from[i]! * c + from[i + 1]! * d + y
    segments[i] = px
    segments[i + 1] = py
    if (px < bounds.left) bounds.left = px
    if (px > bounds.right) bounds.right = px
    if (py < bounds.top) bounds.top = py
    if (py > bounds.bottom) bounds.bottom = py
  }
  return { segments, bounds }
}
