import { parseArgs } from 'node:util'
import { allPieces } from '../core/card/tree'
import type { ProofLine } from '../core/judge/proof/definition'
import { proofOf } from '../core/judge/proof/proof'
import { openCard } from './card-file'
import { engineFor, FILE_OPTIONS } from './engine'

const OPTIONS = { json: { type: 'boolean', default: false }, ...FILE_OPTIONS } as const

/** `wax proof CARD`: every line of the proof sheet; exit code 1 where one is bad. */
export async function proof(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({ args, allowPositionals: true, options: OPTIONS })
  const opened = await openCard(positionals[0])
  const withEngine = await engineFor(opened, values)
  const { passed, lines } = await proofOf(opened.card, withEngine)
  const names = new Map(allPieces(opened.card.pieces).map(({ id, name }) => [id, name]))
  if (values.json) console.log(JSON.stringify({ passed, lines }))
  else for (const line of lines) print(line, names)
  return passed ? 0 : 1
}

const MARKS = { good: 'ok  ', look: 'look', bad: 'BAD ' }

function print({ verdict, label, said, findings }: ProofLine, names: ReadonlyMap<string, string>): void {
  console.log(`${MARKS[verdict]} ${label}: ${said}`)
  for (const { piece, frame, message, remedy } of findings) {
    const place = [piece === null ? '' : (names.get(piece) ?? piece), frame === null ? '' : `frame ${frame}`].filter(
      Boolean,
    )
    console.log(`     ${place.length > 0 ? `${place.join(', ')}: ` : ''}${message} ${remedy}`)
  }
}
