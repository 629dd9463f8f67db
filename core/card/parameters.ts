import { z } from 'zod'
import { colourSchema, movableColour, movableLength, movableNumber } from './moving'

// A parameter's definition is the one source for its schema, its control, its help and its range.

interface Described {
  label: string
  /** What it does, with its unit; shown as tooltip and in the docs. */
  help: string
}

export interface NumberParameter extends Described {
  type: 'number'
  default: number
  min: number
  max: number
  step: number
  unit: '' | 'px' | '%' | '°' | '‰'
  /** Range of the slider where the full range would be too coarse. */
  slider?: readonly [number, number]
}

/** A length in px, or in % of the piece (cap height for type, the smaller side for shapes). */
export interface LengthParameter extends Described {
  type: 'length'
  default: number
  min: number
  max: number
  step: number
  slider?: readonly [number, number]
}

export interface ColourParameter extends Described {
  type: 'colour'
  default: string
}

export interface ChoiceParameter<T extends string = string> extends Described {
  type: 'choice'
  default: T
  options: readonly { value: T; label: string }[]
}

export interface ToggleParameter extends Described {
  type: 'toggle'
  default: boolean
}

export interface PaintParameter extends Described {
  type: 'paint'
  default: string
}

export type Parameter =
  NumberParameter | LengthParameter | ColourParameter | ChoiceParameter | ToggleParameter | PaintParameter

export type Parameters = Readonly<Record<string, Parameter>>

export const number = (p: Omit<NumberParameter, 'type'>): NumberParameter => ({ type: 'number', ...p })
export const length = (p: Omit<LengthParameter, 'type'>): LengthParameter => ({ type: 'length', ...p })
export const colour = (p: Omit<ColourParameter, 'type'>): ColourParameter => ({ type: 'colour', ...p })
export const toggle = (p: Omit<ToggleParameter, 'type'>): ToggleParameter => ({ type: 'toggle', ...p })
export const paint = (p: Omit<PaintParameter, 'type'>): PaintParameter => ({ type: 'paint', ...p })
export const choice = <const T extends string>(p: Omit<ChoiceParameter<T>, 'type'>): ChoiceParameter<T> => ({
  type: 'choice',
  ...p,
})

/** Parameters of a gradient; the paint editor and the schema are made from these. */
export const GRADIENT_PARAMETERS = {
  angle: number({
    label: 'Angle',
    help: 'Direction from the first colour to the last, in degrees: 0 is left to right, 90 is upward',
    default: 90,
    min: -36_000,
    max: 36_000,
    step: 1,
    unit: '°',
    slider: [-180, 180],
  }),
  scale: number({
    label: 'Scale',
    help: 'Length of the gradient in % of what the shape spans in its direction',
    default: 100,
    min: 1,
    max: 1000,
    step: 1,
    unit: '%',
    slider: [10, 300],
  }),
  shift: number({
    label: 'Shift',
    help: 'Moves the gradient along its direction, in % of its span',
    default: 0,
    min: -1000,
    max: 1000,
    step: 1,
    unit: '%',
    slider: [-100, 100],
  }),
} as const

export const STOP_PARAMETERS = {
  at: number({
    label: 'Place',
    help: 'Where the colour stands, in % of the gradient',
    default: 0,
    min: 0,
    max: 100,
    step: 1,
    unit: '%',
  }),
  colour: colour({ label: 'Colour', help: 'Colour with opacity, as #RRGGBB or #RRGGBBAA', default: '#FFFFFF' }),
} as const

const ranged = (p: NumberParameter) => movableNumber(p.min, p.max)

export const paintSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('solid'), colour: movableColour }),
  z.strictObject({
    type: z.literal('linear'),
    stops: z
      .array(z.strictObject({ at: ranged(STOP_PARAMETERS.at), colour: movableColour }))
      .min(2)
      .max(64),
    angle: ranged(GRADIENT_PARAMETERS.angle),
    scale: ranged(GRADIENT_PARAMETERS.scale),
    shift: ranged(GRADIENT_PARAMETERS.shift),
    hang: z.enum(['piece', 'card']),
  }),
])

/** What the document may hold for a parameter. */
export function schemaOf(parameter: Parameter): z.ZodType {
  switch (parameter.type) {
    case 'number':
      return movableNumber(parameter.min, parameter.max)
    case 'length':
      return movableLength(parameter.min, parameter.max)
    case 'colour':
      return movableColour
    case 'choice':
      return z.enum(parameter.options.map((option) => option.value) as [string, ...string[]])
    case 'toggle':
      return z.boolean()
    case 'paint':
      return paintSchema
  }
}

/** Schemas of a whole table, each with its default, so that older and hand-written cards may leave values out. */
export function shapeOf(parameters: Parameters): Record<string, z.ZodType> {
  return Object.fromEntries(
    Object.entries(parameters).map(([name, p]) => [
      name,
      schemaOf(p).default(defaultOf(p)).describe(`${p.label}. ${p.help}.`),
    ]),
  )
}

/** The value that a new coat or piece starts with. */
export function defaultOf(parameter: Parameter): string | number | boolean | { type: 'solid'; colour: string } {
  if (parameter.type === 'paint') return { type: 'solid', colour: colourSchema.parse(parameter.default) }
  return parameter.default
}

export const defaultsOf = (parameters: Parameters) =>
  Object.fromEntries(Object.entries(parameters).map(([name, p]) => [name, defaultOf(p)]))
