import type { Px } from '../units'
import type { Grip } from '../steps/grips'

/** The lower right of a mask with two sides: it stands so far out on them, as a share of their halves, and pulls both. */
export const sidesGrip = (width: Px, height: Px, out: number): Grip => ({
  label: 'Width and height',
  at: { x: (width / 2) * out, y: (height / 2) * out },
  from: { x: 0, y: 0 },
  values: ({ x, y }) => ({ width: Math.max(0, (2 * x) / out), height: Math.max(0, (2 * y) / out) }),
})
