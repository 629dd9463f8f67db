import { expectCard } from '../../../core/card/read'
import { proveCard } from '../../renders/prove'
import type { Ground } from '../../../core/judge/proof/grounds'
import type { Assets } from '../../renders/work/assets'
import { assetsHere } from '../../renders/work/assets'

/** Proves a card of the shelf, or one that is sent: it looks at every frame. `backdrop` names a picture that the card is for. */
export default route(async (event) => {
  const body = await bodyJson(event)
  const card =
    body.document === undefined ? (await findCard(String(body.cardId ?? ''))).document : expectCard(body.document)
  const assets = assetsHere(useDatabase(), useRuntimeConfig().storage)
  return proveCard(card, assets, body.backdrop === undefined ? [] : [await groundOf(assets, String(body.backdrop))])
})

async function groundOf(assets: Assets, id: string): Promise<Ground> {
  const over = await assets.picture(id)
  if (over) return { label: 'the backdrop', over }
  throw refusal(404, {
    code: 'no-picture',
    place: 'backdrop',
    message: `There is no picture “${id}”.`,
    remedy: 'Bring it in first; the answer tells its id.',
  })
}
