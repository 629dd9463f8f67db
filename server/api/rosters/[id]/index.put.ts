import { and, eq, isNull } from 'drizzle-orm'
import { nanoid } from 'nanoid'
import { rosters } from '../../../database/schema'

/**
 * Saves a roster over the revision that it was made from; a newer one is never overwritten. A window that takes over says so
 * (`takeOver`): what it saves over becomes a roster of its own first. A save that comes a second time is answered again and changes
 * nothing.
 */
export default route(async (event) => {
  const id = routeId(event)
  const { roster, cardId, revision, takeOver, save } = await bodyRoster(event)
  return useDatabase().transaction(async (desk) => {
    const [head] = await desk
      .select()
      .from(rosters)
      .where(and(eq(rosters.id, id), isNull(rosters.deletedAt)))
      .for('update')
    if (!head) throw notFound('roster')
    const known = head.recentSaves.find((recent) => save !== undefined && recent.save === save)
    if (known) {
      const [listed] = await desk.select(LISTED_ROSTER).from(rosters).where(eq(rosters.id, id))
      return { ...listed!, revision: known.revision }
    }
    if (takeOver) {
      const name = `${head.name}, before another window took over`.slice(0, 200)
      const document = { ...head.document, name }
      await desk.insert(rosters).values({ id: nanoid(12), name, document, cardId: head.cardId })
    } else if (head.revision !== revision) {
      throw refusal(409, {
        code: 'newer-revision',
        place: `revision ${head.revision}`,
        message: 'This roster was changed in another window.',
        remedy: 'Take over with yours, or open the newer one.',
      })
    }
    const next = head.revision + 1
    const [saved] = await desk
      .update(rosters)
      .set({
        ...{ document: roster, name: roster.name, cardId, revision: next, updatedAt: new Date() },
        recentSaves: withSave(head.recentSaves, save, next),
      })
      .where(eq(rosters.id, id))
      .returning(LISTED_ROSTER)
    return saved!
  })
})
