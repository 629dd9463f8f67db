import { parseArgs } from 'node:util'
import type { Card } from '../core/card/schema'
import { motionFaults } from '../core/judge/motion-faults'
import { readCardFile } from './card-file'

/**
 * `wax check CARD`: “valid”, or every fault with its place; exit code 1. A motor that gives no number, or follows what is not
 * there, is a fault too: the application plays on without it.
 */
export async function check(args: string[]): Promise<number> {
  const { positionals } = parseArgs({ args, allowPositionals: true })
  const { card, faults } = await readCardFile(positionals[0])
  const told = faults ?? motorFaults(card)
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
