import { Clipper, FillRule } from 'clipper2-ts'
import { WaxError } from '../errors'
import { SEGMENT_GRID } from '../kernels/memory'
import type { Point } from '../units'
import type { Outline } from './outline'

/** A body: the outline swept from near to far. All segments are x0, y0, x1, y1 in render pixels. */
export interface SweptBody {
  /** The edge of all that the body covers. */
  silhouette: Float64Array
  /** Near and far edge of each side, in step. */
  near: Float64Array
  far: Float64Array
  /** Brightness of each side, 0–1; below 0 for sides that face away from the viewer. */
  lights: Float32Array
}

/**
 * Sweeps a placed outline by (dx, dy), its far end scaled by `taper` about `middle`. `light` is the direction to the
 * light in the page (y down), shorter the higher the light stands.
 */
export function sweep(
  outline: Outline,
  near: Float64Array,
  { dx, dy, taper, middle }: { dx: number; dy: number; taper: number; middle: Point },
  light: readonly [number, number],
): SweptBody {
  const { x: cx, y: cy } = middle
  const far = new Float64Array(near.length)
  for (let i = 0; i < near.length; i += 2) {
    far[i] = cx + (near[i]! - cx) * taper + dx
    far[i + 1] = cy + (near[i + 1]! - cy) * taper + dy
  }
  const lights = new Float32Array(near.length / 4)
  for (let i = 0; i < near.length; i += 4) {
    const [ax, ay, bx, by] = [near[i]!, near[i + 1]!, near[i + 2]!, near[i + 3]!]
    const length = Math.sqrt((bx - ax) ** 2 + (by - ay) ** 2)
    // Out of the ink: to the left of an edge that has its ink on the right.
    const nx = length > 0 ? (outline.outward * (by - ay)) / length : 0
    const ny = length > 0 ? (-outline.outward * (bx - ax)) / length : 0
    // The side goes outward where its far edge lies beyond its near one.
    const mx = (far[i]! + far[i + 2]! - ax - bx) / 2
    const my = (far[i + 1]! + far[i + 3]! - ay - by) / 2
    const seen = mx * nx + my * ny > 0
    lights[i / 4] = seen ? Math.min(1, Math.max(0, 0.5 + 0.5 * (nx * light[0] + ny * light[1]))) : -1
  }
  if (near.some(isTooFar) || far.some(isTooFar)) throw tooLarge()
  const rings = [
    ...ringsOf(near, outline.comesFrom),
    ...ringsOf(far, outline.comesFrom),
    ...strips(near, far, lights, outline).map(wound(outline)),
  ]
  const united = Clipper.union(rings, FillRule.NonZero)
  const silhouette: number[] = []
  for (const path of united) {
    path.forEach(({ x, y }, i) => {
      const next = path[(i + 1) % path.length]!
      silhouette.push(x / SEGMENT_GRID, y / SEGMENT_GRID, next.x / SEGMENT_GRID, next.y / SEGMENT_GRID)
    })
  }
  return { silhouette: Float64Array.from(silhouette), near, far, lights }
}

/**
 * Render px from the card's corner up to which bodies are united: beyond it products of coordinates are not whole numbers any
 * more, and the union may not end.
 */
const FARTHEST = 2 ** 17
const isTooFar = (v: number) => Math.abs(v) > FARTHEST

const tooLarge = () =>
  new WaxError(
    'too-much',
    'card',
    `A depth coat lies on an outline that reaches more than ${FARTHEST} px beyond the card.`,
    'Make the piece smaller, or take its depth away.',
  )

const point = (x: number, y: number) => ({ x: Math.round(x * SEGMENT_GRID), y: Math.round(y * SEGMENT_GRID) })

/**
 * The sides that are seen, neighbours joined to one strip: near edges there, far edges back. All sides of a strip run
 * the same way round, so it may lie over itself.
 */
function strips(near: Float64Array, far: Float64Array, lights: Float32Array, { comesFrom }: Outline) {
  const found: { x: number; y: number }[][] = []
  let there: { x: number; y: number }[] = []
  let back: { x: number; y: number }[] = []
  const close = () => {
    if (there.length > 0) found.push([...there, ...back.reverse()])
    there = []
    back = []
  }
  for (let k = 0; k < lights.length; k++) {
    if (comesFrom[k] !== k - 1) close()
    if (lights[k]! < 0) {
      close()
      continue
    }
    const i = k * 4
    if (there.length === 0) {
      there.push(point(near[i]!, near[i + 1]!))
      back.push(point(far[i]!, far[i + 1]!))
    }
    there.push(point(near[i + 2]!, near[i + 3]!))
    back.push(point(far[i + 2]!, far[i + 3]!))
  }
  close()
  return found
}

/** Sides run the same way round as the outline's outer rings, so that they add to it. */
function wound(outline: Outline) {
  return (path: { x: number; y: number }[]) => {
    let area = 0
    path.forEach((p, i) => {
      const q = path[(i + 1) % path.length]!
      area += p.x * q.y - q.x * p.y
    })
    return area * outline.outward >= 0 ? path : [...path].reverse()
  }
}

/** The closed rings of a list of segments. */
function ringsOf(segments: Float64Array, comesFrom: Int32Array): { x: number; y: number }[][] {
  const rings: { x: number; y: number }[][] = []
  let ring: { x: number; y: number }[] = []
  for (let i = 0; i < comesFrom.length; i++) {
    if (i > 0 && comesFrom[i] !== i - 1) {
      rings.push(ring)
      ring = []
    }
    ring.push(point(segments[i * 4]!, segments[i * 4 + 1]!))
  }
  if (ring.length > 0) rings.push(ring)
  return rings
}
