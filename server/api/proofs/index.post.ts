import { expectCard } from '../../../core/card/read'
import type { Card } from '../../../core/card/schema'
import type { ProofRow } from '../../../core/judge/proof/look'
import { proofRows } from '../../../core/rosters/proof-rows'
import { broughtBy } from '../../../core/rosters/fill'
import { proveCard } from '../../renders/prove'
import type { Ground } from '../../../core/judge/proof/grounds'
import type { Assets } from '../../renders/work/assets'
import { assetsHere } from '../../renders/work/assets'

/**
 * Proves a card of the shelf, or one that is sent: it looks at every frame. `backdrop` names a picture that the card is for, `rosterId` a
 * roster whose rows are proved with it.
 */
export default route(async (event) => {
  const body = await bodyJson(event)
  const card =
    body.document === undefined ? (await findCard(String(body.cardId ?? ''))).document : expectCard(body.document)
  const assets = assetsHere(useDatabase(), useRuntimeConfig().storage)
  const own = body.backdrop === undefined ? [] : [await groundOf(assets, String(body.backdrop))]
  const rows = body.rosterId === undefined ? [] : await rowsOf(card, String(body.rosterId))
  return proveCard(card, assets, { own, rows })
})

async function rowsOf(card: Card, rosterId: string): Promise<ProofRow[]> {
  const { document } = await findRoster(rosterId)
  return proofRows(card, document, broughtBy(await picturesByName()))
}

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
