import { computed } from 'vue'
import { AREA_PARAMETERS } from '#core/masks/definition'
import type { FreehandPoint } from '#core/edit/freehand'
import type { Placement } from '#core/outline/outline'
import { unplace, within } from '#core/outline/outline'
import { valuesAt } from '#core/values/evaluated'
import { useBench } from '~/stores/bench'
import { useMoment } from './moment'
import type { StageHand } from './stage-hand'

const ON_CARD: Placement = { scale: 1, rotation: 0, x: 0, y: 0 }

/** From the space of the selected mask, or else of the selected piece, to the card. */
export function useMaskSpace(hand: StageHand) {
  const bench = useBench()
  const { base } = useMoment()
  return computed(() => {
    const piece = hand.outlook().find(({ id }) => id === bench.selectedPiece)?.placement ?? ON_CARD
    if (!bench.mask) return piece
    const { x, y, rotation, space } = valuesAt(AREA_PARAMETERS, bench.mask, base.value)
    const parent = space === 'card' || bench.piece!.kind === 'wash' ? ON_CARD : piece
    return within(parent, { x, y, rotation, scale: 1 })
  })
}

/** Where a pen has been since the last event, in a space of the card, and how hard it was pressed; null for what is no pen. */
export function penPoints(hand: StageHand, event: PointerEvent, space: Placement = ON_CARD): FreehandPoint[] {
  const all = event.getCoalescedEvents?.() ?? []
  return (all.length > 0 ? all : [event]).map((one) => ({
    ...unplace(space, hand.cardPoint(one)),
    ...{ time: one.timeStamp, pressure: one.pointerType === 'pen' ? one.pressure : null },
  }))
}
