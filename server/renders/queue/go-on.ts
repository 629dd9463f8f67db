import { and, eq, inArray, ne } from 'drizzle-orm'
import type { Database } from '../../database/connect'
import { renderRuns, renders } from '../../database/schema'
import { planFor } from '../plan'
import { addPressJob, cut } from './enqueue'
import { withNewTries } from './tries'

/** Puts a render that failed or was cancelled into the queue again. The frames that are done are not made again, as far as they are there. */
export async function goOn(database: Database, id: string): Promise<void> {
  await database.transaction(async (transaction) => {
    const [before] = await transaction
      .select({ status: renders.status })
      .from(renders)
      .where(eq(renders.id, id))
      .for('update')
    const [row] = await transaction
      .update(renders)
      .set({
        ...{ status: 'queued', attempts: withNewTries(renders.attempts), worker: null, heartbeat: null },
        ...{ fault: null, report: null, framesDone: 0, startedAt: null, finishedAt: null },
      })
      .where(and(eq(renders.id, id), inArray(renders.status, ['failed', 'cancelled'])))
      .returning()
    if (!row) return
    // Workers do not give back what was in work when it failed: their runs are open again from here on.
    await transaction
      .update(renderRuns)
      .set({
        ...{ state: 'waiting', worker: null, segment: null, framesDone: 0, heartbeat: null },
        attempts: withNewTries(renderRuns.attempts),
      })
      // Of one that was cancelled nothing is left.
      .where(and(eq(renderRuns.renderId, id), before?.status === 'failed' ? ne(renderRuns.state, 'done') : undefined))
    // One of an application that knew no runs.
    if ((await transaction.$count(renderRuns, eq(renderRuns.renderId, id))) === 0) {
      await cut(transaction, id, planFor(row, { paths: [], stem: '' }).shown.length)
    }
    await addPressJob(transaction, id, row.priority)
  })
}
