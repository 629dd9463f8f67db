import { and, eq } from 'drizzle-orm'
import { getRouterParam } from 'h3'
import { versions } from '../../../../database/schema'

/** One version with its document. */
export default route(async (event) => {
  const [row] = await useDatabase()
    .select()
    .from(versions)
    .where(and(eq(versions.cardId, routeId(event)), eq(versions.id, getRouterParam(event, 'version') ?? '')))
  if (!row) throw notFound('version')
  return row
})
