import { parseArgs } from 'node:util'
import type { Card } from '../core/card/schema'
import { finishFaults } from '../core/judge/finish-faults'
import { formFaults } from '../core/judge/form-faults'
import { holdFaults } from '../core/judge/hold-faults'
import { motionFaults } from '../core/judge/motion-faults'
import { readCardFile } from './card-file'

/**
 * `wax check CARD`: “valid”, or every fault with its place; exit code 1. A motor that gives no number, or follows what is not
 * there, is a fault too, and so are finishes, outline steps and links that do nothing: the application plays on without them.
 */
export async function check(args: string[]): Promise<number> {
  const { positionals } = parseArgs({ args, allowPositionals: true })
  const { card, faults } = await readCardFile(positionals[0])
  const told = faults ?? [...motorFaults(card), ...passedOver(card)]
  if (told.length === 0) {
    console.log('valid')
    return 0
  }
  for (const { place, message, remedy } of told) console.log(`${place}: ${message} ${remedy}`)
  return 1
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
