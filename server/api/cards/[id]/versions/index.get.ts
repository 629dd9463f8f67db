import { desc, eq } from 'drizzle-orm'
import { versions } from '../../../../database/schema'

/** The versions of a card, newest first, without their documents. */
export default route(async (event) => {
  const { id } = await findHead(routeId(event))
  return useDatabase()
    .select(LISTED_VERSION)
    .from(versions)
    .where(eq(versions.cardId, id))
    .orderBy(desc(versions.createdAt))
})
