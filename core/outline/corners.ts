import type { Point } from '../units'
import type { Outline } from './outline'

/** How the corners of an offset edge are joined (SVG 2 §13.5.4). */
export type Join = 'round' | 'mitre' | 'bevel'

/** A corner of a placed outline that is not joined by an arc. Unit vectors; px. */
export interface Corner extends Point {
  /** Direction of the edge that arrives, and of the one that leaves. */
  come: Point
  go: Point
  /** Turns a direction to the normal on the wedge's side: n = turn · (y, −x). */
  turn: 1 | -1
  bevel: boolean
  /** Cosine of half the turn. */
  half: number
  /** 1: the wedge lies outside the shape; −1: inside. */
  side: 1 | -1
}

/** Turns smaller than this are no corners: 2°, as a cosine. */
const STRAIGHT = 0.99939

/**
 * Corners of an outline placed on the render grid; `segments` are the placed ones. A mitre longer than `limit` times
 * the width becomes a bevel. Whether a wedge lies outside follows from the outline's winding: clockwise on screen
 * around ink (`outward` 1) or not (−1).
 */
export function cornersOf(outline: Outline, segments: Float64Array, join: Join, limit: number): Corner[] {
  if (join === 'round') return []
  const corners: Corner[] = []
  const { comesFrom, isCorner, outward } = outline
  for (let i = 0; i < isCorner.length; i++) {
    if (!isCorner[i]) continue
    const come = direction(segments, comesFrom[i]!)
    const go = direction(segments, i)
    if (!come || !go) continue
    const cross = come.x * go.y - come.y * go.x
    const dot = come.x * go.x + come.y * go.y
    if (dot > STRAIGHT || cross === 0) continue
    const half = Math.sqrt(Math.max(0, (1 + dot) / 2))
    if (half < 1e-3) continue
    const turn = cross > 0 ? 1 : -1
    corners.push({
      x: segments[i * 4]!,
      y: segments[i * 4 + 1]!,
      ...{ come, go, turn, half },
      bevel: join === 'bevel' || 1 / half > limit,
      side: (turn * outward) as 1 | -1,
    })
  }
  return corners
}

function direction(segments: Float64Array, i: number): Point | null {
  const x = segments[i * 4 + 2]! - segments[i * 4]!
  const y = segments[i * 4 + 3]! - segments[i * 4 + 1]!
  const length = Math.sqrt(x * x + y * y)
  return length > 0 ? { x: x / length, y: y / length } : null
}
