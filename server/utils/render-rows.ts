import { join } from 'node:path'
import { and, asc, count, desc, eq, gt, inArray, isNotNull, isNull, or, sql } from 'drizzle-orm'
import type { StoredFile } from '../database/schema'
import { renderRuns, renders, workers } from '../database/schema'
import { rendersFolder } from '../renders/files'
import type { ListedRender, ShortReport } from '../renders/listed'
import { UNFINISHED } from '../renders/queue/enqueue'

const LISTED_RENDER = {
  id: renders.id,
  cardId: renders.cardId,
  name: renders.name,
  batchId: renders.batchId,
  rowId: renders.rowId,
  rowName: renders.rowName,
  options: renders.options,
  status: renders.status,
  priority: renders.priority,
  frame: sql<{ width: number; height: number }>`${renders.document} -> 'frame'`,
  rate: sql<{ numerator: number; denominator: number }>`${renders.document} -> 'rate'`,
  framesTotal: renders.framesTotal,
  framesDone: renders.framesDone,
  attempts: renders.attempts,
  fault: renders.fault,
  report: sql<ShortReport | null>`${renders.report} - 'checks'`,
  files: renders.files,
  take: renders.take,
  revision: renders.revision,
  small: sql<boolean>`${renders.small} is not null`,
  kept: renders.kept,
  createdAt: renders.createdAt,
  startedAt: renders.startedAt,
  finishedAt: renders.finishedAt,
}

/** More than anybody scrolls through; older ones are cleaned away. */
const MOST_LISTED = 2000

/** Renders of their own, the newest first. */
export async function listRenders() {
  const rows = await useDatabase()
    .select(LISTED_RENDER)
    .from(renders)
    .where(isNull(renders.batchId))
    .orderBy(desc(renders.createdAt))
    .limit(MOST_LISTED)
  return withRuns(rows)
}

/** The files of a job of many, in the order of their rows. */
export async function listOfBatch(batch: string) {
  const rows = await useDatabase()
    .select(LISTED_RENDER)
    .from(renders)
    .where(eq(renders.batchId, batch))
    .orderBy(asc(renders.createdAt), asc(renders.id))
  return withRuns(rows)
}

export async function findListed(id: string) {
  const [row] = await useDatabase().select(LISTED_RENDER).from(renders).where(eq(renders.id, id))
  if (!row) throw notFound('render')
  return (await withRuns([row]))[0]!
}

type ListedRow = Omit<ListedRender<Date>, 'runs' | 'workers'>

/** How far the runs of those are that are in work, and who has them. */
async function withRuns(rows: ListedRow[]): Promise<ListedRender<Date>[]> {
  const running = rows.filter(({ status }) => status === 'queued' || status === 'running').map(({ id }) => id)
  const runs = running.length > 0 ? await runsOf(running) : []
  const byId = new Map(runs.map((run) => [run.id, run]))
  return rows.map((row) => {
    const run = byId.get(row.id)
    // A hold that is played again is made once. When all are made, it counts how many are in the file.
    const isMaking = run !== undefined && run.done < run.frames
    return {
      ...row,
      framesDone: isMaking ? Math.round((run.done / run.frames) * row.framesTotal) : row.framesDone,
      runs: run ? { total: run.runs, done: run.runsDone, running: run.running } : null,
      workers: run?.workers ?? [],
    }
  })
}

const runsOf = (ids: string[]) =>
  useDatabase()
    .select({
      id: renderRuns.renderId,
      frames: sql<number>`sum(${renderRuns.frames})::int`,
      done: sql<number>`sum(${renderRuns.framesDone})::int`,
      runs: count(),
      runsDone: sql<number>`count(*) filter (where ${renderRuns.state} = 'done')::int`,
      running: sql<number>`count(*) filter (where ${renderRuns.state} = 'running')::int`,
      workers: sql<
        string[]
      >`coalesce(array_agg(distinct ${workers.name}) filter (where ${renderRuns.state} = 'running' and ${workers.name} is not null), '{}')`,
    })
    .from(renderRuns)
    .leftJoin(workers, and(eq(workers.id, renderRuns.worker), isNotNull(renderRuns.worker)))
    .where(inArray(renderRuns.renderId, ids))
    .groupBy(renderRuns.renderId)

/** Those of their own that are not over, or that were until a moment ago. */
const IS_LATE = or(inArray(renders.status, [...UNFINISHED]), gt(renders.finishedAt, sql`now() - interval '5 seconds'`))

export async function lately() {
  const rows = await useDatabase()
    .select(LISTED_RENDER)
    .from(renders)
    .where(and(isNull(renders.batchId), IS_LATE))
  return withRuns(rows)
}

export async function findRender(id: string) {
  const [row] = await useDatabase().select().from(renders).where(eq(renders.id, id))
  if (!row) throw notFound('render')
  return row
}

/** A render that is finished and checked; throws 404 for any other. */
export async function findDone(id: string) {
  const row = await findRender(id)
  if (row.status !== 'done') throw notFound('file')
  return row
}

/** Where files of renders lie. */
export const rendersPlace = (): string => rendersFolder(useRuntimeConfig().storage)

/** Where a file of a render lies. */
export const renderPath = (stored: string): string => join(rendersPlace(), stored)

/** A finished and checked file of a render; throws 404 for any other. */
export async function finishedFile(id: string, index: number): Promise<StoredFile> {
  const { status, files } = await findRender(id)
  const file = status === 'done' ? files[index] : undefined
  if (!file) throw notFound('file')
  return file
}
