import { and, eq, inArray, max, sql } from 'drizzle-orm'
import { nanoid } from 'nanoid'
import type { Database } from '../../database/connect'
import { cardTurns, renderRuns, renders } from '../../database/schema'
import { sizeOf } from '../plan'
import { PRIORITIES, pressTask, priorityOf } from './priority'
import { runCount, runLength } from './runs'

export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0]

/** States of renders that are not over. */
export const UNFINISHED = ['queued', 'running', 'checking'] as const

/** Told to every worker that waits when there is something to do. */
export const WORK_CHANNEL = 'wax_runs'

type RenderInsert = typeof renders.$inferInsert
export type NewRender = Pick<RenderInsert, 'cardId' | 'name' | 'document' | 'options' | 'revision'> &
  Partial<Pick<RenderInsert, 'batchId' | 'rowId' | 'rowName' | 'rowStart' | 'programme' | 'createdAt'>>

/**
 * Puts a render into the queue; gives its id. Throws a WaxError where there is nothing to render, or where the delivery cannot
 * carry it. The render, its runs and the job that presses it appear together or not at all.
 */
export async function enqueue(database: Database, render: NewRender): Promise<string> {
  // What cannot be rendered is told before anything is put anywhere.
  const size = sizeOf({ programme: null, ...render })
  return database.transaction(async (transaction) => {
    const take = await nextTake(transaction, render.cardId)
    await takeTurn(transaction, render.cardId)
    return insertRender(transaction, render, { ...size, take })
  })
}

/** The how manieth render of its card the next one is. */
export async function nextTake(transaction: Transaction, cardId: string): Promise<number> {
  const [before] = await transaction
    .select({ take: max(renders.take) })
    .from(renders)
    .where(eq(renders.cardId, cardId))
  return (before?.take ?? 0) + 1
}

/** Puts a render, its runs and the job that presses it into the queue; gives its id. */
export async function insertRender(
  transaction: Transaction,
  render: NewRender,
  { frames, shown, take }: { frames: number; shown: number; take: number },
): Promise<string> {
  const id = nanoid(12)
  // Of many files none is waited for by itself.
  const priority = render.batchId ? PRIORITIES.later : priorityOf(render.options, shown)
  await transaction.insert(renders).values({ ...render, id, priority, framesTotal: frames, take })
  await cut(transaction, id, shown)
  await addPressJob(transaction, id, priority)
  return id
}

/** A card that had nothing in work is as far as the one that was served least: it neither waits for all others, nor they for it. */
export async function takeTurn(transaction: Transaction, cardId: string): Promise<void> {
  const [busy] = await transaction
    .select({ id: renders.id })
    .from(renders)
    .where(and(eq(renders.cardId, cardId), inArray(renders.status, [...UNFINISHED])))
    .limit(1)
  if (busy) return
  const least = sql`(select coalesce(min(${cardTurns.served}), 0) from ${cardTurns} where exists (
    select from ${renders} where ${renders.cardId} = ${cardTurns.cardId} and ${inArray(renders.status, [...UNFINISHED])}))`
  await transaction
    .insert(cardTurns)
    .values({ cardId, served: least })
    .onConflictDoUpdate({ target: cardTurns.cardId, set: { served: least } })
}

/** Cuts a render of so many frames into its runs. */
export async function cut(transaction: Transaction, id: string, frames: number): Promise<void> {
  const length = runLength(frames)
  await transaction.execute(sql`
    insert into ${renderRuns} ("render_id", "index", "frames")
    select ${id}, i, least(${length}::int, ${frames}::int - i * ${length}::int)
    from generate_series(0, ${runCount(frames) - 1}::int) as i`)
}

/** The job that puts a render's frames together. One that is there already is that job. */
export async function addPressJob(database: Database | Transaction, id: string, priority: number): Promise<void> {
  const payload = JSON.stringify({ id })
  await database.execute(
    sql`select graphile_worker.add_job(${pressTask(priority)}, ${payload}::json, max_attempts := 5, job_key := ${id})`,
  )
  await database.execute(sql`select pg_notify(${WORK_CHANNEL}, '')`)
}
