import { eq } from 'drizzle-orm'
import { setHeader } from 'h3'
import { fonts } from '../../../database/schema'

export default route(async (event) => {
  const [row] = await useDatabase()
    .select({ sfnt: fonts.sfnt })
    .from(fonts)
    .where(eq(fonts.id, routeId(event)))
  if (!row) throw notFound('font')
  setHeader(event, 'content-type', 'font/sfnt')
  // The id is made from the contents: the file behind it never changes.
  setHeader(event, 'cache-control', 'public, max-age=31536000, immutable')
  return row.sfnt
})
