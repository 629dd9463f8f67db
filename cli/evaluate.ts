import { parseArgs } from 'node:util'
import { WaxError } from '../core/errors'
import { evaluateCard } from '../core/time/evaluate'
import { expectCardFile } from './card-file'

/** Frames of a year at 60 a second: beyond, numbers have no fractions of frames left. */
const FARTHEST = 2_000_000_000

/** `wax evaluate CARD --frame N`: every parameter's value at that frame, as JSON. */
export async function evaluate(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { frame: { type: 'string', default: '0' } },
  })
  const card = await expectCardFile(positionals[0])
  const frame = Number(values.frame)
  if (values.frame.trim() === '' || !(Math.abs(frame) <= FARTHEST)) {
    throw new WaxError(
      'not-a-number',
      '--frame',
      `“${values.frame}” is no frame.`,
      `Give a number; whole frames start at 0, and go up to ${FARTHEST}.`,
    )
  }
  console.log(JSON.stringify({ card: card.name, frame, parameters: evaluateCard(card, frame) }, null, 2))
  return 0
}
