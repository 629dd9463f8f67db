import { desc } from 'drizzle-orm'
import { pictures } from '../../database/schema'

/** Pictures that people brought, newest first. */
export default route(async () =>
  useDatabase()
    .select({ id: pictures.id, fileName: pictures.fileName, width: pictures.width, height: pictures.height })
    .from(pictures)
    .orderBy(desc(pictures.createdAt)),
)
