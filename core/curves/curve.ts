import { z } from 'zod'
import { exp } from '../kernels/exact'

// Curves shape what lies between an edge and its reach: falloff of glows and shadows, profile of bevels, gloss.
// All rise from left to right as they are stored: 0 is the far end (or the foot), 1 the edge (or the top).

/** A function from 0..1 to 0..1. */
export type Curve = (x: number) => number

/** A point of a drawn curve, in 0..1. A `smooth` joint has one tangent, a `corner` none. */
export interface CurvePoint {
  x: number
  y: number
  joint?: 'smooth' | 'corner'
}

/** A ready-made shape by name, or points in the order of x. */
export type StoredCurve = CurveName | { points: CurvePoint[]; monotone?: boolean }

interface Shape {
  name: string
  label: string
  /** What it looks like. */
  help: string
  curve: Curve
}

const quarter = (x: number) => Math.sqrt(Math.max(0, 1 - (1 - x) * (1 - x)))

/** Ready-made shapes; those of mouldings carry the names that carpenters give them. */
export const CURVE_SHAPES = [
  { name: 'linear', label: 'Linear', help: 'A straight slope', curve: (x) => x },
  {
    name: 'chamfer',
    label: 'Chamfer',
    help: 'A straight slope with a flat margin at its foot and top',
    curve: (x) => Math.min(1, Math.max(0, (x - 0.2) / 0.6)),
  },
  { name: 'ovolo', label: 'Ovolo', help: 'A round quarter, bulging outward', curve: quarter },
  { name: 'cavetto', label: 'Cavetto', help: 'A round quarter, hollowed inward', curve: (x) => 1 - quarter(1 - x) },
  {
    name: 'ogee',
    label: 'Ogee',
    help: 'An S: hollow at the foot, bulging at the top',
    curve: (x) => (x < 0.5 ? (1 - quarter(1 - 2 * x)) / 2 : (1 + quarter(2 * x - 1)) / 2),
  },
  {
    name: 'bead',
    label: 'Bead',
    help: 'A half round: up and down again',
    curve: (x) => Math.sqrt(Math.max(0, 1 - (2 * x - 1) * (2 * x - 1))),
  },
  {
    name: 'fillet',
    label: 'Fillet',
    help: 'A square step in the middle',
    curve: (x) => Math.min(1, Math.max(0, (x - 0.48) / 0.04)),
  },
  {
    name: 'reeds',
    label: 'Reeds',
    help: 'Three half rounds side by side, on a slope',
    curve: (x) => {
      const t = 2 * (x * 3 - Math.min(2, Math.floor(x * 3))) - 1
      return x + 0.22 * (1 - x) * Math.sqrt(Math.max(0, 1 - t * t))
    },
  },
  {
    name: 'bell',
    label: 'Bell',
    help: 'The soft slope of a Gaussian',
    // exp(−½(2.5 s)²) over the distance s from the top, moved so that it ends at 0.
    curve: (x) => {
      const end = exp(-3.125)
      return (exp(-3.125 * (1 - x) * (1 - x)) - end) / (1 - end)
    },
  },
  {
    name: 'steps',
    label: 'Steps',
    help: 'Four even steps',
    curve: (x) => Math.min(1, Math.floor(x * 4 + 1e-9) / 3),
  },
] as const satisfies readonly Shape[]

export type CurveName = (typeof CURVE_SHAPES)[number]['name']
export const CURVE_NAMES = CURVE_SHAPES.map(({ name }) => name) as [CurveName, ...CurveName[]]

const unit = z.number().min(0).max(1)

export const curveSchema = z.union([
  z.enum(CURVE_NAMES),
  z.strictObject({
    points: z
      .array(z.strictObject({ x: unit, y: unit, joint: z.enum(['smooth', 'corner']).optional() }))
      .min(2)
      .max(32)
      .superRefine((points, context) => {
        points.forEach(({ x }, i) => {
          if (i > 0 && x <= points[i - 1]!.x) {
            context.addIssue({
              code: 'custom',
              path: [i, 'x'],
              message: 'must lie to the right of the point before it',
            })
          }
        })
      }),
    monotone: z.boolean().optional(),
  }),
])

/** The function that a stored curve stands for. */
export function readCurve(stored: StoredCurve): Curve {
  if (typeof stored !== 'string') return throughPoints(stored.points, stored.monotone !== false)
  return CURVE_SHAPES.find(({ name }) => name === stored)!.curve
}

/** Names a curve: equal names, equal curves. */
export const curveName = (stored: StoredCurve): string => (typeof stored === 'string' ? stored : JSON.stringify(stored))

/** Points to start drawing from where a ready-made shape stands. */
export function pointsOf(stored: StoredCurve): CurvePoint[] {
  if (typeof stored !== 'string') return stored.points
  const curve = readCurve(stored)
  const places = stored === 'linear' ? [0, 1] : [0, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875, 1]
  const rounded = (v: number) => Math.round(Math.min(1, Math.max(0, v)) * 1000) / 1000
  return places.map((x) => ({ x, y: rounded(curve(x)) }))
}

/**
 * Cubic Hermite pieces. Monotone: tangents after F. N. Fritsch, R. E. Carlson, Monotone Piecewise Cubic
 * Interpolation (SIAM J. Numer. Anal. 17, 1980), which never leaves the range of two neighbouring points.
 * Otherwise finite differences, cut to 0..1.
 */
function throughPoints(points: readonly CurvePoint[], monotone: boolean): Curve {
  const last = points.length - 1
  const slope = (i: number) => (points[i + 1]!.y - points[i]!.y) / (points[i + 1]!.x - points[i]!.x)
  const slopes = Array.from({ length: last }, (_, i) => slope(i))
  // Tangents to the left and right of each point; at a corner each side keeps its own slope.
  const tangents = points.map(({ joint }, i) => {
    const before = slopes[Math.max(0, i - 1)]!
    const after = slopes[Math.min(last - 1, i)]!
    if (joint === 'corner' || i === 0 || i === last) return { left: before, right: after }
    const middle = monotone && before * after <= 0 ? 0 : (before + after) / 2
    return { left: middle, right: middle }
  })
  if (monotone) {
    slopes.forEach((m, i) => {
      const from = tangents[i]!
      const to = tangents[i + 1]!
      if (m === 0) {
        from.right = 0
        to.left = 0
        return
      }
      const [a, b] = [from.right / m, to.left / m]
      const length = Math.sqrt(a * a + b * b)
      if (length <= 3) return
      from.right *= 3 / length
      to.left *= 3 / length
    })
  }
  return (x) => {
    if (x <= points[0]!.x) return points[0]!.y
    if (x >= points[last]!.x) return points[last]!.y
    let i = 0
    while (x > points[i + 1]!.x) i++
    const [p, q] = [points[i]!, points[i + 1]!]
    const w = q.x - p.x
    const t = (x - p.x) / w
    const y =
      p.y * (1 + 2 * t) * (1 - t) * (1 - t) +
      q.y * t * t * (3 - 2 * t) +
      w * t * (1 - t) * (tangents[i]!.right * (1 - t) - tangents[i + 1]!.left * t)
    return Math.min(1, Math.max(0, y))
  }
}
