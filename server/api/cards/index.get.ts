import { desc, isNull, sql } from 'drizzle-orm'
import type { Card } from '../../../core/card/schema'
import { cards } from '../../database/schema'

/**
 * All cards, last touched first, with what is said of them at a glance: documents are fetched one by one, so that a shelf
 * of hundreds opens at once.
 */
export default route(async () =>
  useDatabase()
    .select({
      ...LISTED,
      frame: sql<Card['frame']>`${cards.document}->'frame'`,
      rate: sql<Card['rate']>`${cards.document}->'rate'`,
      length: sql<number>`(${cards.document}->>'length')::integer`,
      fields: sql<string[]>`coalesce(jsonb_path_query_array(${cards.document}, '$.fields[*].label'), '[]')`,
    })
    .from(cards)
    .where(isNull(cards.deletedAt))
    .orderBy(desc(cards.updatedAt)),
)
