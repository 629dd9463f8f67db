import { eq } from 'drizzle-orm'
import { rosters } from '../../../database/schema'

/** Takes a roster off the shelf; `restore` brings it back. */
export default route(async (event) => {
  const { id } = await findRoster(routeId(event))
  await useDatabase().update(rosters).set({ deletedAt: new Date() }).where(eq(rosters.id, id))
  return { id }
})
