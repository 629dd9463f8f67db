import { and, eq } from 'drizzle-orm'
import { getRouterParam } from 'h3'
import { expectCard } from '../../../../../core/card/read'
import { versions } from '../../../../database/schema'

/** One version with its document, in the form of today: it may have been kept by an older application. */
export default route(async (event) => {
  const [row] = await useDatabase()
    .select()
    .from(versions)
    .where(and(eq(versions.cardId, routeId(event)), eq(versions.id, getRouterParam(event, 'version') ?? '')))
  if (!row) throw notFound('version')
  return { ...row, document: expectCard(row.document) }
})
