import type { Outline } from './outline'

/** An outline of more edges than MANY is looked at with FEW of them: its curves are finer than the depth asks for. */
const MANY = 16_384
const FEW = 8192
/** Samples along the longer side of the first look. */
const LOOK = 160
/** How many of the best places are looked at closely. */
const BEST = 12

/**
 * The largest distance from the edge inside an outline, in its own units: the radius of the largest circle that fits.
 * Found on a grid, then climbed from its best places until the step is a ten-thousandth of the result.
 */
export function innerDepth(outline: Outline): number {
  const { bounds } = outline
  if (!bounds) return 0
  const segments = outline.comesFrom.length > MANY ? thinned(outline) : outline.segments
  const [w, h] = [bounds.right - bounds.left, bounds.bottom - bounds.top]
  const step = Math.max(w, h) / LOOK
  // Distances only matter within the shape, so edges are sorted into rows of cells to be asked for.
  const places: { x: number; y: number; depth: number }[] = []
  for (let y = bounds.top + step / 2; y < bounds.bottom; y += step) {
    const spans = spansAt(segments, y)
    for (let k = 0; k + 1 < spans.length; k += 2) {
      const [from, to] = [spans[k]!, spans[k + 1]!]
      // A span narrower than what is found already cannot hold a larger circle; its middle is its best place.
      const n = Math.max(1, Math.min(8, Math.floor((to - from) / step)))
      for (let i = 0; i < n; i++) {
        const x = from + ((i + 0.5) / n) * (to - from)
        places.push({ x, y, depth: Math.min(x - from, to - x) })
      }
    }
  }
  // First by the horizontal room, which is quick to know and never too small by more than the slope of the edges.
  places.sort((a, b) => b.depth - a.depth)
  const tried = places.slice(0, 400).map(({ x, y }) => ({ x, y, depth: depthAt(segments, x, y) }))
  tried.sort((a, b) => b.depth - a.depth)
  return Math.max(0, ...tried.slice(0, BEST).map((start) => climb(segments, start, step)))
}

/** Edges between every so manieth corner of each ring. */
function thinned({ segments, comesFrom }: Outline): Float64Array {
  const every = Math.ceil(comesFrom.length / FEW)
  const edges: number[] = []
  const corner = (i: number) => [segments[i * 4]!, segments[i * 4 + 1]!]
  let start = 0
  while (start < comesFrom.length) {
    // The edge that arrives at a ring's first corner is its last one.
    const end = comesFrom[start]! + 1
    for (let i = start; i < end; i += every) edges.push(...corner(i), ...corner(i + every < end ? i + every : start))
    start = end
  }
  return Float64Array.from(edges)
}

function climb(segments: Float64Array, start: { x: number; y: number; depth: number }, step: number): number {
  let best = start
  let reach = step
  while (reach > best.depth * 1e-4 && reach > step * 1e-4) {
    let moved = false
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
      [0.7, 0.7],
      [-0.7, 0.7],
      [0.7, -0.7],
      [-0.7, -0.7],
    ] as const) {
      const x = best.x + dx * reach
      const y = best.y + dy * reach
      const depth = depthAt(segments, x, y, best.depth)
      if (depth > best.depth) {
        best = { x, y, depth }
        moved = true
      }
    }
    if (!moved) reach /= 2
  }
  return best.depth
}

/** Where a horizontal line enters and leaves the ink, in order. */
function spansAt(segments: Float64Array, y: number): number[] {
  const found: number[] = []
  for (let i = 0; i < segments.length; i += 4) {
    const [ay, by] = [segments[i + 1]!, segments[i + 3]!]
    if (ay > y === by > y) continue
    found.push(segments[i]! + ((y - ay) / (by - ay)) * (segments[i + 2]! - segments[i]!))
  }
  return found.sort((a, b) => a - b)
}

/**
 * Distance to the nearest edge; below 0 outside of the ink, which a step may have left. `least`: what it must be more than to be of
 * use; below 0 as well where it is found not to be.
 */
function depthAt(segments: Float64Array, x: number, y: number, least = 0): number {
  const tooNear = Math.max(0, least) ** 2
  let best = Infinity
  let inside = false
  for (let i = 0; i < segments.length; i += 4) {
    const ax = segments[i]!
    const ay = segments[i + 1]!
    const dx = segments[i + 2]! - ax
    const dy = segments[i + 3]! - ay
    if (ay > y !== ay + dy > y && x < ((y - ay) / dy) * dx + ax) inside = !inside
    const length = dx * dx + dy * dy
    const t = length > 0 ? Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / length)) : 0
    const ex = x - ax - t * dx
    const ey = y - ay - t * dy
    const squared = ex * ex + ey * ey
    if (squared < best) best = squared
    if (best < tooNear) return -1
  }
  return inside ? Math.sqrt(best) : -Math.sqrt(best)
}
