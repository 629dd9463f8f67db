import { desc, eq, sql } from 'drizzle-orm'
import { batches, renderRuns, renders } from '../database/schema'
import type { ListedBatch } from '../renders/batch/listed'

const count = (status: string) => sql<number>`(count(*) filter (where ${renders.status} = ${status}))::int`

/** Frames of a render that are made: while its runs are in work, as many as they say. */
const MADE = sql`case when ${renders.status} = 'done' then ${renders.framesTotal}
  when ${renders.status} in ('queued', 'running') then least(${renders.framesTotal}, coalesce((
    select sum(${renderRuns.framesDone}) from ${renderRuns} where ${renderRuns.renderId} = ${renders.id}), 0))
  when ${renders.status} = 'checking' then ${renders.framesTotal} else 0 end`

const LISTED_BATCH = {
  id: batches.id,
  cardId: batches.cardId,
  rosterId: batches.rosterId,
  cardName: batches.cardName,
  rosterName: batches.rosterName,
  leftOut: batches.leftOut,
  createdAt: batches.createdAt,
  format: sql<ListedBatch['format']>`min(${renders.options} ->> 'format')`,
  programme: sql<boolean>`coalesce(bool_or(${renders.programme} is not null), false)`,
  placed: sql<boolean>`coalesce(bool_or(${renders.rowStart} is not null), false)`,
  total: sql<number>`count(${renders.id})::int`,
  done: count('done'),
  failed: count('failed'),
  cancelled: count('cancelled'),
  running: sql<number>`(count(*) filter (where ${renders.status} in ('running', 'checking')))::int`,
  framesTotal: sql<number>`coalesce(sum(${renders.framesTotal}), 0)::int`,
  framesDone: sql<number>`coalesce(sum(${MADE}), 0)::int`,
  bytes: sql<number>`coalesce(sum((select sum((f ->> 'bytes')::float8) from jsonb_array_elements(${renders.files}) as f)), 0)::float8`,
  startedAt: sql<string | null>`min(${renders.startedAt})`,
  finishedAt: sql<
    string | null
  >`case when bool_and(${renders.finishedAt} is not null) then max(${renders.finishedAt}) end`,
  /** A render of it that has a small picture. */
  small: sql<string | null>`min(${renders.id}) filter (where ${renders.small} is not null)`,
}

const listed = () =>
  useDatabase()
    .select(LISTED_BATCH)
    .from(batches)
    .leftJoin(renders, eq(renders.batchId, batches.id))
    .groupBy(batches.id)

/** Jobs of many files, the newest first. */
export const listBatches = (): Promise<ListedBatch<Date>[]> => listed().orderBy(desc(batches.createdAt)).limit(500)

export async function findBatch(id: string): Promise<ListedBatch<Date>> {
  const [row] = await listed().where(eq(batches.id, id))
  if (!row) throw notFound('job')
  return row
}

/** All that is known of its renders, in the order of their rows. */
export const rendersOfBatch = (id: string) =>
  useDatabase().select().from(renders).where(eq(renders.batchId, id)).orderBy(renders.createdAt, renders.id)
