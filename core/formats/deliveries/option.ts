import { z } from 'zod'
import type { Bits } from '../../kernels/pixel-form'
import type { FootageId } from '../footage'
import { FOOTAGE } from '../footage'

// What can be chosen about a delivery. Each delivery lists the options that it has; dialog, command line, routes and
// documents are made from the list.

/** What was chosen: those options that the delivery has, and no others. */
export interface DeliveryOptions {
  bits?: Bits
  alpha?: 'straight' | 'premultiplied'
  /** A hex colour: what premultiplied colours, or half-clear edges, are laid over. */
  matte?: string
  /** Of the first frame, as SMPTE ST 12-1 writes it; empty for none. */
  timecode?: string
  /** How fill and key are written. */
  codec?: 'prores' | 'png' | 'h264'
  fill?: 'black' | 'straight'
  key?: 'full' | 'legal'
  backdrop?: 'colour' | 'checker' | FootageId
  /** Whether name and timecode are written into the picture. */
  burn?: boolean
  dither?: boolean
}

export type OptionName = keyof DeliveryOptions

interface Described {
  label: string
  help: string
  /** Whether it matters beside what else was chosen. */
  matters?: (options: DeliveryOptions) => boolean
}

export type Option =
  | (Described & {
      kind: 'choice'
      choices: readonly { value: string | number; label: string }[]
      default: string | number
    })
  | (Described & { kind: 'colour'; default: string })
  | (Described & { kind: 'switch'; default: boolean })
  | (Described & { kind: 'timecode'; default: string })

export type OptionTable = Readonly<Partial<Record<OptionName, Option>>>

const choice = (label: string, help: string, choices: readonly (readonly [string | number, string])[]): Option => ({
  kind: 'choice',
  label,
  help,
  choices: choices.map(([value, text]) => ({ value, label: text })),
  default: choices[0]![0],
})

export const INTEGER_BITS = choice('Bits a channel', 'Sixteen where soft light is graded later', [
  [8, '8 bits'],
  [16, '16 bits'],
])

export const FLOAT_BITS = choice('Numbers', 'Half is what compositing programs work in; float keeps the engine’s own', [
  ['half', 'Half, 16 bits'],
  ['float', 'Float, 32 bits'],
])

export const ALPHA = choice('Alpha', 'As the edit expects it: wrongly taken, edges show a dark or bright rim', [
  ['straight', 'Straight'],
  ['premultiplied', 'Premultiplied'],
])

export const MATTE: Option & { kind: 'colour' } = {
  kind: 'colour',
  label: 'Matte colour',
  default: '#000000',
  help: 'What half-clear colours are laid over; the edit must be told the same',
  matters: ({ alpha = 'premultiplied' }) => alpha === 'premultiplied',
}

export const TIMECODE: Option & { kind: 'timecode' } = {
  kind: 'timecode',
  label: 'Timecode at the start',
  default: '',
  help: 'Of the first frame: hours, minutes, seconds and frames, for example 01:00:00:00; a semicolon before the frames drops numbers; empty for none',
}

export const CODEC = choice('Written as', 'What the mixer or playout reads', [
  ['prores', 'ProRes 422 HQ'],
  ['png', 'PNG sequences'],
  ['h264', 'H.264'],
])

export const FILL = choice('Fill', 'Over black: edges already darkened, as a mixer in additive mode wants them', [
  ['black', 'Over black'],
  ['straight', 'Straight'],
])

export const KEY = choice(
  'Key range',
  'Which level of luma stands for solid: legal is 16 to 235 of 8 bits, full 0 to 255',
  [
    ['legal', 'Legal'],
    ['full', 'Full'],
  ],
)

export const BACKDROP = choice('Backdrop', 'What is seen behind the card', [
  ['colour', 'A colour'],
  ['checker', 'Checker'],
  ...FOOTAGE.map(({ id, label }) => [id, `${label}, moving`] as const),
])

export const BURN: Option = {
  kind: 'switch',
  label: 'Name and timecode in the picture',
  default: true,
  help: 'So that whoever looks at it can say which frame is meant',
}

export const DITHER: Option = {
  kind: 'switch',
  label: 'Dither',
  default: true,
  help: 'Scatters 256 colours to stand for more; without, soft parts show steps',
}

/** What an option takes, with its default where nothing was chosen. */
export function schemaOf(option: Option): z.ZodType {
  switch (option.kind) {
    case 'choice':
      return z.literal(option.choices.map(({ value }) => value)).default(option.default)
    case 'colour':
      return z
        .string()
        .regex(/^#[0-9a-f]{6}$/i, 'A colour of six hex digits is expected')
        .default(option.default)
    case 'switch':
      return z.boolean().default(option.default)
    case 'timecode':
      return z
        .string()
        .regex(/^$|^\d{2}:\d{2}:\d{2}[:;]\d{2}$/, 'A timecode such as 01:00:00:00 is expected')
        .default(option.default)
  }
}
