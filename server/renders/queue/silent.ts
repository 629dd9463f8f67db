import { and, eq, inArray, isNotNull, isNull, lt, notExists, sql } from 'drizzle-orm'
import type { Fault } from '../../../core/errors'
import type { Database } from '../../database/connect'
import { renderRuns, renders } from '../../database/schema'
import { addPressJob, UNFINISHED, WORK_CHANNEL } from './enqueue'
import { isLastTry } from './tries'
import { failRender } from './work-list'

/** Workers say every second that they live; after this long without a word one is taken for dead. */
const SILENCE = sql`now() - interval '8 seconds'`

/** Hands on what dead workers left: their runs, and the renders that they pressed. What three have died of is given up. */
export async function releaseSilent(database: Database): Promise<void> {
  await releaseRuns(database)
  await releasePresses(database)
  await missingJobs(database)
}

async function releaseRuns(database: Database): Promise<void> {
  const silent = and(eq(renderRuns.state, 'running'), lt(renderRuns.heartbeat, SILENCE))
  // Only one of several that look may release them: a row must still be silent.
  const released = await database
    .update(renderRuns)
    .set({ state: 'waiting', worker: null, framesDone: 0, heartbeat: null })
    .where(silent)
    .returning({ render: renderRuns.renderId, attempts: renderRuns.attempts })
  for (const { render, attempts } of released) {
    if (isLastTry(attempts)) await failRender(database, render, lost(attempts))
  }
  if (released.length > 0) await database.execute(sql`select pg_notify(${WORK_CHANNEL}, '')`)
}

async function releasePresses(database: Database): Promise<void> {
  const silent = and(
    inArray(renders.status, [...UNFINISHED]),
    isNotNull(renders.worker),
    lt(renders.heartbeat, SILENCE),
  )
  const found = await database
    .select({ id: renders.id, worker: renders.worker, attempts: renders.attempts })
    .from(renders)
    .where(silent)
  for (const { id, worker, attempts } of found) {
    const over = isLastTry(attempts)
    const ended = { status: 'failed' as const, fault: lost(attempts), finishedAt: sql`now()` }
    const again = {
      status: sql<'running'>`case ${renders.status} when 'checking' then 'running' else ${renders.status} end`,
    }
    await database
      .update(renders)
      .set({ worker: null, heartbeat: null, ...(over ? ended : again) })
      .where(and(eq(renders.id, id), silent))
    await database.execute(sql`select graphile_worker.force_unlock_workers(array[${worker}])`)
  }
}

/** A job that was tried too often, as while the database came and went, is asked for again: its render is not over. */
async function missingJobs(database: Database): Promise<void> {
  const job = database
    .select({ one: sql`1` })
    .from(sql`graphile_worker.jobs as job`)
    .where(sql`job.key = ${renders.id} and (job.attempts < job.max_attempts or job.locked_at is not null)`)
  const without = await database
    .select({ id: renders.id, priority: renders.priority })
    .from(renders)
    .where(and(inArray(renders.status, [...UNFINISHED]), isNull(renders.worker), notExists(job)))
  for (const { id, priority } of without) await addPressJob(database, id, priority)
}

const lost = (times: number): Fault => ({
  code: 'worker-lost',
  place: 'render worker',
  message: `A render worker stopped ${times} times at the same frames.`,
  remedy: 'Look at its messages where the application was started, then try again.',
})
