import { sql } from 'drizzle-orm'
import { nanoid } from 'nanoid'
import { WaxError } from '../../../core/errors'
import { renders } from '../../database/schema'
import { expectFrames } from '../../renders/limits'
import { renderOptionsSchema } from '../../renders/options'

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
  const options = renderOptionsSchema.safeParse(body.options)
  if (!options.success) {
    const [issue] = options.error.issues
    throw new WaxError(
      'not-allowed',
      `options.${issue?.path.join('.')}`,
      `${issue?.message}.`,
      'Choose the format, bits and frames again.',
    )
  }
  expectFrames(row.document, options.data)
  const { from, to } = options.data
  const values = {
    cardId: row.id,
    name: row.name,
    document: row.document,
    options: options.data,
    framesTotal: to - from,
  }
  return useDatabase().transaction(async (transaction) => {
    const [made] = await transaction
      .insert(renders)
      .values({ id: nanoid(12), ...values })
      .returning(LISTED_RENDER)
    // The job and its row appear together or not at all.
    const payload = JSON.stringify({ id: made!.id })
    await transaction.execute(
      sql`select graphile_worker.add_job('render', ${payload}::json, max_attempts := 5, job_key := ${made!.id})`,
    )
    return made!
  })
})
