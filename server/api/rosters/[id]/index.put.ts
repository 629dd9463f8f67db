import { and, eq, isNull } from 'drizzle-orm'
import { rosters } from '../../../database/schema'

/** Saves a roster over the revision that it was made from; a newer one is never overwritten. */
export default route(async (event) => {
  const id = routeId(event)
  const { roster, cardId, revision } = await bodyRoster(event)
  const [saved] = await useDatabase()
    .update(rosters)
    .set({ document: roster, name: roster.name, cardId, revision: (revision ?? 0) + 1, updatedAt: new Date() })
    .where(and(eq(rosters.id, id), isNull(rosters.deletedAt), eq(rosters.revision, revision ?? -1)))
    .returning(LISTED_ROSTER)
  if (saved) return saved
  const head = await findRoster(id)
  throw refusal(409, {
    code: 'newer-revision',
    place: `revision ${head.revision}`,
    message: 'This roster was changed in another window.',
    remedy: 'Open the newer one, or keep yours as another roster.',
  })
})
