import { isDeepStrictEqual } from 'node:util'
import { eq, inArray, isNotNull, notExists, and, sql } from 'drizzle-orm'
import { readCard } from '../../core/card/read'
import { storedSeal } from '../../core/seals/read'
import { SEALS_VERSION } from '../../core/seals/schema'
import type { Database } from './connect'
import { keepPictureFile } from '../pictures/files'
import { planFor } from '../renders/plan'
import { addPressJob, cut, UNFINISHED } from '../renders/queue/enqueue'
import { faultOf } from '../renders/render-fault'
import { failRender } from '../renders/queue/work-list'
import { cards, pictures, renderRuns, renders, seals } from './schema'

/**
 * Gives cards, seals and renders that an older application saved the form of today, and lays the files of pictures from the database
 * into the storage. A document that cannot be read stays as it is.
 */
export async function bringUpToDate(database: Database, storage: string): Promise<void> {
  await movePictures(database, storage)
  await cutRenders(database)
  // By the database's own text: what it gives back is compared with what would be written.
  for (const { id, text } of await database.select({ id: cards.id, text: sql<string>`document::text` }).from(cards)) {
    const stored: unknown = JSON.parse(text)
    const { card } = readCard(stored)
    if (card && !isDeepStrictEqual(card, stored)) {
      await database.update(cards).set({ document: card }).where(eq(cards.id, id))
    }
  }
  for (const { id, text } of await database.select({ id: seals.id, text: sql<string>`document::text` }).from(seals)) {
    const stored = JSON.parse(text) as Record<string, unknown>
    const seal = storedSeal(stored)
    if (seal && !isDeepStrictEqual({ ...seal, version: SEALS_VERSION }, stored)) {
      await database.update(seals).set({ document: seal }).where(eq(seals.id, id))
    }
  }
}

/** One picture after the other: together they may be larger than the memory. */
async function movePictures(database: Database, storage: string): Promise<void> {
  for (;;) {
    const [row] = await database
      .select({ id: pictures.id, file: pictures.file })
      .from(pictures)
      .where(isNotNull(pictures.file))
      .limit(1)
    if (!row?.file) return
    await keepPictureFile(storage, row.id, row.file)
    await database.update(pictures).set({ file: null }).where(eq(pictures.id, row.id))
  }
}

/** Renders that an older application had in its queue are cut into runs, and begin again. */
async function cutRenders(database: Database): Promise<void> {
  const runs = database
    .select({ one: sql`1` })
    .from(renderRuns)
    .where(eq(renderRuns.renderId, renders.id))
  const whole = await database
    .select()
    .from(renders)
    .where(and(inArray(renders.status, [...UNFINISHED]), notExists(runs)))
  for (const row of whole) {
    const { id, priority } = row
    try {
      const { shown } = planFor(row, { paths: [], stem: '' })
      await database.transaction(async (transaction) => {
        await cut(transaction, id, shown.length)
        await transaction
          .update(renders)
          .set({ status: 'queued', worker: null, attempts: 0, framesDone: 0 })
          .where(eq(renders.id, id))
        await addPressJob(transaction, id, priority)
      })
    } catch (error) {
      await failRender(database, id, faultOf(error))
    }
  }
}
