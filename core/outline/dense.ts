import type { Point } from '../units'
import type { Strand } from './strand'

/** Halvings of a straight piece that is bent. */
const DEEPEST = 12
/** Points of one strand at most: what is bent finer is a blur to the eye. */
const MOST_POINTS = 12_000

/**
 * A strand whose points are moved by a map of the plane: straight pieces are halved until what they become keeps within
 * `tolerance` of the map's own curves. `longest`: pieces longer than this are parted first, whatever their middle does, so
 * that none hides a whole wave.
 */
export function bentStrand(
  { points, smooth, closed, widths }: Strand,
  map: (point: Point) => Point,
  tolerance: number,
  longest: number,
  most = MOST_POINTS,
): Strand {
  const n = points.length / 2
  const out: Strand = { points: [], smooth: [], closed, ...(widths ? { widths: [] } : {}) }
  const put = (p: Point, isSmooth: boolean, width: number) => {
    out.points.push(p.x, p.y)
    out.smooth.push(isSmooth)
    if (widths) out.widths!.push(width)
  }
  for (let i = 0; i < n; i++) {
    const a = { x: points[i * 2]!, y: points[i * 2 + 1]! }
    const width = widths ? widths[i]! : 1
    let from = map(a)
    put(from, smooth[i]!, width)
    if (i === n - 1 && !closed) break
    const j = (i + 1) % n
    const b = { x: points[j * 2]!, y: points[j * 2 + 1]! }
    const to = widths ? widths[j]! : 1
    const at = (t: number) => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t })
    const pieces = Math.max(1, Math.ceil(Math.sqrt((b.x - a.x) ** 2 + (b.y - a.y) ** 2) / longest))
    const halved = (t0: number, p0: Point, t1: number, p1: Point, depth: number) => {
      const t = (t0 + t1) / 2
      const middle = map(at(t))
      // A bow whose middle stands off by this much from its chord; a quarter of it is what halves would stand off.
      const [dx, dy] = [middle.x - (p0.x + p1.x) / 2, middle.y - (p0.y + p1.y) / 2]
      if (depth >= DEEPEST || out.smooth.length > most || dx * dx + dy * dy <= tolerance * tolerance) return
      halved(t0, p0, t, middle, depth + 1)
      put(middle, true, width + (to - width) * t)
      halved(t, middle, t1, p1, depth + 1)
    }
    for (let k = 0; k < pieces; k++) {
      const [t0, t1] = [k / pieces, (k + 1) / pieces]
      const next = map(at(t1))
      halved(t0, from, t1, next, 0)
      if (k + 1 < pieces) put(next, true, width + (to - width) * t1)
      from = next
    }
  }
  return out
}
