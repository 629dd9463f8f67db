/** A closed contour as path commands; quadratic and cubic Béziers as fonts and SVG have them. */
export type PathCommand =
  | { type: 'M'; x: number; y: number }
  | { type: 'L'; x: number; y: number }
  | { type: 'Q'; x1: number; y1: number; x: number; y: number }
  | { type: 'C'; x1: number; y1: number; x2: number; y2: number; x: number; y: number }
  | { type: 'Z' }

/** A closed polygon: x, y, x, y …; the last point joins the first. */
export type Ring = number[]

/**
 * Straight pieces that stay within `tolerance` of the curves. The number of pieces is Wang's bound
 * (G. Wang 1984, as in R. Goldman, Pyramid Algorithms, 2003): √(d(d−1)/8 · max|Δ²P| / tolerance).
 */
export function flatten(path: readonly PathCommand[], tolerance: number): Ring[] {
  const rings: Ring[] = []
  let ring: Ring = []
  let x = 0
  let y = 0
  const finish = () => {
    if (ring.length >= 6) rings.push(ring)
    ring = []
  }
  for (const c of path) {
    if (c.type === 'Z') {
      finish()
      continue
    }
    if (c.type === 'M') {
      finish()
      ring.push(c.x, c.y)
    } else if (c.type === 'L') {
      ring.push(c.x, c.y)
    } else if (c.type === 'Q') {
      const bend = Math.sqrt(squared(x - 2 * c.x1 + c.x) + squared(y - 2 * c.y1 + c.y))
      const n = Math.max(1, Math.ceil(Math.sqrt((0.25 * bend) / tolerance)))
      for (let i = 1; i <= n; i++) {
        const t = i / n
        const u = 1 - t
        ring.push(u * u * x + 2 * u * t * c.x1 + t * t * c.x, u * u * y + 2 * u * t * c.y1 + t * t * c.y)
      }
    } else {
      const bend = Math.sqrt(
        Math.max(
          squared(x - 2 * c.x1 + c.x2) + squared(y - 2 * c.y1 + c.y2),
          squared(c.x1 - 2 * c.x2 + c.x) + squared(c.y1 - 2 * c.y2 + c.y),
        ),
      )
      const n = Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / tolerance)))
      for (let i = 1; i <= n; i++) {
        const t = i / n
        const u = 1 - t
        const [a, b, d, e] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t]
        ring.push(a * x + b * c.x1 + d * c.x2 + e * c.x, a * y + b * c.y1 + d * c.y2 + e * c.y)
      }
    }
    x = c.x
    y = c.y
  }
  finish()
  return rings
}

const squared = (v: number) => v * v
