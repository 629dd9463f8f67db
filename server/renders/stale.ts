import { and, inArray, lt, or, sql } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { renders } from '../database/schema'
import { removeFiles } from './files'

/** A worker says every second that it lives; after this long without a word it is taken for dead. */
const SILENCE = sql`now() - interval '8 seconds'`
export const MOST_ATTEMPTS = 3

/**
 * Gives renders of dead workers back to the queue, or fails them after the last try; then what they left in the storage is
 * removed. Returns how many.
 */
export async function releaseStale(database: Database, storage: string): Promise<number> {
  const silent = and(inArray(renders.status, ['running', 'checking']), lt(renders.heartbeat, SILENCE))
  const stale = await database.select().from(renders).where(silent)
  for (const { id, worker, attempts } of stale) {
    const over = attempts >= MOST_ATTEMPTS
    const fault = {
      code: 'worker-lost',
      place: 'render worker',
      message: `The render worker stopped ${attempts} times during this render.`,
      remedy: 'Look at its messages where the application was started, then render again.',
    }
    const change = over
      ? { status: 'failed' as const, fault, finishedAt: new Date(), worker: null }
      : { status: 'queued' as const, framesDone: 0, worker: null, heartbeat: null }
    // Only one of several workers may take it: the row must still be silent.
    const taken = await database
      .update(renders)
      .set(change)
      .where(and(inArray(renders.id, [id]), or(silent)))
      .returning({ id: renders.id })
    if (taken.length === 0) continue
    if (over) await removeFiles(storage, id)
    if (worker) await database.execute(sql`select graphile_worker.force_unlock_workers(array[${worker}])`)
  }
  return stale.length
}
