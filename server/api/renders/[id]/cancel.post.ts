import { and, eq, inArray } from 'drizzle-orm'
import { renders } from '../../../database/schema'

/** Cancels a render that is not finished; its worker notices within a second and removes the half file. */
export default route(async (event) => {
  const [row] = await useDatabase()
    .update(renders)
    .set({ status: 'cancelled', finishedAt: new Date() })
    .where(and(eq(renders.id, routeId(event)), inArray(renders.status, ['queued', 'running', 'checking'])))
    .returning(LISTED_RENDER)
  return row ?? findRender(routeId(event))
})
