import { eq, max, sql } from 'drizzle-orm'
import { nanoid } from 'nanoid'
import { expectOptions } from '../../../core/formats/deliveries/render-options'
import { renders } from '../../database/schema'
import { planFor } from '../../renders/plan'

/** Puts a render of a card into the queue: as it is now, or, where a revision is named, only as that. */
export default route(async (event) => {
  const body = await bodyJson(event)
  const row = await findCard(String(body.cardId ?? ''))
  const wanted = revisionIn(body.revision)
  if (wanted !== undefined && wanted !== row.revision) {
    throw refusal(409, {
      code: 'newer-revision',
      place: `revision ${row.revision}`,
      message: 'This card was changed in another window.',
      remedy: 'Open the newer one, then render it.',
    })
  }
  const options = expectOptions(body.options)
  // What cannot be rendered, or carried, is said before anything starts.
  const { plan } = planFor(row.document, options, { paths: [], stem: '' })
  const values = {
    cardId: row.id,
    name: row.name,
    document: row.document,
    revision: row.revision,
    options,
    framesTotal: plan.frames,
  }
  return useDatabase().transaction(async (transaction) => {
    const [before] = await transaction
      .select({ take: max(renders.take) })
      .from(renders)
      .where(eq(renders.cardId, row.id))
    const [made] = await transaction
      .insert(renders)
      .values({ id: nanoid(12), ...values, take: (before?.take ?? 0) + 1 })
      .returning(LISTED_RENDER)
    // The job and its row appear together or not at all.
    const payload = JSON.stringify({ id: made!.id })
    await transaction.execute(
      sql`select graphile_worker.add_job('render', ${payload}::json, max_attempts := 5, job_key := ${made!.id})`,
    )
    return made!
  })
})
