import { desc, isNotNull } from 'drizzle-orm'
import { cards } from '../../database/schema'

/** Deleted cards, last deleted first, for bringing them back. */
export default route(async () =>
  useDatabase()
    .select({ ...LISTED, deletedAt: cards.deletedAt })
    .from(cards)
    .where(isNotNull(cards.deletedAt))
    .orderBy(desc(cards.deletedAt))
    .limit(200),
)
