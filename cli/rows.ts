import { readFile, stat } from 'node:fs/promises'
import { basename, dirname, resolve } from 'node:path'
import { WaxError } from '../core/errors'
import type { Picture } from '../core/paint/pictures'
import type { KnownPicture } from '../core/rosters/kinds/definition'
import { matchFields } from '../core/rosters/matching'
import type { Roster } from '../core/rosters/roster'
import { readRosterText, ROSTER_FORMAT } from '../core/rosters/roster'
import { readTable } from '../core/rosters/table-in'
import { rosterFrom, usesOf } from '../core/rosters/table-to-roster'
import { readOwnPicture } from '../server/pictures/own-picture'
import { bytesOf } from './assets'
import type { OpenedCard } from './card-file'
import type { NamedFiles } from './engine'
import { engineFor } from './engine'

// Rows that commands read beside a card.

/** Rows from a roster file, CSV, TSV or JSON. */
export async function openRows(path: string | undefined, { card }: OpenedCard): Promise<Roster> {
  if (!path) throw new WaxError('no-rows', 'ROWS', 'No file of rows was named.', 'Give a CSV, TSV or JSON file.')
  const bytes = await bytesOf(path, 'roster')
  const text = new TextDecoder().decode(bytes.subarray(0, 4096))
  if (text.includes(`"${ROSTER_FORMAT}"`)) {
    const { document, faults } = readRosterText(await readFile(path, 'utf8'))
    if (document) return document
    const { code, place, message, remedy } = faults[0]!
    throw new WaxError(code, `${path}: ${place}`, message, remedy)
  }
  const table = readTable(bytes, {}, card.fields)
  const made = rosterFrom(basename(path).replace(/\.[a-z]+$/i, ''), table, usesOf(table, card.fields))
  for (const note of [...table.notes, ...made.notes]) console.error(note)
  return made.roster
}

export interface RowPictures {
  known: Record<string, KnownPicture>
  /** By their ids, for the engine. */
  pictures: Map<string, Picture>
}

/** Pictures that cells name: those of the command line and of the card, and files beside the rows. */
export async function picturesOfRows(
  rows: Roster,
  path: string,
  { pictures, card }: OpenedCard,
  files: readonly string[],
) {
  const found: RowPictures = { known: {}, pictures: new Map() }
  const take = async (bytes: Uint8Array, name: string) => {
    const { id, picture } = await readOwnPicture(bytes, name)
    found.pictures.set(id, picture)
    for (const one of [name, id]) found.known[one] = { id, width: picture.width, height: picture.height }
  }
  for (const { bytes, fileName } of pictures) await take(await bytes(), fileName)
  for (const file of files) await take(await bytesOf(file, 'picture'), basename(file))
  const columns = matchFields(card, rows).flatMap(({ field, column }) =>
    field.kind === 'picture' && column ? [column.id] : [],
  )
  for (const name of new Set(rows.rows.flatMap((row) => columns.map((id) => row.cells[id]?.trim() ?? '')))) {
    const file = resolve(dirname(path), name)
    if (name === '' || found.known[name] || !(await isFile(file))) continue
    await take(await bytesOf(file, 'picture'), name)
  }
  return found
}

const isFile = async (path: string) => (await stat(path).catch(() => null))?.isFile() ?? false

/** An engine that has all that a card and its rows show. */
export async function engineForRows(opened: OpenedCard, { pictures }: RowPictures, files: NamedFiles) {
  const withEngine = await engineFor(opened, files)
  await withEngine((engine) => {
    for (const [id, picture] of pictures) engine.pictures.add(id, picture)
  })
  return withEngine
}
