import { eq } from 'drizzle-orm'
import { seals } from '../../../database/schema'

export default route(async (event) => {
  const [row] = await useDatabase()
    .update(seals)
    .set({ deletedAt: null })
    .where(eq(seals.id, routeId(event)))
    .returning(LISTED_SEAL)
  if (!row) throw notFound('seal')
  return row
})
