import { z } from 'zod'
import { WaxError } from '../../errors'
import { DEFAULT_PATTERN, expectPattern } from './file-name'
import type { DeliveryOptions, OptionTable } from './option'
import { schemaOf } from './option'
import type { DeliveryFormat } from './table'
import { DELIVERIES, DELIVERY_FORMATS, deliveryOf } from './table'

/** Of the card's own size; the card is rendered at that size, nothing is resized. */
export const SCALES = [0.5, 1, 2] as const

/** What a person chooses for a render. Frames are half-open: `to` is not rendered. */
export interface RenderOptions extends DeliveryOptions {
  format: DeliveryFormat
  /** Frames of the run that comes of `holds`. */
  from: number
  to: number
  /** How often the hold of a card with zones is played: whole times where it moves. */
  holds: number
  scale: (typeof SCALES)[number]
  /** How its files are named: see file-name.ts. */
  name: string
}

/** As it comes in: what is left out gets its default. */
export type RenderWish = Pick<RenderOptions, 'format' | 'from' | 'to'> & Partial<RenderOptions>

const COMMON = {
  from: z.int().min(0),
  to: z.int().min(1),
  holds: z.number().positive().max(10_000).default(1),
  scale: z.literal([...SCALES]).default(1),
  name: z.string().min(1).max(120).default(DEFAULT_PATTERN),
}

const optionsOf = (options: OptionTable) =>
  Object.fromEntries(Object.entries(options).map(([name, option]) => [name, schemaOf(option)]))

const schemas = DELIVERIES.map(({ format, options }) =>
  z.strictObject({ format: z.literal(format), ...COMMON, ...optionsOf(options) }),
)

/** Options of every delivery, told apart by `format`: each takes its own and no others. */
export const renderOptionsSchema = z.discriminatedUnion(
  'format',
  schemas as unknown as [(typeof schemas)[number]],
) as unknown as z.ZodType<RenderOptions, RenderWish>

/** Throws a WaxError that names the option which is not to be had. */
export function expectOptions(wish: unknown): RenderOptions {
  const read = renderOptionsSchema.safeParse(wish)
  if (!read.success) throw asked(wish, read.error.issues[0]!)
  const { name } = read.data
  expectPattern(name)
  return read.data
}

function asked(wish: unknown, issue: z.core.$ZodIssue): WaxError {
  const format = (wish as { format?: unknown } | null)?.format
  if (!DELIVERY_FORMATS.includes(format as DeliveryFormat)) {
    const named = format === undefined ? 'No format was named.' : `“${String(format)}” is not made here.`
    return new WaxError('unknown-format', 'format', named, `Choose ${listed(DELIVERY_FORMATS)}.`)
  }
  const { label, options } = deliveryOf(format as DeliveryFormat)
  if (issue.code === 'unrecognized_keys') {
    const takes = Object.keys(options)
    return new WaxError(
      'not-allowed',
      issue.keys.join(', '),
      `${label} has no such option.`,
      takes.length > 0 ? `It takes ${listed(takes)}.` : 'Leave it out.',
    )
  }
  const place = issue.path.join('.') || 'options'
  const option = options[place as keyof DeliveryOptions]
  const values = option?.kind === 'choice' ? option.choices.map(({ value }) => String(value)) : []
  return new WaxError(
    'not-allowed',
    place,
    `${issue.message}.`,
    values.length > 0 ? `Choose ${listed(values)}.` : 'Choose it again.',
  )
}

const listed = (words: readonly string[]) =>
  words.length > 1 ? `${words.slice(0, -1).join(', ')} or ${words[words.length - 1]!}` : (words[0] ?? '')
