import { z } from 'zod'
import { LONGEST_FORMULA } from '../formula'
import { bend, keysOf, loop } from '../keys'
import type { MotorParameter } from './definition'
import { MOTORS } from './table'

/** A motor as the card holds it: its kind, whether it runs, and its own values. */
export interface Motor {
  kind: string
  on: boolean
  [value: string]: unknown
}

function valueSchema(parameter: MotorParameter): z.ZodType {
  switch (parameter.type) {
    case 'number':
    case 'amount': {
      const value = z.number().min(parameter.min).max(parameter.max)
      return parameter.moves ? z.union([value, z.strictObject({ keys: keysOf(value, { bend }), loop })]) : value
    }
    case 'choice':
      return z.enum(parameter.options.map(({ value }) => value) as [string, ...string[]])
    case 'source':
      return z.string().max(200)
    case 'formula':
      return z.string().max(LONGEST_FORMULA)
  }
}

const motorSchemas = MOTORS.map(({ kind, label, help, parameters }) =>
  z
    .strictObject({
      kind: z.literal(kind),
      on: z.boolean().default(true),
      ...Object.fromEntries(
        Object.entries(parameters).map(([name, p]) => [
          name,
          valueSchema(p).default(p.default).describe(`${p.label}. ${p.help}.`),
        ]),
      ),
    })
    .describe(`${label}. ${help}.`),
)

export const MOST_MOTORS = 16

/** The motors of one parameter: each works on what the one before it gives. */
// Zod wants to see that there is one at least.
export const motorsSchema = z
  .array(z.discriminatedUnion('kind', motorSchemas as unknown as [(typeof motorSchemas)[number]]))
  .max(MOST_MOTORS)

/** A new motor with the values that it ships with. */
export function createMotor(kind: string): Motor {
  const { parameters } = MOTORS.find((motor) => motor.kind === kind)!
  return { kind, on: true, ...Object.fromEntries(Object.entries(parameters).map(([name, p]) => [name, p.default])) }
}
