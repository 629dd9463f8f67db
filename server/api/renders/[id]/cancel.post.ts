import { and, eq, inArray } from 'drizzle-orm'
import { renders } from '../../../database/schema'
import { removeFiles } from '../../../renders/files'
import { UNFINISHED } from '../../../renders/queue/enqueue'

/** Cancels a render that is not finished; its workers notice within a second. Nothing of it stays. */
export default route(async (event) => {
  const id = routeId(event)
  const { worker } = await findRender(id)
  await useDatabase()
    .update(renders)
    .set({ status: 'cancelled', finishedAt: new Date() })
    .where(and(eq(renders.id, id), inArray(renders.status, [...UNFINISHED])))
  // Who puts it together takes its files away; where nobody does yet, there are segments at the most.
  if (!worker) await removeFiles(useRuntimeConfig().storage, id)
  return findListed(id)
})
