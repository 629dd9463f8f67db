import { eq } from 'drizzle-orm'
import { seals } from '../../../database/schema'

/** Marks the seal as deleted; `restore` brings it back. Pieces keep what was pressed on them. */
export default route(async (event) => {
  const { id } = await findSeal(routeId(event))
  await useDatabase().update(seals).set({ deletedAt: new Date() }).where(eq(seals.id, id))
  return { id }
})
