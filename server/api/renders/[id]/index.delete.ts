import { eq } from 'drizzle-orm'
import { renders } from '../../../database/schema'
import { removeFiles } from '../../../renders/files'

/** Removes a render and its files; one that is in work stops. */
export default route(async (event) => {
  const row = await findRender(routeId(event))
  await useDatabase().delete(renders).where(eq(renders.id, row.id))
  await removeFiles(useRuntimeConfig().storage, row.id)
  tellGone(row.id)
  return { id: row.id }
})
