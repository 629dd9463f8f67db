import { and, eq, isNull, sql } from 'drizzle-orm'
import { cards } from '../../../database/schema'

/**
 * Saves a card over the revision it was made from; a newer one is never overwritten. A window that takes over says so
 * (`takeOver`): what it saves over is kept as a version first, whatever its revision.
 */
export default route(async (event) => {
  const id = routeId(event)
  const { card, revision, takeOver } = await bodyCard(event)
  const former = await findCard(id)
  if (takeOver) await keepVersion(former, 'Before another window took over')
  else if (former.revision === revision) await keepBefore(former)
  const from = takeOver ? former.revision : (revision ?? -1)
  const [saved] = await useDatabase()
    .update(cards)
    .set({ document: card, name: card.name, revision: sql`${cards.revision} + 1`, updatedAt: new Date() })
    .where(and(eq(cards.id, id), isNull(cards.deletedAt), eq(cards.revision, from)))
    .returning(LISTED)
  if (saved) return saved
  const { revision: newer } = await findCard(id)
  throw refusal(409, {
    code: 'newer-revision',
    place: `revision ${newer}`,
    message: 'This card was changed in another window.',
    remedy: 'Keep yours as a copy, take over, or open the newer one.',
  })
})
