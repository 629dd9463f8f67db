import { expectOptions } from '../../../core/formats/deliveries/render-options'
import { enqueueBatch } from '../../renders/batch/enqueue'
import { planBatch } from '../../renders/batch/plan'
import { expectSpace } from '../../renders/space'

/** Renders a roster: each row a file, or all rows with timecodes in one. The frames follow from the rows. */
export default route(async (event) => {
  const body = await bodyJson(event)
  const card = await findCard(String(body.cardId ?? ''))
  const roster = await findRoster(String(body.rosterId ?? ''))
  expectNewest('card', card.revision, body.revision)
  expectNewest('roster', roster.revision, body.rosterRevision)
  const wish = {
    ...{ card, roster, pictures: await picturesByName() },
    rows: Array.isArray(body.rows) ? body.rows.map(String) : null,
    as: body.as === 'programme' ? ('programme' as const) : ('rows' as const),
    options: expectOptions({ name: '{row}', ...(body.options as object), from: 0, to: 1, holds: 1 }),
  }
  const planned = planBatch(wish)
  await expectSpace(rendersPlace())
  return findBatch(await enqueueBatch(useDatabase(), wish, planned))
})

/** What was sent may name the revision that was looked at: another one is not rendered in its place. */
function expectNewest(what: string, now: number, sent: unknown): void {
  const wanted = revisionIn(sent)
  if (wanted === undefined || wanted === now) return
  throw refusal(409, {
    code: 'newer-revision',
    place: `${what}, revision ${now}`,
    message: `This ${what} was changed in another window.`,
    remedy: 'Open the newer one, then render it.',
  })
}
