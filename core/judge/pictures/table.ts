import { allPieces } from '../../card/tree'
import type { FramePicture } from '../../frame/engine'
import type { Frames } from '../../units'
import { leastOf } from '../proof/legibility'
import { lettersOf } from '../proof/letters'
import type { Looked } from '../proof/look'
import type { LookedMoment } from '../proof/moment'
import type { WithEngine } from '../with-engine'
import { bandingPicture } from './banding-picture'
import { contrastPicture } from './contrast-picture'
import { haloPicture } from './halo-picture'

/** A picture of what a check looked at, where it found most. */
export interface CheckPicture {
  frame: Frames
  picture: FramePicture
  /** What its colours mean. */
  caption: string
}

type Draw = (looked: Looked, withEngine: WithEngine) => Promise<CheckPicture>

const worst = ({ moments }: Looked, of: (moment: LookedMoment) => number): LookedMoment =>
  moments.reduce((most, one) => (of(one) > of(most) ? one : most))

/** Checks that are shown as pictures. Flashes are a course over time: their numbers are drawn as a chart. */
export const CHECK_PICTURES: Readonly<Record<string, Draw>> = {
  async halo(looked, withEngine) {
    const { frame } = worst(looked, ({ fringes: { light, dark } }) => light + dark)
    const picture = await withEngine((engine) => engine.render(looked.card, frame))
    return {
      frame,
      picture: haloPicture(picture),
      caption: 'Edges with a light rim are red, those with a dark rim blue. None is good.',
    }
  },

  async banding(looked, withEngine) {
    const { frame } = worst(looked, ({ bands }) => bands.dithered.length)
    const picture = await withEngine((engine) => engine.render(looked.card, frame))
    const exact = await withEngine((engine) => engine.render(looked.card, frame, { bits: 'float' }))
    return {
      frame,
      picture: bandingPicture(picture, exact),
      caption:
        'Every other level of 8 bits is dark: above rounded, below dithered, as it is delivered. Grain hides bands.',
    }
  },

  async contrast(looked, withEngine) {
    const { card, grounds } = looked
    const least = (moment: LookedMoment, i: number) =>
      Math.min(21, ...moment.types.map(({ contrast }) => (contrast[i] ? leastOf(contrast[i]).ratio : 21)))
    const leasts = grounds.map((_, i) => Math.min(...looked.moments.map((moment) => least(moment, i))))
    const lowest = leasts.indexOf(Math.min(...leasts))
    const { frame } = worst(looked, (moment) => -least(moment, lowest))
    const picture = await withEngine((engine) => engine.render(card, frame))
    const letters: FramePicture[] = []
    for (const piece of allPieces(card.pieces)) {
      if (piece.kind === 'type') letters.push(await lettersOf(card, piece, frame, withEngine))
    }
    const ground = grounds[lowest]!
    return {
      frame,
      picture: contrastPicture(letters, picture, ground),
      caption: `Edges of letters over ${ground.label}: green 4.5 : 1 and more, amber 3 : 1 and more, red less.`,
    }
  },
}
