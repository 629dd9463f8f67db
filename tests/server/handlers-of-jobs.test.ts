import { createHash } from 'node:crypto'
import { mkdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeAll, describe, expect, test } from '@jest/globals'
import { eq } from 'drizzle-orm'
import { zipSync } from 'fflate'
import sharp from 'sharp'
import type { Card } from '#core/card/schema'
import { addColumn, addRows, setCells } from '#core/rosters/edit'
import { makeField } from '#core/rosters/field-edit'
import type { Roster } from '#core/rosters/roster'
import { createRoster } from '#core/rosters/roster'
import { renderRuns } from '#server/database/schema'
import { SegmentWriter } from '#server/renders/segment'
import { engineHash } from '#server/renders/work/protocol'
import { movingBox, ownDatabase } from '../support/database'
import { demoCard, withPiece } from '../support/engine'
import { handlersOf } from '../support/handlers'

// Sequences, rosters and the jobs made of them, proofs and workers elsewhere: through the handlers themselves, without a browser.

const own = ownDatabase('handlers-of-jobs')
const ask = handlersOf(['batches', 'cards', 'proofs', 'renders', 'rosters', 'sequences', 'tokens', 'work'], () => ({
  databaseUrl: own.url,
  storage: own.folder,
}))
beforeAll(() => {
  process.env.WAX_DISK_RESERVE = '0'
})

interface Row {
  id: string
  name: string
  revision: number
  status: string
  rows: number
  document: Roster
  data?: { code: string; place: string; remedy: string }
}

test.each([
  ['GET', '/sequences/nothing'],
  ['GET', '/sequences/nothing/about'],
  ['GET', '/sequences/nothing/small'],
  ['GET', '/sequences/nothing/source'],
  ['GET', '/sequences/nothing/pictures/0'],
  ['GET', '/rosters/nothing'],
  ['GET', '/rosters/nothing/csv'],
  ['DELETE', '/rosters/nothing'],
  ['POST', '/rosters/nothing/restore'],
  ['GET', '/batches/nothing'],
  ['GET', '/batches/nothing/timeline'],
  ['GET', '/batches/nothing/archive'],
  ['GET', '/batches/nothing/report'],
  ['DELETE', '/batches/nothing'],
  ['POST', '/batches/nothing/cancel'],
  ['POST', '/batches/nothing/go-on'],
  ['POST', '/batches', { cardId: 'nothing' }],
  ['POST', '/proofs', { cardId: 'nothing' }],
])('%s %s is not found', async (...[method, path, body]: (string | object)[]) => {
  const { status, body: said } = await ask<Row>(method as string, path as string, body)
  expect(status).toBe(404)
  expect(said.data!.remedy).not.toBe('')
})

describe('a sequence', () => {
  /** Three pictures of 6 × 4 px, each of one colour that tells its number. */
  const numbered = async () => {
    const files: Record<string, Uint8Array> = {}
    for (const [i, red] of [40, 120, 200].entries()) {
      const create = { width: 6, height: 4, channels: 4, background: { r: red, g: 10, b: 20, alpha: 1 } } as const
      files[`lanterns_${String(i + 7).padStart(4, '0')}.png`] = await sharp({ create }).png().toBuffer()
    }
    return zipSync(files)
  }
  interface Sequence {
    id: string
    fileName: string
    width: number
    height: number
    frames: number
    there: number
    ended: boolean
    notes: string[]
  }

  test('comes in, is read to its end, and is handed out picture by picture and as it was', async () => {
    const file = await numbered()
    const { body: about } = await ask<Sequence>('POST', '/sequences?name=lanterns.zip', file)
    expect(about).toMatchObject({ fileName: 'lanterns.zip', width: 6, height: 4, frames: 3 })
    const path = `/sequences/${about.id}`
    let read: Sequence
    do read = (await ask<Sequence>('GET', path)).body
    while (!read.ended)
    expect(read).toMatchObject({ stored: 3, there: 3, notes: [] })
    expect((await ask<Sequence[]>('GET', '/sequences')).body).toMatchObject([
      { id: about.id, fileName: 'lanterns.zip' },
    ])
    expect((await ask('GET', `${path}/about`)).body).toMatchObject({ id: about.id, frames: 3 })
    expect((await ask<Buffer>('GET', `${path}/source`)).body.equals(file)).toBe(true)
    for (const [index, red] of [40, 120, 200].entries()) {
      const { body, headers } = await ask<Buffer>('GET', `${path}/pictures/${index}`)
      expect(['x-width', 'x-height', 'x-bits'].map((name) => headers.get(name))).toEqual(['6', '4', '8'])
      expect([...body.subarray(0, 4), body.length]).toEqual([red, 10, 20, 255, 96])
    }
    const shown = await ask<Buffer>('GET', `${path}/pictures/1?across=8`)
    expect(shown.headers.get('content-type')).toBe('image/webp')
    // A small one is made no larger than it is.
    expect((await sharp(shown.body).metadata()).width).toBe(6)
    const { body: small, headers } = await ask<Buffer>('GET', `${path}/small`)
    // Luma and alpha of each picture, a byte a pixel.
    expect(small.length).toBe(3 * 2 * Number(headers.get('x-width')) * Number(headers.get('x-height')))
    const { status, body: beyond } = await ask<Row>('GET', `${path}/pictures/3`)
    expect([status, beyond.data]).toMatchObject([422, { code: 'missing-picture', place: 'picture 3' }])
    // The same file a second time is the same sequence.
    expect((await ask<Sequence>('POST', '/sequences?name=again.zip', file)).body.id).toBe(about.id)
    expect((await ask<Sequence[]>('GET', '/sequences')).body).toHaveLength(1)
  })

  test('that is none is refused and does not stay', async () => {
    const { status, body } = await ask<Row>('POST', '/sequences?name=notes.txt', Buffer.from('no pictures'))
    expect(status).toBe(422)
    expect(body.data).toMatchObject({ place: 'notes.txt' })
    expect((await ask<object[]>('GET', '/sequences')).body.map((one) => (one as Sequence).fileName)).not.toContain(
      'notes.txt',
    )
  })
})

/** A card with a field for its words, 10 frames, and a roster of three rows for it. */
function crew(names: readonly string[] = ['Mara Quill', 'Jonas Reed', 'Ines Low']) {
  const empty = { ...movingBox(), length: 10 }
  const card = makeField(
    withPiece(empty, 'type', { wording: 'Your name', font: 'barlow-condensed-bold', size: 20, x: 60, y: 90 }),
    'type-1/wording',
  )
  const { roster: wide, id } = addColumn(createRoster('Crew'), 'Type')
  const roster = setCells(
    addRows(wide, names.length).roster,
    names.map((text, i) => ({ row: `row-${i + 1}`, column: id, text })),
  )
  return { card, roster }
}

async function onShelf() {
  const { card, roster } = crew()
  const { body: stored } = await ask<Row>('POST', '/cards', { document: card })
  const { body: crewed } = await ask<Row>('POST', '/rosters', { document: roster, cardId: stored.id })
  return { stored, crewed, roster }
}

describe('a roster', () => {
  test('is listed with its rows, goes out as a table, is deleted and comes back', async () => {
    const { crewed, roster } = await onShelf()
    expect(crewed).toMatchObject({ name: 'Crew', revision: 1, document: roster })
    const listed = async () => (await ask<Row[]>('GET', '/rosters')).body.find(({ id }) => id === crewed.id)
    expect(await listed()).toMatchObject({ rows: 3, columns: ['Type'] })
    const { body: table, headers } = await ask<Buffer>('GET', `/rosters/${crewed.id}/csv`)
    expect(headers.get('content-disposition')).toContain('crew.csv')
    expect(table.toString().split(/\r?\n/)[1]).toContain('Mara Quill')
    await ask('DELETE', `/rosters/${crewed.id}`)
    expect(await listed()).toBeUndefined()
    expect((await ask('GET', `/rosters/${crewed.id}`)).status).toBe(404)
    await ask('POST', `/rosters/${crewed.id}/restore`)
    expect((await ask<Row>('GET', `/rosters/${crewed.id}`)).body.document).toEqual(roster)
  })
})

describe('a job of many files', () => {
  const asked = async (about: object = {}) => {
    const { stored, crewed } = await onShelf()
    const sent = { cardId: stored.id, rosterId: crewed.id, options: { format: 'png' }, ...about }
    return ask<Row & { renders: Row[]; total: number }>('POST', '/batches', sent)
  }

  test('has a render for each row, is reported, cancelled, tried again and removed', async () => {
    const { body: job } = await asked()
    const path = `/batches/${job.id}`
    const rows = async () => (await ask<{ renders: Row[] }>('GET', path)).body.renders.map(({ status }) => status)
    expect(await rows()).toEqual(['queued', 'queued', 'queued'])
    expect((await ask<Row[]>('GET', '/batches')).body.map(({ id }) => id)).toContain(job.id)
    const { body: report, headers } = await ask<Buffer>('GET', `${path}/report`)
    expect(headers.get('content-disposition')).toContain('crew-report.csv')
    expect(report.toString()).toMatch(/Mara Quill[\s\S]*Jonas Reed[\s\S]*Ines Low/)
    // Nothing is finished yet, and no row has its place in time.
    expect((await ask('GET', `${path}/archive`)).status).toBe(404)
    expect((await ask('GET', `${path}/timeline`)).status).toBe(404)
    await ask('POST', `${path}/cancel`)
    expect(await rows()).toEqual(['cancelled', 'cancelled', 'cancelled'])
    await ask('POST', `${path}/go-on`)
    expect(await rows()).toEqual(['queued', 'queued', 'queued'])
    expect((await ask('DELETE', path)).body).toEqual({ id: job.id })
    expect((await ask('GET', path)).status).toBe(404)
    const left = (await ask<(Row & { batchId: string | null })[]>('GET', '/renders')).body
    expect(left.filter(({ batchId }) => batchId === job.id)).toEqual([])
  })

  test('takes the rows that were asked for, and none of a revision that nobody looked at', async () => {
    const { body: job } = await asked({ rows: ['row-2'], revision: 1, rosterRevision: 1 })
    const { body } = await ask<{ renders: (Row & { rowName: string })[] }>('GET', `/batches/${job.id}`)
    expect(body.renders.map(({ rowName }) => rowName)).toEqual(['Jonas Reed'])
    for (const [about, place] of [
      [{ revision: 2 }, 'card, revision 1'],
      [{ rosterRevision: 4 }, 'roster, revision 1'],
    ] as const) {
      const { status, body: said } = await asked(about)
      expect([status, said.data]).toMatchObject([409, { code: 'newer-revision', place }])
    }
    expect((await asked({ rows: ['row-9'] })).body.data).toMatchObject({ code: 'no-rows' })
    expect((await asked({ options: { format: 'png', name: 'all' } })).body.data).toMatchObject({ code: 'one-name' })
  })
})

describe('a proof', () => {
  interface Proof {
    lines: { kind: string; state: string; said: string }[]
  }

  test('is of a card of the shelf, of one that is sent, and over the rows of a roster', async () => {
    const document = { ...demoCard('02-lower-third') }
    const { body: stored } = await ask<Row>('POST', '/cards', { document })
    const { status, body } = await ask<Proof>('POST', '/proofs', { cardId: stored.id })
    expect(status).toBe(200)
    // The same card says the same whichever way it comes.
    expect((await ask<Proof>('POST', '/proofs', { document })).body).toEqual(body)
    const { body: none } = await ask<Row>('POST', '/proofs', {
      document: { ...document, frame: { width: -1, height: 9 } },
    })
    expect(none.data!.place).toContain('width')
    const { body: lost } = await ask<Row>('POST', '/proofs', { document, backdrop: 'picture-nothing' })
    expect(lost.data).toMatchObject({ code: 'no-picture', place: 'backdrop' })
  })

  test('tells which row of a roster has words without room', async () => {
    const long = 'A name that is much too long for the width of this card and goes on and on beyond its edge'
    const { card, roster } = crew(['Mara', long])
    const { body: stored } = await ask<Row>('POST', '/rosters', { document: roster, cardId: null })
    const said = JSON.stringify((await ask('POST', '/proofs', { document: card, rosterId: stored.id })).body)
    expect(said).toContain(long.slice(0, 20))
    expect(said).toContain('"row":"row-2"')
    expect(said).not.toContain('"row":"row-1"')
  })
})

describe('a worker elsewhere', () => {
  interface Taken {
    run: { render: string; index: number; attempt: number; frames: number; work: { document: Card } | null } | null
  }
  const PIXELS = Buffer.alloc(320 * 180 * 4 * 2, 7)
  let token = ''
  let engine = ''
  beforeAll(async () => {
    token = (await ask<{ token: string }>('POST', '/tokens', { name: 'Attic' })).body.token
    engine = await engineHash()
  })
  const worker = (values: object = {}) => ({ id: 'attic', name: 'Attic', lanes: 1, engine, ...values })
  const take = (known: string[] = [], values: object = {}) =>
    ask<Taken & Row>('POST', '/work/take', { worker: worker(values), warm: null, known }, token)

  /** The only render there is: others would be taken first. */
  async function render() {
    for (const room of ['renders', 'batches'])
      for (const { id } of (await ask<Row[]>('GET', `/${room}`)).body) await ask('DELETE', `/${room}/${id}`)
    const { body: card } = await ask<Row>('POST', '/cards', { document: movingBox() })
    const options = { format: 'png', from: 0, to: 4 }
    return (await ask<Row>('POST', '/renders', { cardId: card.id, options })).body
  }

  async function segment(frames: number): Promise<Buffer> {
    mkdirSync(own.folder, { recursive: true })
    const path = join(own.folder, 'sent.segment')
    const writer = await SegmentWriter.create(path)
    for (let frame = 0; frame < frames; frame++) await writer.add(frame, PIXELS)
    await writer.close()
    return readFileSync(path)
  }
  const hashOf = (bytes: Uint8Array) => createHash('blake2b512').update(bytes).digest('hex')
  const send = (run: NonNullable<Taken['run']>, bytes: Uint8Array, hash = hashOf(bytes), by = 'attic') =>
    ask<{ own: boolean } & Row>(
      'PUT',
      `/work/runs/${run.render}/${run.index}/segment?worker=${by}&attempt=${run.attempt}&hash=${hash}`,
      bytes,
      token,
    )

  test('is let in with a token and the engine of this server, and by nothing less', async () => {
    const about = { worker: worker(), warm: null, known: [] }
    for (const wrong of [undefined, 'wax-wrong']) {
      const { status, body } = await ask<Row>('POST', '/work/take', about, wrong)
      expect([status, body.data]).toMatchObject([401, { code: 'wrong-token' }])
    }
    const other = await take([], { engine: 'older' })
    expect([other.status, other.body.data]).toMatchObject([409, { code: 'other-version' }])
    expect((await take([], { lanes: 0 })).body.data!.place).toContain('lanes')
  })

  test('takes a run with its card once, says how far it is, and brings it', async () => {
    const { id } = await render()
    const { run } = (await take()).body
    expect(run).toMatchObject({ render: id, index: 0, work: { document: { name: 'Two workers' } } })
    // Nothing else waits.
    expect((await take([id])).body.run).toBeNull()
    const beat = async (attempt: number) =>
      (
        await ask<{ lost: object[] }>(
          'POST',
          '/work/beat',
          { worker: worker(), runs: [{ render: id, index: 0, attempt, framesDone: 1 }] },
          token,
        )
      ).body.lost
    expect(await beat(run!.attempt)).toEqual([])
    expect(await beat(run!.attempt + 1)).toHaveLength(1)
    const bytes = await segment(4)
    // What arrives otherwise than it was sent, what is no segment, and what nobody asked for stays out.
    expect((await send(run!, bytes, hashOf(PIXELS))).body.data).toMatchObject({ code: 'damaged' })
    expect((await send(run!, PIXELS)).body.data).toMatchObject({ code: 'damaged' })
    expect((await send({ ...run!, attempt: run!.attempt + 1 }, bytes)).body).toEqual({ own: false })
    expect((await send(run!, bytes, hashOf(bytes), 'cellar')).body).toEqual({ own: false })
    expect((await send(run!, bytes)).body).toEqual({ own: true })
    expect((await send(run!, bytes)).body).toEqual({ own: false })
    const runs = await own.connection.database.select().from(renderRuns).where(eq(renderRuns.renderId, id))
    expect(runs).toMatchObject([{ state: 'done', frames: 4, framesDone: 4, worker: 'attic' }])
  })

  test('gives a run back, and the next one takes it without being sent the card again', async () => {
    const { id } = await render()
    const first = (await take()).body.run!
    await ask('POST', '/work/give-back', { worker: 'attic', run: first }, token)
    const again = (await take([id])).body.run!
    expect(again).toMatchObject({ render: id, index: 0, work: null })
    expect(again.attempt).not.toBe(first.attempt)
  })

  test('says what a run failed by, and so does the render', async () => {
    const { id } = await render()
    const run = (await take()).body.run!
    const fault = { code: 'odd', place: 'frame 2', message: 'It cannot be.', remedy: 'Change it.' }
    await ask('POST', '/work/fault', { worker: 'attic', run, fault, isFinal: true }, token)
    expect((await ask('GET', `/renders/${id}`)).body).toMatchObject({ status: 'failed', fault })
    await ask('POST', `/renders/${id}/go-on`)
    expect((await ask<Row>('GET', `/renders/${id}`)).body.status).toBe('queued')
  })
})
