import { and, eq, isNull, sql } from 'drizzle-orm'
import { seals } from '../../../database/schema'

/** Changes a seal over the revision it was made from; a newer one is never overwritten. */
export default route(async (event) => {
  const id = routeId(event)
  const { seal, revision } = await bodySeal(event)
  const [saved] = await useDatabase()
    .update(seals)
    .set({ document: seal, name: seal.name, revision: sql`${seals.revision} + 1`, updatedAt: new Date() })
    .where(and(eq(seals.id, id), isNull(seals.deletedAt), eq(seals.revision, revision ?? -1)))
    .returning(LISTED_SEAL)
  if (saved) return saved
  const { revision: newer } = await findSeal(id)
  throw refusal(409, {
    code: 'newer-revision',
    place: `revision ${newer}`,
    message: 'This seal was changed in another window.',
    remedy: 'Open the seals again, then change the newer one.',
  })
})
