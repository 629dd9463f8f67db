// Plain reckoning of what a picture must be, from the definitions alone: distances by trying every edge, cover by
// counting samples. Slow, and as simple as it can be.

// Taken out once: in Jest's contexts every look at a global is slow.
const { abs, cos, floor, sin, sqrt, PI } = Math

export type Spot = readonly [number, number]

/** Distance of a point to a line through points; x and y of them one after the other. */
function distanceToFlat(line: Float64Array, x: number, y: number): number {
  let best = 1e300
  for (let i = 0; i + 3 < line.length; i += 2) {
    const ax = line[i]!
    const ay = line[i + 1]!
    const dx = line[i + 2]! - ax
    const dy = line[i + 3]! - ay
    const length = dx * dx + dy * dy
    const along = length > 0 ? ((x - ax) * dx + (y - ay) * dy) / length : 0
    const t = along < 0 ? 0 : along > 1 ? 1 : along
    const ex = x - ax - t * dx
    const ey = y - ay - t * dy
    const far = ex * ex + ey * ey
    if (far < best) best = far
  }
  return sqrt(best)
}

const flat = (points: readonly Spot[]) => Float64Array.from(points.flatMap(([x, y]) => [x, y]))

/** The distance to a line through points, as a function. */
export function toLine(points: readonly Spot[]): (x: number, y: number) => number {
  const line = flat(points)
  return (x, y) => distanceToFlat(line, x, y)
}

/** The signed distance to a polygon's edge, negative inside, as a function. */
export function toPolygon(corners: readonly Spot[]): (x: number, y: number) => number {
  const line = flat([...corners, corners[0]!])
  return (x, y) => {
    let inside = false
    for (let i = 0; i + 3 < line.length; i += 2) {
      const [ay, by] = [line[i + 1]!, line[i + 3]!]
      if (ay > y !== by > y && x < ((line[i + 2]! - line[i]!) * (y - ay)) / (by - ay) + line[i]!) inside = !inside
    }
    return (inside ? -1 : 1) * distanceToFlat(line, x, y)
  }
}

/** Values of a function at the middles of w × h pixels, reckoned once. */
export function atPixels(w: number, h: number, value: (x: number, y: number) => number) {
  const values = Float64Array.from({ length: w * h }, (_, i) => value((i % w) + 0.5, floor(i / w) + 0.5))
  return (x: number, y: number) => values[y * w + x]!
}

/** A cubic Bézier as a line of many points. */
export function cubicLine([a, b, c, d]: readonly [Spot, Spot, Spot, Spot], count = 300): Spot[] {
  return Array.from({ length: count + 1 }, (_, i): Spot => {
    const t = i / count
    const u = 1 - t
    const at = (k: 0 | 1) => u * u * u * a[k] + 3 * u * u * t * b[k] + 3 * u * t * t * c[k] + t * t * t * d[k]
    return [at(0), at(1)]
  })
}

/** Points turned anticlockwise on screen (y down), enlarged and moved, as pieces are. */
export function stood(points: readonly Spot[], x: number, y: number, rotation = 0, scale = 1): Spot[] {
  const [c, s] = [cos((rotation * PI) / 180) * scale, sin((rotation * PI) / 180) * scale]
  return points.map(([px, py]): Spot => [px * c + py * s + x, -px * s + py * c + y])
}

/** The share of a pixel's samples at which a signed distance is negative; the distance changes by no more than its way. */
export function coverOf(distance: (x: number, y: number) => number, x: number, y: number, n = 16): number {
  const middle = distance(x + 0.5, y + 0.5)
  if (abs(middle) > 1) return middle < 0 ? 1 : 0
  let count = 0
  for (let j = 0; j < n; j++)
    for (let i = 0; i < n; i++) if (distance(x + (i + 0.5) / n, y + (j + 0.5) / n) <= 0) count++
  return count / (n * n)
}
