import { eq } from 'drizzle-orm'
import { cards } from '../../../database/schema'

export default route(async (event) => {
  const [row] = await useDatabase()
    .update(cards)
    .set({ deletedAt: null })
    .where(eq(cards.id, routeId(event)))
    .returning(LISTED)
  if (!row) throw notFound('card')
  return row
})
