import type { Card } from '../../core/card/schema'
import type { Ground } from '../../core/judge/proof/grounds'
import type { ProofLine } from '../../core/judge/proof/definition'
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

/** The proof sheet of a card, made in a thread; one card at a time. `own`: what it is for, beside the plain grounds. */
export const proveCard = (card: Card, assets: Assets, own: readonly Ground[] = []): Promise<Proved> =>
  inTurn(async () => {
    const thread = new FrameThread({
      ...{ card, form: PLAIN_FORM, sequences: assets.sequence },
      fonts: await fontsOf(card, [shippedFonts, assets.font]),
      pictures: await loadPictures([card], assets.picture),
    })
    try {
      return await thread.prove(own)
    } finally {
      await thread.end()
    }
  })
