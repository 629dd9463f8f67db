import { eq } from 'drizzle-orm'
import { setHeader } from 'h3'
import { pictures } from '../../../database/schema'

/** The file as it was brought, for showing it. */
export default route(async (event) => {
  const [row] = await useDatabase()
    .select({ file: pictures.file })
    .from(pictures)
    .where(eq(pictures.id, routeId(event)))
  if (!row) throw notFound('picture')
  setHeader(event, 'content-type', 'application/octet-stream')
  setHeader(event, 'cache-control', 'public, max-age=31536000, immutable')
  return row.file
})
