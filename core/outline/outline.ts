import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Degrees, Point, Rect } from '../units'
import type { Ring } from './contour'

/** The vector form of a piece in its own units, before it is placed on the card. */
export interface Outline {
  /** Names the form: equal keys, equal outlines. */
  key: string
  /** x0, y0, x1, y1 of every edge; closed rings that do not overlap. */
  segments: Float64Array
  /** Ink bounds; null for an outline without ink. */
  bounds: Rect | null
  /** What 100 % means: cap height for type, the smaller side for shapes. */
  reference: number
}

export function outlineOf(key: string, rings: readonly Ring[], reference: number): Outline {
  const count = rings.reduce((sum, ring) => sum + ring.length * 2, 0)
  const segments = new Float64Array(count)
  const bounds = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  let at = 0
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const next = i + 2 < ring.length ? i + 2 : 0
      const x = ring[i]!
      const y = ring[i + 1]!
      segments.set([x, y, ring[next]!, ring[next + 1]!], at)
      at += 4
      if (x < bounds.left) bounds.left = x
      if (x > bounds.right) bounds.right = x
      if (y < bounds.top) bounds.top = y
      if (y > bounds.bottom) bounds.bottom = y
    }
  }
  return { key, segments, bounds: at > 0 ? bounds : null, reference }
}

/** Uniform scale, then rotation (anticlockwise on screen, y down), then shift. */
export interface Placement {
  scale: number
  rotation: Degrees
  x: number
  y: number
}

/** Applies a placement to one point. */
export function place({ scale, rotation, x, y }: Placement, point: Point): Point {
  const c = cosDegrees(rotation) * scale
  const s = sinDegrees(rotation) * scale
  return { x: point.x * c + point.y * s + x, y: -point.x * s + point.y * c + y }
}

/** The outline's segments on the render grid, and their bounds. */
export function placed(outline: Outline, placement: Placement): { segments: Float64Array; bounds: Rect } {
  const { scale, rotation, x, y } = placement
  const c = cosDegrees(rotation) * scale
  const s = sinDegrees(rotation) * scale
  const from = outline.segments
  const segments = new Float64Array(from.length)
  const bounds = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  for (let i = 0; i < from.length; i += 2) {
    const px = from[i]! * c + from[i + 1]! * s + x
    const py = -from[i]! * s + from[i + 1]! * c + y
    segments[i] = px
    segments[i + 1] = py
    if (px < bounds.left) bounds.left = px
    if (px > bounds.right) bounds.right = px
    if (py < bounds.top) bounds.top = py
    if (py > bounds.bottom) bounds.bottom = py
  }
  return { segments, bounds }
}
