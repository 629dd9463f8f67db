import type { Movable } from '../values/moving'
import { number, toggle } from '../values/parameter-kinds'

// Axes of variable fonts as values that move.

/** Registered axes by the names that the OpenType standard gives them (OpenType 1.9, Design-Variation Axis Tag Registry). */
export const AXIS_NAMES: Readonly<Record<string, string>> = {
  wght: 'Weight',
  wdth: 'Width',
  slnt: 'Slant',
  ital: 'Italic',
  opsz: 'Optical size',
}

export const AXIS_PARAMETERS = {
  value: number({
    label: 'Value',
    help: 'Where the font stands on this axis, in its own unit; the font keeps it within what it has',
    ...({ default: 400, min: -10_000, max: 10_000, step: 1, unit: '' } as const),
  }),
  on: toggle({ label: 'Shown', help: 'Whether the axis is set; the font has its own standard else', default: true }),
} as const

/** One axis of a type piece, as the document holds it. */
export interface TypeAxis {
  id: string
  /** Four letters. */
  tag: string
  on: Movable<boolean>
  value: Movable<number>
}

export const MOST_AXES = 16
export const AXIS_TAG = /^[A-Za-z0-9 ]{4}$/
