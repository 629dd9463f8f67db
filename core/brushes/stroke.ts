import type { Degrees, Px, Rect } from '../units'

/** One stroke of a brush: where it went, how hard it was pressed, and what it was painted with. */
export interface BrushStroke {
  id: string
  /** The kind of its tip, or the id of the picture that it is. */
  tip: string
  /** Takes away what was painted before. */
  erase: boolean
  /** `#RRGGBB` or `#RRGGBBAA`, display-encoded sRGB. */
  colour: string
  /** Width of the tip under full pressure, in px of the piece. */
  size: Px
  /** How far out a round tip is whole, in % of its radius. */
  hardness: number
  /** Distance of two dabs in % of the size. */
  spacing: number
  /** How far dabs are thrown to the side, in % of the size. */
  scatter: number
  /** The tip turns with the line of the stroke. */
  along: boolean
  /** The turn of the tip, and by how much that differs from dab to dab. */
  turn: Degrees
  turnBy: Degrees
  /** What a dab covers of what it lies on, in %. */
  flow: number
  /** What the whole stroke covers at the most, in %. */
  opacity: number
  /** How much pressure counts for the size and for the flow, in %. */
  pressSize: number
  pressFlow: number
  seed: number
  /** x, y and pressure (0–1) of each point, in px of the piece. */
  points: number[]
}

/** The strokes of a painting, or of a painted mask; none where something else is asked. */
export const strokesOf = (painted: object): readonly BrushStroke[] =>
  (painted as { strokes?: readonly BrushStroke[] }).strokes ?? NONE

const NONE: readonly BrushStroke[] = []

const known = new WeakMap<BrushStroke, Rect>()

/** What a stroke can touch, in px of the piece. */
export function strokeBounds(stroke: BrushStroke): Rect {
  let bounds = known.get(stroke)
  if (!bounds) {
    const { points, size, scatter } = stroke
    // A tip that is turned reaches as far as its corners.
    const reach = (size / 2) * Math.SQRT2 + (size * scatter) / 100 + 1
    const [xs, ys] = [points.filter((_, i) => i % 3 === 0), points.filter((_, i) => i % 3 === 1)]
    bounds = {
      ...{ left: least(xs) - reach, top: least(ys) - reach },
      ...{ right: -least(xs.map((x) => -x)) + reach, bottom: -least(ys.map((y) => -y)) + reach },
    }
    known.set(stroke, bounds)
  }
  return bounds
}

const least = (values: readonly number[]) => values.reduce((least, v) => Math.min(least, v), Infinity)

/** What strokes can touch together; null for none. What is erased counts as well. */
export function strokesBounds(strokes: readonly BrushStroke[]): Rect | null {
  return strokes.map(strokeBounds).reduce<Rect | null>(
    (all, one) =>
      all
        ? {
            ...{ left: Math.min(all.left, one.left), top: Math.min(all.top, one.top) },
            ...{ right: Math.max(all.right, one.right), bottom: Math.max(all.bottom, one.bottom) },
          }
        : one,
    null,
  )
}
