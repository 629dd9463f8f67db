import type { Card } from '../../core/card/schema'
import type { ProofLine } from '../../core/judge/proof/definition'
import type { HeldAgainst } from '../../core/judge/proof/look'
import { PLAIN_FORM } from '../../core/kernels/pixel-form'
import { fontsOf, shippedFonts } from '../fonts/shipped'
import { loadPictures } from '../pictures/pictures-of'
import { inTurn } from '../pictures/turns'
import { FrameThread } from './frame-thread'
import type { Assets } from './work/assets'

export interface Proved {
  passed: boolean
  lines: ProofLine[]
}

/** The proof sheet of a card, made in a thread; one card at a time. */
export const proveCard = (card: Card, assets: Assets, against: HeldAgainst = {}): Promise<Proved> =>
  inTurn(async () => {
    const cards = [card, ...(against.rows ?? []).map((row) => row.card)]
    const thread = new FrameThread({
      ...{ card, form: PLAIN_FORM, sequences: assets.sequence },
      fonts: await fontsOf(cards, [shippedFonts, assets.font]),
      pictures: await loadPictures(cards, assets.picture),
    })
    try {
      return await thread.prove(against)
    } finally {
      await thread.end()
    }
  })
