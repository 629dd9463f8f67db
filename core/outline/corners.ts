import type { Point, Px } from '../units'
import type { Outline } from './outline'

/** How the corners of an offset edge are joined (SVG 2 §13.5.4). */
export type Join = 'round' | 'mitre' | 'bevel'

/** A corner of a placed outline, or a smooth joint so close to one that its arc must keep to its own wedge. Unit vectors; px. */
export interface Corner extends Point {
  /** The segments that meet in it, by index. */
  arrives: number
  leaves: number
  /** Direction of the edge that arrives, and of the one that leaves. */
  come: Point
  go: Point
  /** Turns a direction to the normal on the wedge's side: n = turn · (y, −x). */
  turn: 1 | -1
  kind: Join
  /** Cosine of half the turn. */
  half: number
  /** 1: the wedge lies outside the shape; −1: inside. */
  side: 1 | -1
}

/** Turns smaller than this are no corners: 2°, as a cosine. */
const STRAIGHT = 0.99939

/**
 * Corners of an outline placed on the render grid; `segments` are the placed ones. A mitre longer than `limit` times
 * the width becomes a bevel. Joints of curves within `reach` along the edge of a bevel are listed too: their arcs
 * would else fill what the bevel cuts off. Whether a wedge lies outside follows from the outline's winding.
 */
export function cornersOf(
  outline: Outline,
  segments: Float64Array,
  { join, limit }: { join: Join; limit: number },
  reach: Px,
): Corner[] {
  if (join === 'round') return []
  const corners = new Map<number, Corner>()
  for (let i = 0; i < outline.isCorner.length; i++) {
    if (!outline.isCorner[i]) continue
    const corner = cornerAt(outline, segments, i, STRAIGHT)
    if (!corner) continue
    corners.set(i, { ...corner, kind: join === 'bevel' || 1 / corner.half > limit ? 'bevel' : 'mitre' })
  }
  const { comesFrom } = outline
  const goesTo = new Int32Array(comesFrom.length)
  comesFrom.forEach((from, i) => (goesTo[from] = i))
  const length = (i: number) => {
    const at = i * 4
    return Math.sqrt((segments[at + 2]! - segments[at]!) ** 2 + (segments[at + 3]! - segments[at + 1]!) ** 2)
  }
  for (const [start, { kind }] of [...corners]) {
    if (kind !== 'bevel') continue
    const claim = (i: number) => {
      if (corners.has(i)) return false
      const joint = cornerAt(outline, segments, i, 1)
      if (joint) corners.set(i, { ...joint, kind: 'round' })
      return true
    }
    for (let i = goesTo[start]!, way = length(start); way < reach && claim(i); i = goesTo[i]!) way += length(i)
    for (let i = comesFrom[start]!, way = length(i); way < reach && claim(i); i = comesFrom[i]!)
      way += length(comesFrom[i]!)
  }
  return [...corners.values()]
}

function cornerAt(outline: Outline, segments: Float64Array, i: number, straight: number): Omit<Corner, 'kind'> | null {
  const arrives = outline.comesFrom[i]!
  const come = direction(segments, arrives)
  const go = direction(segments, i)
  if (!come || !go) return null
  const cross = come.x * go.y - come.y * go.x
  const dot = come.x * go.x + come.y * go.y
  if (dot > straight || cross === 0) return null
  const half = Math.sqrt(Math.max(0, (1 + dot) / 2))
  if (half < 1e-3) return null
  const turn = cross > 0 ? 1 : -1
  return {
    x: segments[i * 4]!,
    y: segments[i * 4 + 1]!,
    ...{ arrives, leaves: i, come, go, turn, half },
    side: (turn * outline.outward) as 1 | -1,
  }
}

function direction(segments: Float64Array, i: number): Point | null {
  const x = segments[i * 4 + 2]! - segments[i * 4]!
  const y = segments[i * 4 + 3]! - segments[i * 4 + 1]!
  const length = Math.sqrt(x * x + y * y)
  return length > 0 ? { x: x / length, y: y / length } : null
}
