<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, ref } from 'vue'
import { MOST_STROKES } from '#core/brushes/schema'
import type { PaintTarget } from '#core/edit/strokes'
import { putStroke, strokePoints } from '#core/edit/strokes'
import type { Point } from '#core/units'
import { followPointer } from '~/composables/follow-pointer'
import { penPoints, useMaskSpace } from '~/composables/mask-space'
import type { StageHand } from '~/composables/stage-hand'
import { useBench } from '~/stores/bench'
import { useBrush } from '~/stores/brush'
import { useNotices } from '~/stores/notices'

/** Paints on the stage: a stroke is one step of the history. Shift paints straight, the other end of a pen erases. */
const props = defineProps<{ hand: StageHand; target: PaintTarget }>()
const bench = useBench()
const brush = useBrush()
const notices = useNotices()
const pointer = ref<Point | null>(null)

/** From the space that is painted in to the card. */
const placement = useMaskSpace(props.hand)

/** The button of a pen's other end (Pointer Events 3 §4.1, `buttons`). */
const ERASER = 32

function press(event: PointerEvent) {
  if (event.button !== 0 && event.buttons !== ERASER) return
  const { target } = props
  if (brush.strokes.length >= MOST_STROKES) {
    notices.fault({ message: `It holds ${MOST_STROKES} strokes already.`, remedy: 'Go on in a new painting.' })
    return
  }
  const from = placement.value
  const seen = (next: PointerEvent) => penPoints(props.hand, next, from)
  let drawn = seen(event)
  const stroke = brush.begun(strokePoints(drawn))
  if (event.buttons === ERASER) stroke.erase = true
  const label = stroke.erase ? 'Erase' : 'Paint a stroke'
  const put = (straight: boolean) =>
    bench.edit(
      label,
      (card) => putStroke(card, target, { ...stroke, points: strokePoints(drawn, straight) }),
      `stroke/${target.piece}/${target.mask}/${stroke.id}`,
    )
  bench.endStep()
  put(false)
  followPointer(
    event,
    (next) => {
      bench.dragging = true
      pointer.value = props.hand.cardPoint(next)
      drawn = [...drawn, ...seen(next)]
      put(next.shiftKey)
    },
    () => bench.endStep(),
  )
}

const radius = computed(() => (brush.size / 2) * placement.value.scale * props.hand.zoom())
const at = computed(() => pointer.value && props.hand.onScreen(pointer.value))

useEventListener(
  window,
  'keydown',
  (event: KeyboardEvent) => {
    if (event.key !== 'Escape') return
    brush.taken = false
    event.preventDefault()
    event.stopImmediatePropagation()
  },
  { capture: true },
)
</script>

<template>
  <g class="painting" :class="{ erasing: brush.erase }">
    <rect
      class="ground"
      x="-10000"
      y="-10000"
      width="30000"
      height="30000"
      @pointerdown.stop="press"
      @pointermove="pointer = hand.cardPoint($event)"
      @pointerleave="pointer = null"
      @dblclick.stop
    />
    <template v-if="at">
      <circle class="under" :cx="at.x" :cy="at.y" :r="Math.max(1.5, radius)" />
      <circle :cx="at.x" :cy="at.y" :r="Math.max(1.5, radius)" />
    </template>
  </g>
</template>

<style scoped>
.ground {
  cursor: crosshair;
  fill: transparent;
}
circle {
  pointer-events: none;
  fill: none;
  stroke: #fff6ee;
  stroke-width: 1.2;
}
.under {
  stroke: #2b2420;
  stroke-opacity: 0.5;
  stroke-width: 2.6;
}
.erasing circle:not(.under) {
  stroke-dasharray: 4 3;
}
</style>
