import { basename } from 'node:path'
import { parseArgs } from 'node:util'
import { allPieces } from '../core/card/tree'
import type { Ground } from '../core/judge/proof/grounds'
import type { ProofLine } from '../core/judge/proof/definition'
import { proofOf } from '../core/judge/proof/proof'
import { proofRows } from '../core/rosters/proof-rows'
import { broughtBy } from '../core/rosters/fill'
import { readOwnPicture } from '../server/pictures/own-picture'
import { bytesOf } from './assets'
import type { OpenedCard } from './card-file'
import { openCard } from './card-file'
import type { NamedFiles } from './engine'
import { engineFor, FILE_OPTIONS } from './engine'
import { engineForRows, openRows, picturesOfRows } from './rows'

const OPTIONS = {
  json: { type: 'boolean', default: false },
  roster: { type: 'string' },
  backdrop: { type: 'string', multiple: true, default: [] as string[] },
  ...FILE_OPTIONS,
} as const

/** `wax proof CARD`: every line of the proof sheet, with --roster FILE also for all of its rows; exit code 1 where one is bad. */
export async function proof(args: string[]): Promise<number> {
  const { values, positionals } = parseArgs({ args, allowPositionals: true, options: OPTIONS })
  const opened = await openCard(positionals[0])
  const own = await Promise.all(values.backdrop.map(groundOf))
  const { withEngine, rows } = await withRows(opened, values)
  const { passed, lines } = await proofOf(opened.card, withEngine, { own, rows })
  const names = new Map(allPieces(opened.card.pieces).map(({ id, name }) => [id, name]))
  if (values.json) console.log(JSON.stringify({ passed, lines }))
  else for (const line of lines) print(line, names)
  return passed ? 0 : 1
}

/** An engine for the card, and for the rows that are to be proved with it. */
async function withRows(opened: OpenedCard, { roster: file, ...files }: NamedFiles & { roster?: string }) {
  if (file === undefined) return { withEngine: await engineFor(opened, files), rows: [] }
  const roster = await openRows(file, opened)
  const pictures = await picturesOfRows(roster, file, opened, files.picture)
  const rows = proofRows(opened.card, roster, broughtBy(pictures.known))
  return { withEngine: await engineForRows(opened, pictures, files), rows }
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
