import { readFile } from 'node:fs/promises'
import { parseArgs } from 'node:util'
import type { Card } from '../core/card/schema'
import type { Fault } from '../core/errors'
import { finishFaults } from '../core/judge/finish-faults'
import { formFaults } from '../core/judge/form-faults'
import { holdFaults } from '../core/judge/hold-faults'
import { motionFaults } from '../core/judge/motion-faults'
import { ROSTER_FORMAT, readRosterText } from '../core/rosters/roster'
import { readSealsText } from '../core/seals/read'
import { SEALS_FORMAT } from '../core/seals/schema'
import { readCardFile, sizeOf } from './card-file'

/**
 * `wax check FILE`: “valid”, or every fault with its place; exit code 1. Of a card, a set of seals or a roster. A motor that gives no
 * number, or follows what is not there, is a fault too, and so are finishes, outline steps and links that do nothing: the application
 * plays on without them.
 */
export async function check(args: string[]): Promise<number> {
  const { positionals } = parseArgs({ args, allowPositionals: true })
  const told = await faultsIn(positionals[0])
  if (told.length === 0) {
    console.log('valid')
    return 0
  }
  for (const { place, message, remedy } of told) console.log(`${place}: ${message} ${remedy}`)
  return 1
}

type Told = Pick<Fault, 'place' | 'message' | 'remedy'>

/** Files of our own beside cards, told by what they say they are. */
const OTHERS: Readonly<Record<string, (text: string) => { faults: Fault[] | null }>> = {
  [SEALS_FORMAT]: readSealsText,
  [ROSTER_FORMAT]: readRosterText,
}
/** Characters at the beginning of a file in which it says what it is. */
const TELLING = 400

async function faultsIn(path: string | undefined): Promise<Told[]> {
  if (path?.toLowerCase().endsWith('.json')) {
    await sizeOf(path)
    const text = await readFile(path, 'utf8')
    const format = /"format"\s*:\s*"([\w-]+)"/.exec(text.slice(0, TELLING))?.[1] ?? ''
    if (Object.hasOwn(OTHERS, format)) return OTHERS[format]!(text).faults ?? []
  }
  const { card, faults } = await readCardFile(path)
  return faults ?? [...motorFaults(card), ...passedOver(card)]
}

const motorFaults = (card: Card) =>
  motionFaults(card).flatMap(({ address, motor, message, remedy }) =>
    motor === null ? [] : [{ place: `${address}/motors/${motor}`, message, remedy }],
  )

/** Finishes, steps and links that are passed over. */
const passedOver = (card: Card) =>
  [...finishFaults(card), ...formFaults(card), ...holdFaults(card)].map(({ address, message, remedy }) => ({
    ...{ place: address, message, remedy },
  }))
