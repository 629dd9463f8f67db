import { desc, isNull } from 'drizzle-orm'
import { cards } from '../../database/schema'

/** All cards, last touched first, with their documents: the shelf draws its pictures from them. */
export default route(async () =>
  useDatabase()
    .select({ ...LISTED, document: cards.document })
    .from(cards)
    .where(isNull(cards.deletedAt))
    .orderBy(desc(cards.updatedAt)),
)
