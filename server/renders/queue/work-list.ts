import { and, eq, inArray, sql } from 'drizzle-orm'
import type { Fault } from '../../../core/errors'
import type { Database } from '../../database/connect'
import { cardTurns, renderRuns, renders } from '../../database/schema'
import type { RenderWork } from '../plan'
import { UNFINISHED, WORK_CHANNEL } from './enqueue'
import { isLastTry } from './tries'

// Who renders what. The rows of runs are the truth: a worker has a run as long as the row names it and counts the attempt that it
// took; one that was taken for dead and comes back finds that it is another's.

/** One go at a run. */
export interface RunTry {
  render: string
  index: number
  attempt: number
}

/** Frames after which another card has its turn. Engines that go on with what they know are faster. */
const TURN = 48

interface Wanted {
  worker: string
  /** The render whose engine is warm. */
  warm: string | null
}

/**
 * Gives a worker the run that is next: of what is waited for before the rest, then of the card whose turn it is, then of the
 * render that the worker has an engine for. Null where there is none.
 */
export async function takeRun(database: Database, { worker, warm }: Wanted): Promise<RunTry | null> {
  // Between the two looks another may have taken the last one.
  for (let tries = 0; tries < 8; tries++) {
    const [next] = await database
      .select({ id: renders.id })
      .from(renders)
      .leftJoin(cardTurns, eq(cardTurns.cardId, renders.cardId))
      .where(
        and(
          inArray(renders.status, ['queued', 'running']),
          sql`exists (select from ${renderRuns} where ${renderRuns.renderId} = ${renders.id} and ${renderRuns.state} = 'waiting')`,
        ),
      )
      .orderBy(
        renders.priority,
        sql`coalesce(${cardTurns.served}, 0) / ${TURN}::int`,
        sql`${renders.id} is distinct from ${warm}`,
        renders.createdAt,
        renders.id,
      )
      .limit(1)
    if (!next) return null
    const taken = await takeOf(database, next.id, worker)
    if (taken) return taken
  }
  return null
}

function takeOf(database: Database, id: string, worker: string): Promise<RunTry | null> {
  return database.transaction(async (transaction) => {
    const first = sql`(select ${renderRuns.index} from ${renderRuns}
      where ${renderRuns.renderId} = ${id} and ${renderRuns.state} = 'waiting'
      order by ${renderRuns.index} limit 1 for update skip locked)`
    const [run] = await transaction
      .update(renderRuns)
      .set({
        ...{ state: 'running', worker, framesDone: 0, segment: null },
        attempts: sql`${renderRuns.attempts} + 1`,
        heartbeat: sql`now()`,
      })
      .where(and(eq(renderRuns.renderId, id), sql`${renderRuns.index} = ${first}`))
      .returning()
    if (!run) return null
    await transaction
      .update(renders)
      .set({ status: 'running', startedAt: sql`coalesce(${renders.startedAt}, now())` })
      .where(and(eq(renders.id, id), eq(renders.status, 'queued')))
    await transaction
      .update(cardTurns)
      .set({ served: sql`${cardTurns.served} + ${run.frames}::int` })
      .where(sql`${cardTurns.cardId} = (select ${renders.cardId} from ${renders} where ${renders.id} = ${id})`)
    return { render: id, index: run.index, attempt: run.attempts }
  })
}

/** What the frames of a render are made from; null where it is gone. */
export async function workOf(database: Database, id: string): Promise<RenderWork | null> {
  const [row] = await database
    .select({ document: renders.document, options: renders.options, programme: renders.programme })
    .from(renders)
    .where(eq(renders.id, id))
  return row ?? null
}

/** A run that is this worker's, of a render that is not over. */
const isOwn = (worker: string, { render, index, attempt }: RunTry) =>
  and(
    eq(renderRuns.renderId, render),
    eq(renderRuns.index, index),
    eq(renderRuns.worker, worker),
    eq(renderRuns.attempts, attempt),
    eq(renderRuns.state, 'running'),
    sql`exists (select from ${renders} where ${renders.id} = ${render} and ${inArray(renders.status, [...UNFINISHED])})`,
  )

/** Says that a worker is at a run, and how far; false where it is not its any more. */
export async function beatRun(database: Database, worker: string, run: RunTry, framesDone: number): Promise<boolean> {
  const own = await database
    .update(renderRuns)
    .set({ heartbeat: sql`now()`, framesDone })
    .where(isOwn(worker, run))
    .returning({ index: renderRuns.index })
  return own.length > 0
}

/** Takes a finished run by the name of its segment; false where it is another's by now. */
export async function finishRun(database: Database, worker: string, run: RunTry, segment: string): Promise<boolean> {
  const own = await database
    .update(renderRuns)
    .set({ state: 'done', segment, framesDone: sql`${renderRuns.frames}`, heartbeat: null })
    .where(isOwn(worker, run))
    .returning({ index: renderRuns.index })
  if (own.length > 0) return true
  // Taken before, its answer lost.
  const [now] = await database
    .select({ segment: renderRuns.segment })
    .from(renderRuns)
    .where(and(eq(renderRuns.renderId, run.render), eq(renderRuns.index, run.index)))
  return now?.segment === segment
}

/** A run that failed. What would fail again, or has failed often enough, ends its render; the runs that are done stay. */
export async function failRun(
  database: Database,
  worker: string,
  run: RunTry,
  fault: Fault,
  isFinal: boolean,
): Promise<void> {
  if (!isFinal && !isLastTry(run.attempt)) return giveBack(database, worker, run)
  await database.transaction(async (transaction) => {
    const own = await transaction
      .update(renderRuns)
      .set({ state: 'waiting', worker: null, framesDone: 0, heartbeat: null })
      .where(isOwn(worker, run))
      .returning({ index: renderRuns.index })
    if (own.length > 0) await failRender(transaction, run.render, fault)
  })
}

/** Gives a run back that somebody else may take. */
export async function giveBack(database: Database, worker: string, run: RunTry): Promise<void> {
  await database
    .update(renderRuns)
    .set({ state: 'waiting', worker: null, framesDone: 0, heartbeat: null })
    .where(isOwn(worker, run))
  await database.execute(sql`select pg_notify(${WORK_CHANNEL}, '')`)
}

/** Has a run made again whose segment cannot be read. One that was made again too often ends its render. */
export async function makeAgain(database: Database, render: string, index: number, segment: string): Promise<void> {
  const [run] = await database
    .update(renderRuns)
    .set({ state: 'waiting', worker: null, segment: null, framesDone: 0, heartbeat: null })
    .where(
      and(
        ...[eq(renderRuns.renderId, render), eq(renderRuns.index, index)],
        ...[eq(renderRuns.state, 'done'), eq(renderRuns.segment, segment)],
      ),
    )
    .returning({ attempts: renderRuns.attempts })
  if (run && isLastTry(run.attempts)) await failRender(database, render, UNREADABLE)
  await database.execute(sql`select pg_notify(${WORK_CHANNEL}, '')`)
}

const UNREADABLE: Fault = {
  code: 'frames-lost',
  place: 'disk',
  message: 'Frames that were made could not be read again.',
  remedy: 'Look whether the disk is well, then try again.',
}

/** Ends a render that is not over yet with a fault. */
export async function failRender(
  database: Pick<Database, 'update'>,
  id: string,
  fault: Fault,
): Promise<{ id: string }[]> {
  return database
    .update(renders)
    .set({ status: 'failed', fault, worker: null, finishedAt: sql`now()` })
    .where(and(eq(renders.id, id), inArray(renders.status, [...UNFINISHED])))
    .returning({ id: renders.id })
}
