import { z } from 'zod'
import { isEasing } from './easing'

/** A value at a frame, and how the segment that starts here is eased. */
export interface Key<T> {
  frame: number
  value: T
  /** CSS Easing 2 text, or `hold`. Linear where left out. */
  easing?: string
  /**
   * Numbers only: bends the way to the next key (`out`) and from the one before (`in`). Distances, in the value's unit,
   * from the key to the control points of a cubic Bézier curve that eased progress runs along; a third of the way where
   * one is left out. On both coordinates of a place they make its way on the stage a curve.
   */
  bend?: Bend
}

export interface Bend {
  in?: number
  out?: number
}

const frame = z.number().min(0).max(1_000_000)
export const easingSchema = z
  .string()
  .max(2000)
  .refine(
    isEasing,
    'is no easing: use linear, ease, ease-in, ease-out, ease-in-out, cubic-bezier(…), steps(…), linear(…) or hold',
  )

const control = z.number().min(-1_000_000).max(1_000_000)
export const bend = z.strictObject({ in: control.optional(), out: control.optional() }).optional()

/** Keys in the order of their frames. */
export function keysOf<T extends z.ZodType>(value: T, more: z.ZodRawShape = {}) {
  return z
    .array(z.strictObject({ frame, value, easing: easingSchema.optional(), ...more }))
    .min(1)
    .max(10_000)
    .superRefine((keys, context) => {
      keys.forEach((key, i) => {
        if (i > 0 && key.frame <= keys[i - 1]!.frame) {
          context.addIssue({ code: 'custom', path: [i, 'frame'], message: 'must be later than the key before it' })
        }
      })
    })
}

/** Whether the ribbon is a ring for a value. */
export const loop = z.boolean().optional()
