import { eq } from 'drizzle-orm'
import { rosters } from '../../../database/schema'

/** Brings a deleted roster back. */
export default route(async (event) => {
  const [row] = await useDatabase()
    .update(rosters)
    .set({ deletedAt: null })
    .where(eq(rosters.id, routeId(event)))
    .returning(LISTED_ROSTER)
  if (!row) throw notFound('roster')
  return row
})
