import { eq } from 'drizzle-orm'
import { cards } from '../../../database/schema'

/** Marks the card as deleted; `restore` brings it back. */
export default route(async (event) => {
  const { id } = await findHead(routeId(event))
  await useDatabase().update(cards).set({ deletedAt: new Date() }).where(eq(cards.id, id))
  return { id }
})
