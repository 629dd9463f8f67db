import { expectCard } from '../../../core/card/read'
import { proveCard } from '../../renders/prove'
import { assetsHere } from '../../renders/work/assets'

/** Proves a card of the shelf, or one that is sent: it looks at every frame. */
export default route(async (event) => {
  const body = await bodyJson(event)
  const card =
    body.document === undefined ? (await findCard(String(body.cardId ?? ''))).document : expectCard(body.document)
  return proveCard(card, assetsHere(useDatabase(), useRuntimeConfig().storage))
})
