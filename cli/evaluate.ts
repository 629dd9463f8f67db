import { parseArgs } from 'node:util'
import { WaxError } from '../core/errors'
import { evaluateCard } from '../core/time/evaluate'
import { expectCardFile } from './card-file'

/** `wax evaluate CARD --frame N`: every parameter's value at that frame, as JSON. */
export async function evaluate(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { frame: { type: 'string', default: '0' } },
  })
  const card = await expectCardFile(positionals[0])
  const frame = Number(values.frame)
  if (values.frame.trim() === '' || !Number.isFinite(frame)) {
    throw new WaxError(
      'not-a-number',
      '--frame',
      `“${values.frame}” is no frame.`,
      'Give a number; whole frames start at 0.',
    )
  }
  console.log(JSON.stringify({ card: card.name, frame, parameters: evaluateCard(card, frame) }, null, 2))
  return 0
}
