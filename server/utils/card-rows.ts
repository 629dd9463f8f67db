import { and, eq, isNull } from 'drizzle-orm'
import { readBody } from 'h3'
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

/** The card in a request's body; a broken one is refused with its first fault. */
export async function bodyCard(
  event: H3Event,
): Promise<{ card: Card; revision: number | undefined; takeOver: boolean }> {
  const body = await readBody<{ document?: unknown; revision?: unknown; takeOver?: unknown } | undefined>(event)
  const revision = typeof body?.revision === 'number' ? body.revision : undefined
  return { card: expectCard(body?.document), revision, takeOver: body?.takeOver === true }
}

/** A card as the shelf lists it: everything but the document. */
export const LISTED = {
  id: cards.id,
  name: cards.name,
  revision: cards.revision,
  updatedAt: cards.updatedAt,
}
