import { z } from 'zod'
import { curveSchema } from '../curves/curve'
import { isPathData } from '../outline/svg-path'
import type { StoredPaint } from './moving'
import { colourSchema, movable, movableColour, movableLength, movableNumber } from './moving'
import type { Parameter, Parameters } from './parameter-kinds'
import { paintAs, paintSchema } from './paints'

export * from './parameter-kinds'

/** Pieces that one can be linked to by one value. */
const MOST_LINKED = 32

/** Characters of path data. */
export const LONGEST_PATH = 500_000

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
      return movable(z.boolean())
    case 'paint':
      return paintSchema
    case 'curve':
      return movable(curveSchema)
    case 'text':
      return movable(z.string().max(parameter.longest))
    case 'path':
      return movable(z.string().max(LONGEST_PATH).refine(isPathData, 'is no SVG path data'))
    case 'piece':
      return z.string().max(40).nullable()
    case 'pieces':
      return z.array(z.string().max(40)).max(MOST_LINKED)
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
export function defaultOf(parameter: Parameter): string | number | boolean | null | string[] | StoredPaint {
  if (parameter.type === 'paint') {
    const solid: StoredPaint = { type: 'solid', colour: colourSchema.parse(parameter.default) }
    return parameter.second ? paintAs(solid, 'linear', colourSchema.parse(parameter.second)) : solid
  }
  return parameter.type === 'pieces' ? [...parameter.default] : parameter.default
}

export const defaultsOf = (parameters: Parameters) =>
  Object.fromEntries(Object.entries(parameters).map(([name, p]) => [name, defaultOf(p)]))
