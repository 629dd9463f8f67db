import { mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { pictureFile } from '#server/pictures/files'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { eq, sql } from 'drizzle-orm'
import { migrate } from 'drizzle-orm/postgres-js/migrator'
import { runMigrations } from 'graphile-worker'
import { expectOptions } from '#core/formats/deliveries/render-options'
import { connect } from '#server/database/connect'
import { cards, pictures, renders, seals } from '#server/database/schema'
import { bringUpToDate } from '#server/database/up-to-date'
import { rendersFolder } from '#server/renders/files'
import { releaseStale } from '#server/renders/stale'
import { performRender } from '#server/renders/task'
import { startCluster } from '../../scripts/cluster.mjs'
import { coat, emptyCard, solid, withBox } from '../support/engine'

// What needs a database: renders of workers that both believe they have the work, what killed ones leave behind, and
// documents of an older application.

// PostgreSQL's own user must reach it: below the project, as for the application.
const folder = `.wax/render-task-${process.pid}`
mkdirSync(folder, { recursive: true })
const storage = join(folder, 'storage')
let cluster: Awaited<ReturnType<typeof startCluster>>
let connection: ReturnType<typeof connect>

beforeAll(async () => {
  cluster = await startCluster(join(folder, 'database'))
  connection = connect(cluster.url)
  await migrate(connection.database, { migrationsFolder: 'server/database/migrations' })
  await runMigrations({ connectionString: cluster.url })
})
afterAll(async () => {
  await connection.client.end()
  cluster.stop()
  rmSync(folder, { recursive: true, force: true })
})

const card = withBox(
  { ...emptyCard(320, 180, 40), name: 'Two workers' },
  {
    x: {
      keys: [
        { frame: 0, value: 40 },
        { frame: 39, value: 280 },
      ],
    } as never,
    y: 90,
    width: 60,
    height: 40,
  },
  { face: [coat('fill', 'f', { paint: solid('#F2A33C') })] },
)

async function queued(id: string, values: Partial<typeof renders.$inferInsert> = {}) {
  const options = expectOptions({ format: 'png', from: 0, to: 40 })
  await connection.database
    .insert(renders)
    .values({ id, cardId: 'c', name: card.name, document: card, options, framesTotal: 40, ...values })
}
const rowOf = async (id: string) => (await connection.database.select().from(renders).where(eq(renders.id, id)))[0]!
const filesOf = (id: string) => readdirSync(rendersFolder(storage)).filter((name) => name.startsWith(`${id}.`))
const place = (worker: string) => ({ database: connection.database, storage, threads: 1, worker })

describe('a worker that comes back after another took its render over', () => {
  test('changes neither the row nor the file of the other', async () => {
    await queued('both')
    const first = performRender(place('first'), 'both')
    // Taken: now it is silent for so long that it is given back, as releaseStale does.
    await until(async () => (await rowOf('both')).worker === 'first')
    await connection.database.update(renders).set({ status: 'queued', worker: null }).where(eq(renders.id, 'both'))
    const second = performRender(place('second'), 'both')
    await Promise.all([first, second])
    const row = await rowOf('both')
    expect([row.status, row.attempts, row.files.map(({ stored }) => stored)]).toEqual(['done', 2, ['both.2.file.zip']])
    expect(row.report?.passed).toBe(true)
    expect(filesOf('both')).toEqual(['both.2.file.zip', 'both.2.sidecar.json'])
  })
})

test('a finished render whose last answer was lost keeps its file', async () => {
  const { database } = connection
  let lost = 0
  const update = (table: typeof renders) => ({
    set: (values: Partial<typeof renders.$inferInsert>) => {
      const query = database.update(table).set(values)
      if (values.status !== 'done' || lost > 0) return query
      lost++
      return {
        where: (is: Parameters<typeof query.where>[0]) => ({
          returning: async () => {
            await query.where(is)
            throw new Error('ECONNRESET')
          },
        }),
      }
    },
  })
  const flaky = new Proxy(database, {
    get: (target, name) => (name === 'update' ? update : (Reflect.get(target, name) as unknown)),
  })
  await queued('lost')
  await performRender({ ...place('worker'), database: flaky }, 'lost')
  expect(lost).toBe(1)
  expect([(await rowOf('lost')).status, filesOf('lost')]).toEqual(['done', ['lost.1.file.zip', 'lost.1.sidecar.json']])
})

describe('what killed attempts leave behind', () => {
  const silent = { status: 'running' as const, worker: 'dead', heartbeat: new Date(Date.now() - 60_000) }
  const leave = (...names: string[]) => {
    mkdirSync(rendersFolder(storage), { recursive: true })
    for (const name of names) writeFileSync(join(rendersFolder(storage), name), 'half')
  }

  test('is removed when the render is tried again', async () => {
    await queued('again', { ...silent, attempts: 1 })
    leave('again.1.file.part.zip', 'again.1.file.zip.frames.part')
    await releaseStale(connection.database, storage)
    expect((await rowOf('again')).status).toBe('queued')
    await performRender(place('living'), 'again')
    expect((await rowOf('again')).status).toBe('done')
    expect(filesOf('again')).toEqual(['again.2.file.zip', 'again.2.sidecar.json'])
  })

  test('is removed after the last try too, and the row says why', async () => {
    await queued('over', { ...silent, attempts: 3 })
    leave('over.3.file.part.zip', 'over.3.file.zip.frames.part')
    await releaseStale(connection.database, storage)
    const row = await rowOf('over')
    expect([row.status, row.fault?.code]).toEqual(['failed', 'worker-lost'])
    expect(filesOf('over')).toEqual([])
  })
})

test('documents that an older application saved get the form of today; broken ones stay as they are', async () => {
  const { database } = connection
  // Before ranges and the steps of pieces came, and a seal without tags.
  const [piece] = card.pieces
  const older = Object.fromEntries(Object.entries(piece!).filter(([name]) => name !== 'steps' && name !== 'blurred'))
  const stored = { ...card, pieces: [older] }
  const broken = { format: 'wax-ribbon-card', version: 1, name: 'Broken' }
  for (const [id, document] of Object.entries({ older: stored, today: card, broken })) {
    await database.insert(cards).values({ id, name: id, document: document as never })
  }
  const variants = [{ name: 'v', coats: { face: [{ kind: 'fill', id: 'f' }], behind: [] } }]
  await database.insert(seals).values({ id: 'seal', name: 'Seal', document: { name: 'Seal', variants } as never })
  const file = Buffer.from('not looked into')
  await database.insert(pictures).values({ id: 'picture-old', fileName: 'boat.png', width: 1, height: 1, file })
  await bringUpToDate(database, storage)
  const raw = async (id: string) => {
    const [row] = await database
      .select({ text: sql<string>`document::text` })
      .from(cards)
      .where(eq(cards.id, id))
    return JSON.parse(row!.text) as typeof card
  }
  expect((await raw('older')).pieces[0]).toMatchObject({ steps: 1, blurred: true })
  expect(await raw('broken')).toEqual(broken)
  // Pictures lie in the storage now, under the ids that cards know them by.
  expect(Buffer.from((await pictureFile(storage, 'picture-old'))!).equals(file)).toBe(true)
  expect(await database.select({ file: pictures.file }).from(pictures)).toEqual([{ file: null }])
  const [seal] = await database.select().from(seals).where(eq(seals.id, 'seal'))
  expect(seal!.document.tags).toEqual([])
  expect(seal!.document.variants[0]!.coats.face[0]).toMatchObject({ opacity: 100, on: true })
})

async function until(is: () => Promise<boolean>): Promise<void> {
  for (const end = Date.now() + 20_000; Date.now() < end;) {
    if (await is()) return
    await new Promise((resolve) => setTimeout(resolve, 5))
  }
  throw new Error('It did not come to that.')
}
