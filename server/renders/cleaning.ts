import { and, eq, inArray, isNotNull, lt, sql } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { renderRuns, renders } from '../database/schema'
import { removeFiles } from './files'

/**
 * The rule by which renders are cleaned away, as the press room shows it: finished ones that are not kept after so many days, and
 * the frames of those that failed, from which they could go on, after so many hours.
 */
export const CLEANING = { days: 30, hours: 24 } as const

/** Cleans by the rule. */
export async function cleanUp(database: Database, storage: string): Promise<void> {
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
