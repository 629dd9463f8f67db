import { mkdir, writeFile } from 'node:fs/promises'
import { availableParallelism } from 'node:os'
import { basename, join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { WaxError } from '../core/errors'
import { fileNameOf, nameFrom } from '../core/formats/deliveries/file-name'
import { deliveryOf } from '../core/formats/deliveries/table'
import { fileStem } from '../core/formats/file-stem'
import { lookAtRow } from '../core/judge/row/look'
import { roomsOf } from '../core/judge/row/rooms'
import { broughtBy } from '../core/rosters/fill'
import type { MadeRow } from '../core/rosters/report'
import { rowReport, rowTimeline } from '../core/rosters/report'
import type { Roster } from '../core/rosters/roster'
import { isRendered } from '../core/rosters/roster'
import { RowCards } from '../core/rosters/rows'
import type { PlannedBatch } from '../server/renders/batch/plan'
import { planBatch } from '../server/renders/batch/plan'
import { faultOf } from '../server/renders/render-fault'
import { renderFile } from '../server/renders/render-file'
import { allFonts, allPictures } from './assets'
import type { OpenedCard } from './card-file'
import { openCard } from './card-file'
import { DELIVERY_FLAGS, deliveryWish } from './delivery-flags'
import { FILE_OPTIONS } from './engine'
import type { RowPictures } from './rows'
import { engineForRows, openRows, picturesOfRows } from './rows'
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

/** What is wrong with the rows, by their cells and by what the engine makes of them. */
async function lookAt(opened: OpenedCard, rows: Roster, pictures: RowPictures, values: Values): Promise<number> {
  const cards = new RowCards(opened.card, rows, broughtBy(pictures.known))
  const withEngine = await engineForRows(opened, pictures, values)
  const rooms = await roomsOf(opened.card, withEngine)
  const found = []
  for (const row of rows.rows.filter(isRendered)) {
    const { title, card, holds, faults } = cards.of(row)
    const flags = await lookAtRow({ card, rooms, holds }, withEngine)
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
  const results: MadeRow[] = []
  for (const [at, render] of planned.renders.entries()) {
    const stem = nameFrom(options.name, { card: card.name, row: render.rowName ?? '', take: 1 })
    const files = deliveryOf(options.format)
      .files(options)
      .map((file) => fileNameOf(stem, file))
    console.error(`${at + 1} of ${planned.renders.length}: ${render.rowName}`)
    const paths = files.map((name) => join(folder, name))
    const wrong = await faultOfMaking(opened, render, paths, pictures, values)
    results.push({
      ...{ row: render.rowName ?? '', files, frames: render.frames, rate: render.document.rate, wrong },
      ...{ start: render.rowStart ?? null, timecode: render.options.timecode ?? null },
      ...{ state: wrong === '' ? 'done' : 'failed', passed: wrong === '' },
    })
  }
  const stem = join(folder, fileStem(rows.name))
  await writeFile(`${stem}-report.csv`, rowReport(results, planned.leftOut))
  const timeline = rowTimeline(rows.name, results)
  if (timeline) await writeFile(`${stem}.otio`, `${JSON.stringify(timeline, null, 1)}\n`)
  for (const { title, fault } of planned.leftOut)
    console.error(`left out: ${title}: ${fault.place}: ${fault.message} ${fault.remedy}`)
  const failed = results.filter(({ state }) => state === 'failed')
  for (const { row, wrong } of failed) console.error(`failed: ${row}: ${wrong}`)
  console.log(`${results.length - failed.length} made, ${failed.length} failed, ${planned.leftOut.length} left out`)
  return failed.length + planned.leftOut.length > 0 ? 1 : 0
}

type PlannedRender = PlannedBatch['renders'][number]

/** What went wrong with a row; empty where its files are made and checked. */
async function faultOfMaking(
  opened: OpenedCard,
  { document, programme = null, options }: PlannedRender,
  paths: readonly string[],
  { pictures }: RowPictures,
  values: Values,
): Promise<string> {
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
    return wrong ? `${wrong.label}: ${wrong.found} instead of ${wrong.expected}` : ''
  } catch (error) {
    const { message, remedy } = faultOf(error)
    return `${message} ${remedy}`
  }
}
