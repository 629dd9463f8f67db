import { rm } from 'node:fs/promises'
import { eq } from 'drizzle-orm'
import { renders } from '../../../database/schema'

/** Removes a render and its file; one that is in work stops. */
export default route(async (event) => {
  const row = await findRender(routeId(event))
  await useDatabase().delete(renders).where(eq(renders.id, row.id))
  await rm(renderPath(row), { force: true })
  return { id: row.id }
})
