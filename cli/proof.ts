import { basename } from 'node:path'
import { parseArgs } from 'node:util'
import { allPieces } from '../core/card/tree'
import type { Ground } from '../core/judge/proof/grounds'
import type { ProofLine } from '../core/judge/proof/definition'
import { proofOf } from '../core/judge/proof/proof'
import { readOwnPicture } from '../server/pictures/own-picture'
import { bytesOf } from './assets'
import { openCard } from './card-file'
import { engineFor, FILE_OPTIONS } from './engine'

const OPTIONS = {
  json: { type: 'boolean', default: false },
  backdrop: { type: 'string', multiple: true, default: [] as string[] },
  ...FILE_OPTIONS,
} as const

/** `wax proof CARD`: every line of the proof sheet; exit code 1 where one is bad. */
export async function proof(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({ args, allowPositionals: true, options: OPTIONS })
  const opened = await openCard(positionals[0])
  const withEngine = await engineFor(opened, values)
  const own = await Promise.all(values.backdrop.map(groundOf))
  const { passed, lines } = await proofOf(opened.card, withEngine, { own })
  const names = new Map(allPieces(opened.card.pieces).map(({ id, name }) => [id, name]))
  if (values.json) console.log(JSON.stringify({ passed, lines }))
  else for (const line of lines) print(line, names)
  return passed ? 0 : 1
}

/** A still of what the card is for. */
async function groundOf(file: string): Promise<Ground> {
  const { picture, fileName } = await readOwnPicture(await bytesOf(file, 'picture'), basename(file))
  return { label: fileName, over: picture }
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
