import type { MeasuredStrand } from '../outline/strand'
import type { Point, Px, Rect } from '../units'
import type { EvaluatedValues } from '../values/evaluated'
import type { Length } from '../values/moving'
import type { Parameters } from '../values/parameter-kinds'

/** A point of the piece's own space that stands for values of a step: it is taken hold of on the stage. */
export interface Grip {
  label: string
  at: Point
  /** A thin line leads from here to it; none where it lies on the piece's own line. */
  from?: Point
  /** The values that it stands for at another point: px for lengths. They may lie beyond their parameters' ranges. */
  values(point: Point): Record<string, number>
}

/** What grips count by, in px of the piece before its place. */
export interface GripWork {
  px(length: Length): Px
  /** What the piece spans before its steps. */
  whole: Rect
  /** The longest line that comes into the step; null where only areas do. */
  line: { along: MeasuredStrand; thickness: Px } | null
}

export type Grips<T extends Parameters> = (values: EvaluatedValues<T>, work: GripWork) => Grip[]

/** Two lengths of chance from the middle of the left side: how long its waves are to the right, how far it moves upward. */
export function wavesGrip(
  label: string,
  [length, height]: readonly [string, string],
  at: { length: Px; height: Px },
  { left, top, bottom }: Rect,
): Grip {
  const from = { x: left, y: (top + bottom) / 2 }
  return {
    label,
    from,
    at: { x: from.x + at.length, y: from.y - at.height },
    values: ({ x, y }) => ({ [length]: x - from.x, [height]: Math.max(0, from.y - y) }),
  }
}
