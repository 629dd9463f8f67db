import { desc } from 'drizzle-orm'
import { tokens } from '../../database/schema'

/** The tokens that let programs in, the newest first; what they are is not kept. */
export default route(async () => useDatabase().select(LISTED_TOKEN).from(tokens).orderBy(desc(tokens.createdAt)))
