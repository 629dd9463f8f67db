import type { Ref } from 'vue'
import { onScopeDispose, shallowRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import type { PieceOutlook } from '#core/frame/outlook'
import { zonesOf } from '#core/time/held'
import type { Rect } from '#core/units'
import { THUMB } from '~/components/rosters/grid-columns'
import { forgetCard, onEngine, setCard } from '~/workers/engine-pool'

/** How much wider than the design's own words it shows, for those that are longer; and at least which share of the frame. */
const WIDER = 1.7
const LEAST = 0.45

const NAME = 'row-crop'

/** The part of a card that small pictures of its rows show: what stands in its hold, with room for longer words. */
export function useRowCrop(design: Ref<Card | null>): Ref<Rect> {
  const crop = shallowRef<Rect>({ left: 0, top: 0, right: 1920, bottom: 1080 })
  watch(
    design,
    async (card) => {
      if (!card) return
      crop.value = { left: 0, top: 0, right: card.frame.width, bottom: card.frame.height }
      const zones = zonesOf(card)
      const frame = Math.floor(zones ? (zones.hold + zones.out) / 2 : card.length / 2)
      setCard(NAME, card)
      const found = await onEngine<PieceOutlook[]>(
        (face) => face.outlook(NAME, frame),
        () => [],
      )
      if (design.value === card) crop.value = cropOf(card, found)
    },
    { immediate: true },
  )
  onScopeDispose(() => forgetCard(NAME))
  return crop
}

function cropOf({ frame }: Card, outlook: readonly PieceOutlook[]): Rect {
  const whole = { left: 0, top: 0, right: frame.width, bottom: frame.height }
  const seen = outlook.filter(
    ({ bounds }) => bounds.right > bounds.left && bounds.right > 0 && bounds.left < frame.width,
  )
  if (seen.length === 0) return whole
  const ink = {
    left: Math.max(0, Math.min(...seen.map(({ bounds }) => bounds.left))),
    top: Math.max(0, Math.min(...seen.map(({ bounds }) => bounds.top))),
    right: Math.min(frame.width, Math.max(...seen.map(({ bounds }) => bounds.right))),
    bottom: Math.min(frame.height, Math.max(...seen.map(({ bounds }) => bounds.bottom))),
  }
  const shape = THUMB.width / THUMB.height
  const height = (ink.bottom - ink.top) * 1.25
  const width = Math.min(frame.width, Math.max((ink.right - ink.left) * WIDER, height * shape, frame.width * LEAST))
  // As far from the left as the words stand, so that longer ones have their room.
  const left = Math.max(0, Math.min(ink.left - width * 0.06, frame.width - width))
  const tall = width / shape
  const top = (ink.top + ink.bottom) / 2 - tall / 2
  return { left, top, right: left + width, bottom: top + tall }
}
