import { asc } from 'drizzle-orm'
import { fonts } from '../../database/schema'

/** Fonts that people brought. */
export default route(async () =>
  useDatabase()
    .select({ id: fonts.id, family: fonts.family, style: fonts.style, fileName: fonts.fileName })
    .from(fonts)
    .orderBy(asc(fonts.family), asc(fonts.style)),
)
