import { expectOptions } from '../../../core/formats/deliveries/render-options'
import { enqueue } from '../../renders/queue/enqueue'
import { expectSpace } from '../../renders/space'

/**
 * Puts a render into the queue: of a card as it is now, or, where a revision is named, only as that; or of the card as it was in an
 * earlier render (`renderId`).
 */
export default route(async (event) => {
  const body = await bodyJson(event)
  const source = body.renderId === undefined ? await ofCard(body) : await ofRender(String(body.renderId))
  const options = expectOptions(body.options)
  await expectSpace(rendersPlace())
  const id = await enqueue(useDatabase(), { ...source, options })
  return findListed(id)
})

async function ofCard(body: Record<string, unknown>) {
  const { id, name, document, revision } = await findCard(String(body.cardId ?? ''))
  const wanted = revisionIn(body.revision)
  if (wanted === undefined || wanted === revision) return { cardId: id, name, document, revision }
  throw refusal(409, {
    code: 'newer-revision',
    place: `revision ${revision}`,
    message: 'This card was changed in another window.',
    remedy: 'Open the newer one, then render it.',
  })
}

async function ofRender(id: string) {
  const { cardId, name, document, revision } = await findRender(id)
  return { cardId, name, document, revision }
}
