import { mkdir, readFile, stat, writeFile } from 'node:fs/promises'
import { availableParallelism } from 'node:os'
import { basename, dirname, join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { WaxError } from '../core/errors'
import { fileNameOf, nameFrom } from '../core/formats/deliveries/file-name'
import { deliveryOf } from '../core/formats/deliveries/table'
import { fileStem } from '../core/formats/file-stem'
import type { Picture } from '../core/paint/pictures'
import type { RowFlag } from '../core/judge/row/look'
import { lookAtRow } from '../core/judge/row/look'
import { roomsOf } from '../core/judge/row/rooms'
import type { KnownPicture } from '../core/rosters/kinds/definition'
import { timelineOf } from '../core/rosters/otio'
import type { Roster } from '../core/rosters/roster'
import { readRosterText, ROSTER_FORMAT } from '../core/rosters/roster'
import { RowCards } from '../core/rosters/rows'
import { readTable } from '../core/rosters/table-in'
import { csvOf } from '../core/rosters/table-out'
import { rosterFrom, usesOf } from '../core/rosters/table-to-roster'
import { readTimecode, timecode } from '../core/time/timecode'
import { readOwnPicture } from '../server/pictures/own-picture'
import type { PlannedBatch } from '../server/renders/batch/plan'
import { planBatch } from '../server/renders/batch/plan'
import { faultOf } from '../server/renders/render-fault'
import { renderFile } from '../server/renders/render-file'
import { allFonts, allPictures, bytesOf } from './assets'
import type { OpenedCard } from './card-file'
import { openCard } from './card-file'
import { DELIVERY_FLAGS, deliveryWish } from './delivery-flags'
import { engineFor, FILE_OPTIONS } from './engine'
import { allSequences } from './sequences'

const OPTIONS = {
  out: { type: 'string' },
  look: { type: 'boolean', default: false },
  json: { type: 'boolean', default: false },
  programme: { type: 'boolean', default: false },
  threads: { type: 'string' },
  ...DELIVERY_FLAGS,
  ...FILE_OPTIONS,
} as const

type Values = ReturnType<typeof parsed>['values']
const parsed = (args: string[]) => parseArgs({ args, allowPositionals: true, allowNegative: true, options: OPTIONS })

/**
 * `wax roster CARD ROWS --out FOLDER …`: a file for each row, or with --programme one for all that have timecodes; beside them a report
 * and, where there are timecodes, an .otio file. `--look` tells what is wrong with the rows instead. Exit code 1 where a row is not made.
 */
export async function roster(args: string[]): Promise<number> {
  const { values, positionals } = parsed(args)
  const opened = await openCard(positionals[0])
  const rows = await openRows(positionals[1], opened)
  const pictures = await picturesOfRows(rows, positionals[1]!, opened, values.picture)
  return values.look ? lookAt(opened, rows, pictures, values) : renderRows(opened, rows, pictures, values)
}

/** Rows from a roster file, CSV, TSV or JSON. */
async function openRows(path: string | undefined, { card }: OpenedCard): Promise<Roster> {
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

interface RowPictures {
  known: Record<string, KnownPicture>
  /** By their ids, for the engine. */
  pictures: Map<string, Picture>
}

/** Pictures that cells name: those of the command line and of the card, and files beside the rows. */
async function picturesOfRows(rows: Roster, path: string, { pictures, card }: OpenedCard, files: readonly string[]) {
  const found: RowPictures = { known: {}, pictures: new Map() }
  const take = async (bytes: Uint8Array, name: string) => {
    const { id, picture } = await readOwnPicture(bytes, name)
    found.pictures.set(id, picture)
    for (const one of [name, id]) found.known[one] = { id, width: picture.width, height: picture.height }
  }
  for (const { file, fileName } of pictures) await take(file, fileName)
  for (const file of files) await take(await bytesOf(file, 'picture'), basename(file))
  const { matches } = new RowCards(card, rows, { picture: () => null })
  const columns = matches.flatMap(({ field, column }) => (field.kind === 'picture' && column ? [column.id] : []))
  for (const name of new Set(rows.rows.flatMap((row) => columns.map((id) => row.cells[id]?.trim() ?? '')))) {
    const file = resolve(dirname(path), name)
    if (name === '' || found.known[name] || !(await isFile(file))) continue
    await take(await bytesOf(file, 'picture'), name)
  }
  return found
}

const isFile = async (path: string) => (await stat(path).catch(() => null))?.isFile() ?? false

const brought = (known: Record<string, KnownPicture>) => ({ picture: (name: string) => known[name] ?? null })

/** What is wrong with the rows, by their cells and by what the engine makes of them. */
async function lookAt(
  opened: OpenedCard,
  rows: Roster,
  { known, pictures }: RowPictures,
  values: Values,
): Promise<number> {
  const cards = new RowCards(opened.card, rows, brought(known))
  const withEngine = await engineFor(opened, values)
  await withEngine((engine) => {
    for (const [id, picture] of pictures) engine.pictures.add(id, picture)
  })
  const rooms = await roomsOf(opened.card, withEngine)
  const found = []
  for (const row of rows.rows.filter(({ on }) => on)) {
    const { title, card, holds, faults } = cards.of(row)
    const flags: RowFlag[] = await lookAtRow({ card, rooms, holds }, withEngine)
    found.push({ row: title, faults, flags })
    if (values.json) continue
    for (const { place, message, remedy } of faults) console.log(`${title}: ${place}: ${message} ${remedy}`)
    for (const { check, message, remedy } of flags) console.log(`${title}: ${check}: ${message} ${remedy}`)
  }
  const wrong = found.filter(({ faults, flags }) => faults.length + flags.length > 0).length
  if (values.json) console.log(JSON.stringify(found))
  else console.log(`${found.length} rows looked at, ${wrong} with something to say`)
  return wrong > 0 ? 1 : 0
}

async function renderRows(opened: OpenedCard, rows: Roster, pictures: RowPictures, values: Values): Promise<number> {
  const { card } = opened
  if (!values.out) throw new WaxError('no-path', '--out', 'No folder was named.', 'Give one with --out.')
  const options = deliveryWish({ ...values, name: values.name ?? '{row}' }, { from: 0, to: 1, holds: 1 })
  const planned = planBatch({
    card: { id: '', name: card.name, revision: 1, document: card },
    roster: { id: '', name: rows.name, document: rows },
    ...{ rows: null, as: values.programme ? 'programme' : 'rows', options, pictures: pictures.known },
  })
  const folder = resolve(values.out)
  await mkdir(folder, { recursive: true })
  const results: RowResult[] = []
  for (const [at, render] of planned.renders.entries()) {
    const stem = nameFrom(options.name, { card: card.name, row: render.rowName ?? '', take: 1 })
    const files = deliveryOf(options.format)
      .files(options)
      .map((file) => fileNameOf(stem, file))
    console.error(`${at + 1} of ${planned.renders.length}: ${render.rowName}`)
    results.push({
      render,
      files,
      fault: await made(
        opened,
        render,
        files.map((name) => join(folder, name)),
        pictures,
        values,
      ),
    })
  }
  await writeFile(join(folder, `${fileStem(rows.name)}-report.csv`), reportOf(results, planned))
  const timeline = timelineOfFiles(rows.name, results)
  if (timeline) await writeFile(join(folder, `${fileStem(rows.name)}.otio`), `${JSON.stringify(timeline, null, 1)}\n`)
  for (const { title, fault } of planned.leftOut)
    console.error(`left out: ${title}: ${fault.place}: ${fault.message} ${fault.remedy}`)
  const failed = results.filter(({ fault }) => fault !== null)
  for (const { render, fault } of failed) console.error(`failed: ${render.rowName}: ${fault}`)
  console.log(`${results.length - failed.length} made, ${failed.length} failed, ${planned.leftOut.length} left out`)
  return failed.length + planned.leftOut.length > 0 ? 1 : 0
}

type PlannedRender = PlannedBatch['renders'][number]

interface RowResult {
  render: PlannedRender
  files: string[]
  /** What went wrong; null where its files are checked. */
  fault: string | null
}

async function made(
  opened: OpenedCard,
  { document, programme = null, options }: PlannedRender,
  paths: readonly string[],
  { pictures }: RowPictures,
  values: Values,
): Promise<string | null> {
  try {
    const { report } = await renderFile({
      ...{ card: document, programme, options, paths },
      fonts: await allFonts(opened, values.font),
      // Its rows may show other pictures than the card.
      pictures: new Map([...(await allPictures(opened, values.picture)), ...pictures]),
      sequences: await allSequences(opened, values.sequence),
      stem: basename(paths[0]!).replace(/\.[a-z0-9]+$/i, ''),
      threads: values.threads ? Math.max(1, Number(values.threads) || 1) : availableParallelism(),
      onProgress: () => {},
    })
    const wrong = report.checks.find(({ passed }) => !passed)
    return wrong ? `${wrong.label}: ${wrong.found} instead of ${wrong.expected}` : null
  } catch (error) {
    const { message, remedy } = faultOf(error)
    return `${message} ${remedy}`
  }
}

const startOf = ({ rowStart, document }: PlannedRender) =>
  rowStart === null || rowStart === undefined ? '' : timecode(rowStart, document.rate)

const reportOf = (results: readonly RowResult[], { leftOut }: PlannedBatch): string =>
  csvOf([
    ['Row', 'File', 'State', 'Frames', 'In', 'What is wrong'],
    ...results.map(({ render, files, fault }) => [
      ...[render.rowName ?? '', files.join(' + '), fault === null ? 'done' : 'failed'],
      ...[String(render.frames), startOf(render), fault ?? ''],
    ]),
    ...leftOut.map(({ title, fault: { place, message, remedy } }) => [
      ...[title, '', 'left out', '', '', `${place}: ${message} ${remedy}`],
    ]),
  ])

function timelineOfFiles(name: string, results: readonly RowResult[]): object | null {
  const placed = results
    .filter(({ render, fault }) => fault === null && startOf(render) !== '')
    .sort((a, b) => a.render.rowStart! - b.render.rowStart!)
  const [first] = placed
  if (!first) return null
  const { rate } = first.render.document
  const entries = placed.map(({ render: { rowName, rowStart, frames, options }, files }) => ({
    ...{ name: rowName ?? '', file: files[0]!, start: rowStart!, frames, note: '' },
    mediaStart: options.timecode ? readTimecode(options.timecode, rate) : 0,
  }))
  return timelineOf({ name, rate, entries })
}
