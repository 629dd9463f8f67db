import { and, eq, isNull } from 'drizzle-orm'
import { cards } from '../../../database/schema'

/**
 * Saves a card over the revision it was made from; a newer one is never overwritten. A window that takes over says so
 * (`takeOver`): what it saves over is kept as a version first, whatever its revision. A save that comes a second time,
 * because its answer was lost, is answered again and changes nothing.
 */
export default route(async (event) => {
  const id = routeId(event)
  const { card, revision, takeOver, save } = await bodyCard(event)
  return useDatabase().transaction(async (desk) => {
    const [head] = await desk
      .select({ ...LISTED, recentSaves: cards.recentSaves })
      .from(cards)
      .where(and(eq(cards.id, id), isNull(cards.deletedAt)))
      .for('update')
    if (!head) throw notFound('card')
    const { recentSaves, ...listed } = head
    const known = recentSaves.find((recent) => recent.save === save)
    if (known) return { ...listed, revision: known.revision }
    if (takeOver) await keepVersion(desk, id, 'Before another window took over')
    else if (head.revision === revision) await keepBefore(desk, id)
    else {
      throw refusal(409, {
        code: 'newer-revision',
        place: `revision ${head.revision}`,
        message: 'This card was changed in another window.',
        remedy: 'Keep yours as a copy, take over, or open the newer one.',
      })
    }
    const next = head.revision + 1
    const [saved] = await desk
      .update(cards)
      .set({
        document: card,
        name: card.name,
        revision: next,
        recentSaves: withSave(recentSaves, save, next),
        updatedAt: new Date(),
      })
      .where(eq(cards.id, id))
      .returning(LISTED)
    return saved!
  })
})
