import { desc, isNull, sql } from 'drizzle-orm'
import type { Card } from '../../../core/card/schema'
import { cards } from '../../database/schema'

/**
 * All cards, last touched first, with their documents: the shelf draws its pictures from them. They are handed on as they
 * lie there, not read one by one: whatever is saved has the form of today, and older ones are given it at every start.
 */
export default route(async () =>
  useDatabase()
    .select({ ...LISTED, document: sql<Card>`${cards.document}` })
    .from(cards)
    .where(isNull(cards.deletedAt))
    .orderBy(desc(cards.updatedAt)),
)
