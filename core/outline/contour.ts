/** A closed contour as path commands; quadratic and cubic Béziers as fonts and SVG have them. */
export type PathCommand =
  | { type: 'M'; x: number; y: number }
  | { type: 'L'; x: number; y: number }
  | { type: 'Q'; x1: number; y1: number; x: number; y: number }
  | { type: 'C'; x1: number; y1: number; x2: number; y2: number; x: number; y: number }
  | { type: 'Z' }

/** A closed polygon: x, y, x, y …; the last point joins the first. */
export interface Ring {
  points: number[]
  /** For each point whether the curve that was flattened runs through it without a corner. */
  smooth: boolean[]
}

/** A polygon without curves. */
export const polygon = (points: number[]): Ring => ({
  points,
  smooth: new Array<boolean>(points.length / 2).fill(false),
})

/** Directions that differ by less than 2° meet without a corner: the cosine of that, squared. */
const STRAIGHT = 0.99878

/** A contour before it is closed: open where no Z came. */
export interface Stretch extends Ring {
  closed: boolean
}

/** Straight pieces that stay within `tolerance` of the curves; contours are closed, as a fill sees them. */
export function flatten(path: readonly PathCommand[], tolerance: number): Ring[] {
  return flattenStretches(path, tolerance)
    .filter(({ points }) => points.length >= 6)
    .map(({ points, smooth, closed }) => {
      // The ends of an open contour are joined by a straight line.
      if (!closed) smooth[0] = false
      return { points, smooth }
    })
}

/**
 * As `flatten`, open contours kept open. The number of pieces is Wang's bound (G. Wang 1984, as in R. Goldman,
 * Pyramid Algorithms, 2003): √(d(d−1)/8 · max|Δ²P| / tolerance).
 */
export function flattenStretches(path: readonly PathCommand[], tolerance: number): Stretch[] {
  const found: Stretch[] = []
  let pen = new Pen()
  for (const c of path) {
    if (c.type === 'Z') {
      pen.close(found)
      pen = new Pen(pen.startX, pen.startY)
    } else if (c.type === 'M') {
      pen.end(found)
      pen = new Pen(c.x, c.y)
    } else if (c.type === 'L') {
      pen.join(c.x - pen.x, c.y - pen.y)
      pen.to(c.x, c.y, c.x - pen.x, c.y - pen.y)
    } else if (c.type === 'Q') {
      quadratic(pen, c, tolerance)
    } else {
      cubic(pen, c, tolerance)
    }
  }
  pen.end(found)
  return found
}

/** More pieces than a curve has that goes once round the largest frame; what lies far beyond may be coarser. */
const MOST_PIECES = 4096

const piecesFor = (ratio: number) => Math.min(MOST_PIECES, Math.max(1, Math.ceil(Math.sqrt(ratio))))

function quadratic(pen: Pen, c: Extract<PathCommand, { type: 'Q' }>, tolerance: number): void {
  const { x, y } = pen
  const bend = Math.sqrt(squared(x - 2 * c.x1 + c.x) + squared(y - 2 * c.y1 + c.y))
  const n = piecesFor((0.25 * bend) / tolerance)
  const at = (t: number) =>
    [
      (1 - t) * (1 - t) * x + 2 * (1 - t) * t * c.x1 + t * t * c.x,
      (1 - t) * (1 - t) * y + 2 * (1 - t) * t * c.y1 + t * t * c.y,
    ] as const
  const start = firstOf(c.x1 - x, c.y1 - y, c.x - x, c.y - y)
  const end = firstOf(c.x - c.x1, c.y - c.y1, c.x - x, c.y - y)
  pen.join(...start)
  const lead = leadOf(2 * lengthOf(start), n, tolerance)
  if (lead && pen.atCorner) pen.through(...at(lead))
  for (let i = 1; i < n; i++) pen.through(...at(i / n))
  const trail = leadOf(2 * lengthOf(end), n, tolerance)
  pen.to(c.x, c.y, ...end, trail ? at(1 - trail) : null)
}

/**
 * Where a curve gets a point close to its end, so that the straight piece there has the curve's own direction: mitres
 * and bevels are made from it. A share of the curve, or 0 where its pieces are short enough as they are.
 */
function leadOf(speed: number, n: number, tolerance: number): number {
  const t = (LEAD * tolerance) / Math.max(1e-12, speed)
  return t < 0.5 / n ? t : 0
}

/** Length of that piece in tolerances: a fifth of a render pixel. */
const LEAD = 20

const lengthOf = ([x, y]: readonly [number, number]) => Math.sqrt(x * x + y * y)

function cubic(pen: Pen, c: Extract<PathCommand, { type: 'C' }>, tolerance: number): void {
  const { x, y } = pen
  const bend = Math.sqrt(
    Math.max(
      squared(x - 2 * c.x1 + c.x2) + squared(y - 2 * c.y1 + c.y2),
      squared(c.x1 - 2 * c.x2 + c.x) + squared(c.y1 - 2 * c.y2 + c.y),
    ),
  )
  const n = piecesFor((0.75 * bend) / tolerance)
  const at = (t: number) => {
    const u = 1 - t
    const [a, b, d, e] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t]
    return [a * x + b * c.x1 + d * c.x2 + e * c.x, a * y + b * c.y1 + d * c.y2 + e * c.y] as const
  }
  const start = firstOf(c.x1 - x, c.y1 - y, c.x2 - x, c.y2 - y, c.x - x, c.y - y)
  const end = firstOf(c.x - c.x2, c.y - c.y2, c.x - c.x1, c.y - c.y1, c.x - x, c.y - y)
  pen.join(...start)
  const lead = leadOf(3 * lengthOf(start), n, tolerance)
  if (lead && pen.atCorner) pen.through(...at(lead))
  for (let i = 1; i < n; i++) pen.through(...at(i / n))
  const trail = leadOf(3 * lengthOf(end), n, tolerance)
  pen.to(c.x, c.y, ...end, trail ? at(1 - trail) : null)
}

/** Collects the points of one contour and whether it turns a corner in them. */
class Pen {
  private readonly points: number[] = []
  private readonly smooth: boolean[] = []
  private first: [number, number] | null = null
  private last: [number, number] | null = null
  /** A point shortly before the last one, wanted if that turns out to be a corner. */
  private trail: readonly [number, number] | null = null
  /** Whether the point at which a command starts is a corner; before the contour is closed its first point counts as one. */
  atCorner = true
  x: number
  y: number

  constructor(
    readonly startX = 0,
    readonly startY = 0,
  ) {
    this.x = startX
    this.y = startY
  }

  /** A command starts in a direction. */
  join(dx: number, dy: number): void {
    if (dx === 0 && dy === 0) return
    if (this.points.length === 0) {
      this.points.push(this.x, this.y)
      this.smooth.push(false)
      this.first = [dx, dy]
    } else if (this.last) this.finish(goesOn(this.last, [dx, dy]))
  }

  /** Now it is known whether the last point is a corner. */
  private finish(smooth: boolean): void {
    this.smooth[this.smooth.length - 1] = smooth
    this.atCorner = !smooth
    if (!smooth && this.trail) {
      this.points.splice(-2, 0, ...this.trail)
      this.smooth.splice(-1, 0, true)
    }
    this.trail = null
  }

  /** A point inside a curve. */
  through(x: number, y: number): void {
    this.points.push(x, y)
    this.smooth.push(true)
  }

  /** The end of a command, and its direction there. */
  to(x: number, y: number, dx: number, dy: number, trail: readonly [number, number] | null = null): void {
    if (dx === 0 && dy === 0) return
    this.trail = trail
    this.points.push(x, y)
    this.smooth.push(false)
    this.last = [dx, dy]
    this.x = x
    this.y = y
  }

  end(found: Stretch[]): void {
    if (this.points.length === 0) return
    const n = this.points.length
    if (n > 4 && this.points[0] === this.points[n - 2] && this.points[1] === this.points[n - 1]) this.close(found)
    else found.push({ points: this.points, smooth: this.smooth, closed: false })
  }

  close(found: Stretch[]): void {
    if (this.points.length === 0) return
    let n = this.points.length
    if (this.points[0] === this.points[n - 2] && this.points[1] === this.points[n - 1]) {
      this.finish(this.first !== null && this.last !== null && goesOn(this.last, this.first))
      n = this.points.length
      // The last point is the first one again.
      this.points.length = n - 2
      this.smooth.length--
      this.smooth[0] = this.first !== null && this.last !== null && goesOn(this.last, this.first)
    } else {
      const back: [number, number] = [this.startX - this.x, this.startY - this.y]
      this.finish(this.last !== null && goesOn(this.last, back))
      this.smooth[0] = this.first !== null && goesOn(back, this.first)
    }
    found.push({ points: this.points, smooth: this.smooth, closed: true })
  }
}

function goesOn([ax, ay]: readonly [number, number], [bx, by]: readonly [number, number]): boolean {
  const dot = ax * bx + ay * by
  return dot > 0 && dot * dot >= STRAIGHT * (ax * ax + ay * ay) * (bx * bx + by * by)
}

/** The first of some vectors that has a length. */
function firstOf(...v: number[]): [number, number] {
  for (let i = 0; i < v.length; i += 2) if (v[i] !== 0 || v[i + 1] !== 0) return [v[i]!, v[i + 1]!]
  return [0, 0]
}

const squared = (v: number) => v * v
