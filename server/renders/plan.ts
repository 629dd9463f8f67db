import type { Card } from '../../core/card/schema'
import { LARGEST_SIDE } from '../../core/card/schema'
import { WaxError } from '../../core/errors'
import type { RenderOptions } from '../../core/formats/deliveries/render-options'
import { cannotCarry } from '../../core/formats/deliveries/cannot-carry'
import { deliveryOf } from '../../core/formats/deliveries/table'
import { heldFrame, heldLength } from '../../core/time/held'
import type { ProgrammeRun } from '../../core/rosters/run'
import { cardsOf, runFrames, takesOf } from '../../core/rosters/run'
import type { FilePlan } from './encoders/encoder'
import { expectFrames } from './limits'

/** What a render is made from. */
export interface RenderWork {
  document: Card
  options: RenderOptions
  /** Rows of a roster, each at its place in time; null for the card as it is. */
  programme: ProgrammeRun | null
}

/** What a render will be: its files, and which frame stands at each place of the run: of the card, or a take of its programme. */
export interface RenderPlan {
  plan: FilePlan
  order: number[]
  /** Its frames in the order in which they are first shown: what has to be made. */
  shown: number[]
  /** Whether its last frame goes over into its first. */
  loops: boolean
}

/** All cards that a render shows. */
export const shownCards = ({ document, programme }: RenderWork): readonly Card[] =>
  programme ? cardsOf(document, programme) : [document]

/** Throws a WaxError where there is nothing to render, or where the delivery cannot carry it. */
export function planFor(work: RenderWork, to: Pick<FilePlan, 'paths' | 'stem'>): RenderPlan {
  const { document: card, options, programme } = work
  const length = programme ? runFrames(programme) : heldLength(card, options.holds)
  expectFrames(card, options, length, programme ? 'programme' : 'card')
  const { from, to: end, holds, scale } = options
  const delivery = deliveryOf(options.format)
  const frames = end - from
  const width = Math.max(1, Math.round(card.frame.width * scale))
  const height = Math.max(1, Math.round(card.frame.height * scale))
  if (Math.max(width, height) > LARGEST_SIDE) {
    throw new WaxError(
      'frame-too-large',
      'scale',
      `At ${scale * 100} % the picture would have ${width}×${height} px.`,
      `The most is ${LARGEST_SIDE} px a side: render at a smaller scale.`,
    )
  }
  const refusal = cannotCarry(delivery, { width, height, rate: card.rate, frames }, options)
  if (refusal) throw new WaxError(refusal.code, refusal.place, refusal.message, refusal.remedy)
  const plan: FilePlan = {
    ...to,
    ...{ width, height, frames, options, rate: card.rate, first: from, title: card.name },
    form: delivery.form(options),
  }
  const order = programme
    ? takesOf(card, programme).order.slice(from, end)
    : Array.from({ length: frames }, (_, i) => heldFrame(card, from + i, holds))
  // What was a programme does not go round.
  const loops = !programme && from === 0 && end === length && frames > 2
  return { plan, order, shown: [...new Set(order)], loops }
}

/** How much work a render is. Throws a WaxError where there is nothing to render, or where the delivery cannot carry it. */
export function sizeOf(work: RenderWork): { frames: number; shown: number } {
  const { plan, shown } = planFor(work, { paths: [], stem: '' })
  return { frames: plan.frames, shown: shown.length }
}
