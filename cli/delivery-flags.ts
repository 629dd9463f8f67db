import { WaxError } from '../core/errors'
import type { Option, OptionName } from '../core/formats/deliveries/option'
import type { RenderOptions } from '../core/formats/deliveries/render-options'
import { expectOptions, SCALES } from '../core/formats/deliveries/render-options'
import { DELIVERIES } from '../core/formats/deliveries/table'

// Options of deliveries as flags of the command line, made from the table.

const everyOption = new Map(DELIVERIES.flatMap(({ options }) => Object.entries(options) as [OptionName, Option][]))

type Flag = { type: 'string' } | { type: 'boolean' }

/** Flags of every option that any delivery has. */
const optionFlags = Object.fromEntries(
  [...everyOption].map(([name, { kind }]) => [name, { type: kind === 'switch' ? 'boolean' : 'string' } satisfies Flag]),
) as Record<OptionName, Flag>

export const DELIVERY_FLAGS = {
  format: { type: 'string', default: 'png' },
  scale: { type: 'string' },
  name: { type: 'string' },
  ...optionFlags,
} as const

/** What was asked for by flags. Throws a WaxError that names the flag which is not to be had. */
export function deliveryWish(
  values: Partial<Record<keyof typeof DELIVERY_FLAGS, string | boolean | number>>,
  range: { from: number; to: number; holds: number },
): RenderOptions {
  const wish: Record<string, unknown> = { format: values.format, ...range }
  if (values.scale !== undefined) wish.scale = scaleIn(String(values.scale))
  if (values.name !== undefined) wish.name = values.name
  for (const [name, option] of everyOption) {
    const value = values[name]
    if (value !== undefined) wish[name] = option.kind === 'choice' ? numberOrWord(String(value)) : value
  }
  try {
    return expectOptions(wish)
  } catch (error) {
    if (!(error instanceof WaxError)) throw error
    const { code, place, message, remedy } = error.fault
    throw new WaxError(code, `--${place}`, message, remedy)
  }
}

const numberOrWord = (text: string): number | string => (/^\d+$/.test(text) ? Number(text) : text)

/** `50%`, `200` or `2`. */
function scaleIn(text: string): number {
  const number = Number(text.replace(/%$/, ''))
  return (SCALES as readonly number[]).includes(number) ? number : number / 100
}

/** One line a flag, for the usage. */
export const flagUsage = (): string =>
  [...everyOption]
    .map(([name, option]) => {
      const takes = option.kind === 'choice' ? ` ${option.choices.map(({ value }) => value).join('|')}` : ''
      const value = { choice: takes, colour: ' #RRGGBB', switch: '', timecode: ' HH:MM:SS:FF' }[option.kind]
      const formats = DELIVERIES.filter(({ options }) => name in options).map(({ format }) => format)
      return `  --${option.kind === 'switch' ? '[no-]' : ''}${name}${value}  ${option.label} (${formats.join(', ')})`
    })
    .join('\n')
