import { and, eq, inArray } from 'drizzle-orm'
import { renders } from '../../../database/schema'
import { removeFiles } from '../../../renders/files'
import { UNFINISHED } from '../../../renders/queue/enqueue'

/** Cancels what of a job is not finished; the files that are done stay. */
export default route(async (event) => {
  const { id } = await findBatch(routeId(event))
  const cancelled = await useDatabase()
    .update(renders)
    .set({ status: 'cancelled', finishedAt: new Date() })
    .where(and(eq(renders.batchId, id), inArray(renders.status, [...UNFINISHED])))
    .returning({ id: renders.id, worker: renders.worker })
  // Who puts one together takes its files away.
  for (const row of cancelled) if (!row.worker) await removeFiles(useRuntimeConfig().storage, row.id)
  return findBatch(id)
})
