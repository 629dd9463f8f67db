import { join } from 'node:path'
import { mkdirSync, readFileSync } from 'node:fs'
import { beforeAll, describe, expect, test } from '@jest/globals'
import { asc, eq } from 'drizzle-orm'
import { unzipSync } from 'fflate'
import type { Card } from '#core/card/schema'
import { expectOptions } from '#core/formats/deliveries/render-options'
import { addColumn, addRows, setCells } from '#core/rosters/edit'
import { makeField } from '#core/rosters/field-edit'
import { fillCard } from '#core/rosters/fill'
import type { Roster } from '#core/rosters/roster'
import { createRoster } from '#core/rosters/roster'
import { readTable } from '#core/rosters/table-in'
import { heldFrame } from '#core/time/held'
import { renders } from '#server/database/schema'
import { shippedFonts } from '#server/fonts/shipped'
import { batchArchive } from '#server/renders/batch/archive'
import { enqueueBatch } from '#server/renders/batch/enqueue'
import type { BatchWish } from '#server/renders/batch/plan'
import { planBatch } from '#server/renders/batch/plan'
import { rendersFolder } from '#server/renders/files'
import { performPress } from '#server/renders/press/press'
import { goOn } from '#server/renders/queue/go-on'
import { renderFile } from '#server/renders/render-file'
import { runsHere } from '#server/renders/work/here'
import { RunWorker } from '#server/renders/work/run-worker'
import { ownDatabase } from '../support/database'
import { coat, emptyCard, solid, withPiece } from '../support/engine'

// A roster rendered as one job of many files, and as one programme.

const own = ownDatabase('rosters')
const storage = join(own.folder, 'storage')
beforeAll(() => {
  process.env.WAX_DISK_RESERVE = '0'
})

/** A bar that comes in from the left with words on it; nothing moves in the hold. 4 frames in, 4 held, 2 out. */
const design: Card = (() => {
  const base = { ...emptyCard(128, 72, 10), zones: { hold: 4, out: 8 } }
  const keys = [0, 4, 8].map((frame, i) => ({ frame, value: i === 0 ? -40 : 64 }))
  const bar = withPiece(base, 'box' as 'type', { x: { keys, loop: false }, y: 36, width: 100, height: 30 } as object, {
    face: [coat('fill', 'bar-fill', { paint: solid('#1E6B6A') })],
  })
  const words = withPiece(bar, 'type', { wording: 'Your name', font: 'barlow-condensed-bold', size: 16, x: 64, y: 36 })
  return ['type-1/wording', 'box-1/bar-fill/paint/colour', 'hold'].reduce(
    (card, address) => makeField(card, address),
    words,
  )
})()

function crew(
  rows: { name: string; colour?: string; hold?: string; in?: string; out?: string; on?: boolean }[],
): Roster {
  let roster = createRoster('Crew')
  const columns = ['Type', 'Box colour', 'Hold'].map((name) => {
    const added = addColumn(roster, name)
    roster = added.roster
    return added.id
  })
  roster = addRows(roster, rows.length).roster
  return setCells(
    roster,
    rows.flatMap(({ name, colour = '', hold = '', in: from = '', out = '', on = true }, i) => {
      const cells = [name, colour, hold].map((text, x) => ({ row: `row-${i + 1}`, column: columns[x]!, text }))
      const times = [':in', ':out', ':on'].map((column, x) => ({
        ...{ row: `row-${i + 1}`, column },
        text: [from, out, on ? 'on' : 'off'][x]!,
      }))
      return [...cells, ...times]
    }),
  )
}

const wish = (roster: Roster, as: BatchWish['as'] = 'rows', options: object = {}): BatchWish => ({
  card: { id: 'card', name: 'Lower third', revision: 3, document: design },
  roster: { id: 'roster', name: 'Crew', document: roster },
  ...{ rows: null, as, pictures: {} },
  options: expectOptions({ format: 'png', name: '{row}', ...options, from: 0, to: 1 }),
})

async function rendered(job: BatchWish) {
  const { database } = own.connection
  const id = await enqueueBatch(database, job, planBatch(job))
  const source = await runsHere(own.connection, storage, { id: 'hand', name: 'hand', place: 'here', lanes: 1 })
  const worker = new RunWorker(source, 1, () => {})
  const working = worker.work()
  try {
    for (const row of await rowsOf(id)) await performPress({ database, storage, worker: 'presser' }, row.id)
  } finally {
    await worker.stop()
    await working
  }
  return { id, rows: await rowsOf(id) }
}

const rowsOf = (id: string) =>
  own.connection.database.select().from(renders).where(eq(renders.batchId, id)).orderBy(asc(renders.createdAt))

/** Hashes of the frames of a finished render. */
function hashesOf({ sidecar }: { sidecar: string | null }): string[] {
  const text = readFileSync(join(rendersFolder(storage), sidecar!), 'utf8')
  return (JSON.parse(text) as { frames: { made: string[] } }).frames.made
}

/** Hashes of the frames of a card that is rendered alone. */
async function alone(card: Card, name: string): Promise<string[]> {
  mkdirSync(own.folder, { recursive: true })
  const { made } = await renderFile({
    ...{ card, options: { format: 'png', from: 0, to: card.length }, paths: [join(own.folder, name)], stem: 'x' },
    fonts: new Map([['barlow-condensed-bold', (await shippedFonts('barlow-condensed-bold'))!]]),
    threads: 1,
  })
  return made
}

const fill = (cells: Record<string, string>) => fillCard(design, cells).card

describe('rows as files', () => {
  test('each file is what its card is, filled; the hold is as long as its cell says; names are told apart', async () => {
    const roster = crew([
      { name: 'Tam Voss', colour: '#B8324A' },
      { name: 'Tam Voss', hold: '6' },
      { name: 'Left out', on: false },
    ])
    const { rows } = await rendered(wish(roster))
    expect(rows.map(({ status, files }) => [status, files[0]?.name])).toEqual([
      ['done', 'tam-voss.zip'],
      ['done', 'tam-voss-2.zip'],
    ])
    const red = await alone(fill({ 'field-1': 'Tam Voss', 'field-2': '#B8324A' }), 'red.zip')
    const plain = await alone(fill({ 'field-1': 'Tam Voss' }), 'plain.zip')
    expect(hashesOf(rows[0]!)).toEqual(red)
    expect(hashesOf(rows[1]!)).toEqual(Array.from({ length: 12 }, (_, i) => plain[heldFrame(design, i, 6 / 4)]))
    expect(new Set(rows.map(({ take }) => take)).size).toBe(1)
  })

  test('rows whose cells cannot be read are left out and told, the others are rendered', () => {
    const roster = crew([{ name: 'Tam' }, { name: 'Ada', colour: 'sunny' }, { name: 'Ole', in: '5', out: '2' }])
    const { renders: made, leftOut } = planBatch(wish(roster))
    expect(made.map(({ rowName }) => rowName)).toEqual(['Tam'])
    expect(leftOut.map(({ title, fault }) => [title, fault.place, fault.code])).toEqual([
      ['Ada', 'Box colour', 'unreadable-cell'],
      ['Ole', 'out', 'ends-before'],
    ])
    expect(() => planBatch(wish(crew([{ name: 'Ada', colour: 'sunny' }])))).toThrow(
      /No row can be rendered: Box colour/,
    )
    const [still] = planBatch(wish(roster, 'rows', { format: 'still' })).renders
    expect(still).toMatchObject({ frames: 1, options: { from: 6, to: 7 } })
    expect(() => planBatch(wish(crew([])))).toThrow(/no row to render/)
    expect(() => planBatch(wish(roster, 'rows', { name: '{card}' }))).toThrow(/one name/)
  })

  test('lines into which nothing was written are no rows, also where they were chosen', () => {
    const roster = crew([{ name: 'Tam' }, { name: '' }, { name: '  ' }, { name: '', in: '5' }])
    const ids = roster.rows.map(({ id }) => id)
    for (const rows of [null, ids]) {
      const { renders: made, leftOut } = planBatch({ ...wish(roster), rows })
      expect(made.map(({ rowName }) => rowName)).toEqual(['Tam', 'row 4'])
      expect(leftOut).toEqual([])
    }
    expect(() => planBatch(wish(crew([{ name: '' }])))).toThrow(/no row to render/)
  })

  test('one that failed or was cancelled is tried again alone', async () => {
    const { database } = own.connection
    const job = wish(crew([{ name: 'Tam' }, { name: 'Ada' }]))
    const id = await enqueueBatch(database, job, planBatch(job))
    const [first] = await rowsOf(id)
    await database.update(renders).set({ status: 'cancelled' }).where(eq(renders.id, first!.id))
    await goOn(database, first!.id)
    expect((await rowsOf(id)).map(({ status }) => status)).toEqual(['queued', 'queued'])
  })
})

describe('a programme', () => {
  const roster = crew([
    { name: 'Ada Reed', in: '00:00:01:00', out: '00:00:01:15', colour: '#B8324A' },
    { name: 'Tam Voss', in: '00:00:00:10' },
    { name: 'No time' },
  ])

  test('is one file, each row at its place, held until its out, clear between: the bytes of the single files', async () => {
    const { rows } = await rendered(wish(roster, 'programme'))
    expect(rows.map(({ status, framesTotal, rowStart }) => [status, framesTotal, rowStart])).toEqual([['done', 30, 10]])
    const made = hashesOf(rows[0]!)
    const tam = await alone(fill({ 'field-1': 'Tam Voss' }), 'tam.zip')
    const ada = await alone(fill({ 'field-1': 'Ada Reed', 'field-2': '#B8324A' }), 'ada.zip')
    const [clear] = await alone({ ...design, pieces: [], length: 1, zones: null }, 'clear.zip')
    const held = (frames: readonly string[], count: number, holds: number) =>
      Array.from({ length: count }, (_, i) => frames[heldFrame(design, i, holds)])
    expect(made).toEqual([...tam, ...Array<string>(5).fill(clear!), ...held(ada, 15, 9 / 4)])
  })

  test('single files of rows with timecodes carry them, and the archive has report and timeline', async () => {
    const { rows } = await rendered(wish(roster, 'rows', { format: 'movpng' }))
    expect(
      rows.map(({ rowName, rowStart, options, framesTotal }) => [rowName, rowStart, options.timecode, framesTotal]),
    ).toEqual([
      ['Ada Reed', 25, '00:00:01:00', 15],
      ['Tam Voss', 10, '00:00:00:10', 10],
      ['No time', null, '', 10],
    ])
    const leftOut = [
      { row: 'row-9', title: 'Nobody', fault: { code: 'x', place: 'Name', message: 'Gone.', remedy: 'Look.' } },
    ]
    const parts: Buffer[] = []
    const stream = batchArchive({ name: 'Crew', rows, leftOut, place: rendersFolder(storage) })
    for await (const part of stream) parts.push(part as Buffer)
    const files = unzipSync(new Uint8Array(Buffer.concat(parts)))
    expect(Object.keys(files).sort()).toEqual([
      'ada-reed.mov',
      'crew-report.csv',
      'crew.otio',
      'no-time.mov',
      'tam-voss.mov',
    ])
    const report = readTable(files['crew-report.csv']!)
    expect(report.rows.map((cells) => cells.slice(0, 6))).toEqual([
      ['Ada Reed', 'ada-reed.mov', 'done', '15', '0.60', '00:00:01:00'],
      ['Tam Voss', 'tam-voss.mov', 'done', '10', '0.40', '00:00:00:10'],
      ['No time', 'no-time.mov', 'done', '10', '0.40', ''],
      ['Nobody', '', 'left out', '', '', ''],
    ])
    expect(report.rows[3]!.at(-1)).toBe('Name: Gone. Look.')
    const timeline = JSON.parse(Buffer.from(files['crew.otio']!).toString()) as {
      tracks: { children: { children: { OTIO_SCHEMA: string; name: string }[] }[] }
    }
    expect(timeline.tracks.children[0]!.children.map(({ OTIO_SCHEMA, name }) => [OTIO_SCHEMA, name])).toEqual([
      ['Clip.1', 'Tam Voss'],
      ['Gap.1', ''],
      ['Clip.1', 'Ada Reed'],
    ])
  })
})
