import { pictureFile } from '#server/pictures/files'
import { join } from 'node:path'
import { expect, test } from '@jest/globals'
import { eq, sql } from 'drizzle-orm'
import { expectOptions } from '#core/formats/deliveries/render-options'
import { cards, pictures, renderRuns, renders, seals } from '#server/database/schema'
import { bringUpToDate } from '#server/database/up-to-date'
import { movingBox, ownDatabase } from '../support/database'

// What an older application left in the database.

const own = ownDatabase('older')
const storage = join(own.folder, 'storage')

const card = movingBox()

test('documents that an older application saved get the form of today; broken ones stay as they are', async () => {
  const { database } = own.connection
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
  // Queued when renders were made as a whole, and one that nobody could cut.
  const options = expectOptions({ format: 'png', from: 0, to: 40 })
  const render = { cardId: 'c', name: 'Whole', document: card, options, framesTotal: 40, worker: 'gone' }
  await database.insert(renders).values([
    { ...render, id: 'whole', status: 'running' },
    { ...render, id: 'odd', status: 'queued', options: { ...options, to: 4000 } },
  ])
  await bringUpToDate(database, storage)
  const runs = await database.select().from(renderRuns)
  expect(runs.map(({ renderId, frames }) => [renderId, frames])).toEqual(Array(10).fill(['whole', 4]))
  const rows = await database.select().from(renders).orderBy(renders.id)
  expect(rows.map(({ status, worker, fault }) => [status, worker, fault?.code])).toEqual([
    ['failed', null, 'out-of-range'],
    ['queued', null, undefined],
  ])
  const jobs = await database.execute(sql`select key, task_identifier from graphile_worker.jobs`)
  expect([...jobs]).toEqual([{ key: 'whole', task_identifier: 'press' }])
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
