import { and, eq, isNull } from 'drizzle-orm'
import type { H3Event } from 'h3'
import { expectCard } from '../../core/card/read'
import type { Card } from '../../core/card/schema'
import { cards } from '../database/schema'

export async function findCard(id: string) {
  const [row] = await useDatabase()
    .select()
    .from(cards)
    .where(and(eq(cards.id, id), isNull(cards.deletedAt)))
  if (!row) throw notFound('card')
  return row
}

/** What is newest of a card, without its document. */
export async function findHead(id: string) {
  const [row] = await useDatabase()
    .select(LISTED)
    .from(cards)
    .where(and(eq(cards.id, id), isNull(cards.deletedAt)))
  if (!row) throw notFound('card')
  return row
}

/** A card in a request, and how it is to be saved. */
interface SentCard {
  card: Card
  revision: number | undefined
  takeOver: boolean
  /** The id that a window gave this save. */
  save: string | undefined
}

/** The card in a request's body; a broken one is refused with its first fault. */
export async function bodyCard(event: H3Event): Promise<SentCard> {
  const body = await bodyJson(event)
  return {
    card: expectCard(body.document),
    revision: revisionIn(body.revision),
    takeOver: body.takeOver === true,
    save: saveIn(body.save),
  }
}

/** A card as the shelf lists it: everything but the document. */
export const LISTED = {
  id: cards.id,
  name: cards.name,
  revision: cards.revision,
  updatedAt: cards.updatedAt,
}
