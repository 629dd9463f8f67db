import { desc } from 'drizzle-orm'
import { renders } from '../../database/schema'

export default route(async () =>
  useDatabase().select(LISTED_RENDER).from(renders).orderBy(desc(renders.createdAt)).limit(200),
)
