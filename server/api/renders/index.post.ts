import { sql } from 'drizzle-orm'
import { readBody } from 'h3'
import { nanoid } from 'nanoid'
import { WaxError } from '../../../core/errors'
import { renders } from '../../database/schema'
import { expectFrames } from '../../renders/limits'
import { renderOptionsSchema } from '../../renders/options'

/** Puts a render of a card, as it is now, into the queue. */
export default route(async (event) => {
  const body = await readBody<{ cardId?: unknown; options?: unknown } | undefined>(event)
  const row = await findCard(String(body?.cardId ?? ''))
  const options = renderOptionsSchema.safeParse(body?.options)
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
