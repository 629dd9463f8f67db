import { join } from 'node:path'
import { and, count, desc, eq, inArray, isNotNull, sql } from 'drizzle-orm'
import type { StoredFile } from '../database/schema'
import { renderRuns, renders, workers } from '../database/schema'
import { rendersFolder } from '../renders/files'
import { UNFINISHED } from '../renders/queue/enqueue'
import type { RenderReport } from '../renders/report'

/** What of a report is in lists: all but the single checks. */
export type ShortReport = Omit<RenderReport, 'checks'>

/** A render as the press room lists it: everything but the document and the single checks. */
const LISTED_RENDER = {
  id: renders.id,
  cardId: renders.cardId,
  name: renders.name,
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

export async function listRenders() {
  const rows = await useDatabase().select(LISTED_RENDER).from(renders).orderBy(desc(renders.createdAt)).limit(MOST_LISTED)
  return withRuns(rows)
}

export async function findListed(id: string) {
  const [row] = await useDatabase().select(LISTED_RENDER).from(renders).where(eq(renders.id, id))
  if (!row) throw notFound('render')
  return (await withRuns([row]))[0]!
}

type ListedRow = Awaited<ReturnType<typeof rowsOf>>[number]
const rowsOf = () => useDatabase().select(LISTED_RENDER).from(renders)

/** How far the runs of those are that are in work, and who has them. */
async function withRuns(rows: ListedRow[]) {
  const running = rows.filter(({ status }) => status === 'queued' || status === 'running').map(({ id }) => id)
  const runs = running.length > 0 ? await runsOf(running) : []
  const byId = new Map(runs.map((run) => [run.id, run]))
  return rows.map((row) => {
    const run = byId.get(row.id)
    // A hold that is played again is made once.
    const share = run && run.frames > 0 ? run.done / run.frames : null
    return {
      ...row,
      framesDone: share === null ? row.framesDone : Math.round(share * row.framesTotal),
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
      workers: sql<string[]>`coalesce(array_agg(distinct ${workers.name}) filter (where ${renderRuns.state} = 'running' and ${workers.name} is not null), '{}')`,
    })
    .from(renderRuns)
    .leftJoin(workers, and(eq(workers.id, renderRuns.worker), isNotNull(renderRuns.worker)))
    .where(inArray(renderRuns.renderId, ids))
    .groupBy(renderRuns.renderId)

/** A render as the press room lists it. */
export type ListedRender = Awaited<ReturnType<typeof findListed>>

export const isUnfinished = ({ status }: { status: string }): boolean =>
  (UNFINISHED as readonly string[]).includes(status)

export async function findRender(id: string) {
  const [row] = await useDatabase().select().from(renders).where(eq(renders.id, id))
  if (!row) throw notFound('render')
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
