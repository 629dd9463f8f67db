import { eq } from 'drizzle-orm'
import { batches } from '../../../database/schema'
import { removeFiles } from '../../../renders/files'

/** Removes a job with all of its files; what is in work stops. */
export default route(async (event) => {
  const { id } = await findBatch(routeId(event))
  const rows = await rendersOfBatch(id)
  await useDatabase().delete(batches).where(eq(batches.id, id))
  for (const row of rows) await removeFiles(useRuntimeConfig().storage, row.id)
  return { id }
})
