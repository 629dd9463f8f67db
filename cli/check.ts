import { parseArgs } from 'node:util'
import { readCardFile } from './card-file'

/** `wax check CARD`: “valid”, or every fault with its place; exit code 1. */
export async function check(args: string[]): Promise<number> {
  const { positionals } = parseArgs({ args, allowPositionals: true })
  const { faults } = await readCardFile(positionals[0])
  if (!faults) {
    console.log('valid')
    return 0
  }
  for (const { place, message, remedy } of faults) console.log(`${place}: ${message} ${remedy}`)
  return 1
}
