import { and, eq, inArray, isNotNull, lt, notExists, sql } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { batches, renderRuns, renders } from '../database/schema'
import { CLEANING } from './cleaning-rule'
import { removeFiles, removeRead } from './files'

/** Cleans by the rule that the press room shows. */
export async function cleanUp(database: Database, storage: string): Promise<void> {
  await removeRead(storage, CLEANING.hours)
  const old = await database
    .delete(renders)
    .where(
      and(
        inArray(renders.status, ['done', 'failed', 'cancelled']),
        eq(renders.kept, false),
        lt(renders.finishedAt, sql`now() - make_interval(days => ${CLEANING.days}::int)`),
      ),
    )
    .returning({ id: renders.id })
  for (const { id } of old) await removeFiles(storage, id)
  // A job of many files goes with the last of them.
  const left = database.select({ id: renders.id }).from(renders).where(eq(renders.batchId, batches.id))
  if (old.length > 0) await database.delete(batches).where(notExists(left))
  const failed = await database
    .selectDistinct({ id: renders.id })
    .from(renders)
    .innerJoin(renderRuns, eq(renderRuns.renderId, renders.id))
    .where(
      and(
        eq(renders.status, 'failed'),
        isNotNull(renderRuns.segment),
        lt(renders.finishedAt, sql`now() - make_interval(hours => ${CLEANING.hours}::int)`),
      ),
    )
  for (const { id } of failed) {
    // First the rows: what is tried again now begins at its first frame.
    await database
      .update(renderRuns)
      .set({ state: 'waiting', segment: null, framesDone: 0, worker: null })
      .where(eq(renderRuns.renderId, id))
    await removeFiles(storage, id)
  }
}
