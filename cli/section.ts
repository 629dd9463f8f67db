import { parseArgs } from 'node:util'
import { WaxError } from '../core/errors'
import { openCard } from './card-file'
import { engineFor, FILE_OPTIONS } from './engine'

const OPTIONS = {
  piece: { type: 'string' },
  frame: { type: 'string', default: '0' },
  facing: { type: 'string' },
  ...FILE_OPTIONS,
} as const

/** `wax section CARD --piece ID --frame N`: the cross-section of a piece as JSON. */
export async function section(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({ args, allowPositionals: true, options: OPTIONS })
  const opened = await openCard(positionals[0])
  const { card } = opened
  const numbers = [values.frame, values.facing ?? '0'].map(Number)
  if (numbers.some((value) => !Number.isFinite(value))) {
    throw new WaxError('not-a-number', '--frame, --facing', 'A number is expected.', 'Write it as 12 or -30.')
  }
  const withEngine = await engineFor(opened, values)
  const facing = values.facing === undefined ? undefined : Number(values.facing)
  const found = await withEngine((engine) => engine.section(card, values.piece ?? '', Number(values.frame), facing))
  console.log(JSON.stringify(found, (_, value: unknown) => (typeof value === 'number' ? tidy(value) : value)))
  return 0
}

const tidy = (value: number) => Math.round(value * 1e5) / 1e5
