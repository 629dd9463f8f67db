<script setup lang="ts">
import { computed } from 'vue'
import { writeValue } from '#core/edit/values'
import type { StoredGradient, StoredPaint } from '#core/values/moving'
import { isGradient } from '#core/values/moving'
import { paintValue } from '#core/values/evaluated'
import type { EvaluatedGradient } from '#core/values/evaluated'
import { coatOf } from '#core/coats/table'
import { place, unplace } from '#core/outline/outline'
import type { Placement } from '#core/outline/outline'
import { gradientBetween, gradientEnds } from '#core/paint/gradient'
import type { Point, Rect } from '#core/units'
import type { StageHand } from '~/composables/stage-hand'
import { useMoment } from '~/composables/moment'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import HandleLine from './HandleLine.vue'

const props = defineProps<{ hand: StageHand }>()
const bench = useBench()
const { base } = useMoment()
const ribbon = useRibbon()
const { onScreen } = props.hand

/** The gradient of the selected coat, or of the background while the card itself is selected. */
const found = computed<{ address: string; paint: StoredGradient } | null>(() => {
  const { coat, piece, card } = bench
  if (!piece) {
    const paint = card?.background
    return paint && isGradient(paint) && paint.type !== 'edge' ? { address: 'background', paint } : null
  }
  if (!coat) return null
  for (const [name, { type }] of Object.entries(coatOf(coat.kind).parameters)) {
    const paint = type === 'paint' ? (coat[name] as StoredPaint) : null
    if (paint && isGradient(paint) && paint.type !== 'edge') return { address: `${piece.id}/${coat.id}/${name}`, paint }
  }
  return null
})

/** What it hangs on. */
const space = computed<{ bounds: Rect; placement: Placement } | null>(() => {
  const { frame } = bench.card!
  const card = {
    bounds: { left: 0, top: 0, right: frame.width, bottom: frame.height },
    placement: { scale: 1, rotation: 0, x: 0, y: 0 },
  }
  if (!bench.piece || found.value?.paint.hang === 'card') return card
  const entry = props.hand.outlook().find(({ id }) => id === bench.piece!.id)
  return entry ? { bounds: entry.own, placement: entry.placement } : null
})

const evaluated = computed(() =>
  found.value ? (paintValue(found.value.paint, base.value) as EvaluatedGradient) : null,
)
const centre = computed<Point | null>(() => {
  if (!evaluated.value || !space.value) return null
  const { left, top, right, bottom } = space.value.bounds
  return { x: left + (right - left) * evaluated.value.x, y: top + (bottom - top) * evaluated.value.y }
})
/** The first and last point of the line, on the card. */
const ends = computed<[Point, Point] | null>(() => {
  if (!evaluated.value || !space.value) return null
  const { bounds, placement } = space.value
  const { type, angle } = evaluated.value
  if (type === 'linear') {
    const [a, b] = gradientEnds(evaluated.value, bounds)
    return [place(placement, a), place(placement, b)]
  }
  const middle = centre.value!
  const reach =
    type === 'conic'
      ? Math.min(bounds.right - bounds.left, bounds.bottom - bounds.top) / 2
      : radius(middle, bounds) * evaluated.value.scale
  const turn = type === 'conic' ? (angle * Math.PI) / 180 : 0
  const tip = { x: middle.x + Math.cos(turn) * reach, y: middle.y - Math.sin(turn) * reach }
  return [place(placement, middle), place(placement, tip)]
})

const radius = (c: Point, b: Rect) => Math.max(c.x - b.left, b.right - c.x, c.y - b.top, b.bottom - c.y)

function put(label: string, values: Record<string, number>) {
  const { address } = found.value!
  bench.edit(
    label,
    (card) =>
      Object.entries(values).reduce(
        (c, [name, value]) => writeValue(c, `${address}/${name}`, ribbon.frame, Math.round(value * 10) / 10),
        card,
      ),
    `${address}/ends`,
  )
}

/** Begins to move one of the two ends; gives what follows the hand. */
function mover(index: 0 | 1): (point: Point) => void {
  const { bounds, placement } = space.value!
  const start = ends.value!.map((point) => unplace(placement, point)) as [Point, Point]
  const { type } = evaluated.value!
  const [width, height] = [bounds.right - bounds.left, bounds.bottom - bounds.top]
  return (point) => {
    const at = unplace(placement, point)
    if (type === 'linear') {
      const { angle, scale, shift } = gradientBetween(index === 0 ? at : start[0], index === 1 ? at : start[1], bounds)
      put('Ends of the gradient', { angle, scale: scale * 100, shift: shift * 100 })
    } else if (index === 0) {
      put('Middle of the gradient', {
        x: ((at.x - bounds.left) / width) * 100,
        y: ((at.y - bounds.top) / height) * 100,
      })
    } else if (type === 'radial') {
      const reach = Math.hypot(at.x - start[0].x, at.y - start[0].y)
      put('Reach of the gradient', { scale: Math.max(1, (reach / radius(start[0], bounds)) * 100) })
    } else {
      put('Turn of the gradient', { angle: (Math.atan2(start[0].y - at.y, at.x - start[0].x) * 180) / Math.PI })
    }
  }
}
const dragEnd = (event: PointerEvent, index: 0 | 1) => props.hand.drag(event, mover(index))
const nudgeEnd = (event: KeyboardEvent, index: 0 | 1) => props.hand.nudge(event, ends.value![index], mover(index))
const names = computed(() => [
  found.value?.paint.type === 'linear' ? 'First colour' : 'Middle of the gradient',
  'Last colour',
])
</script>

<template>
  <g v-if="ends" class="gradient">
    <HandleLine :from="onScreen(ends[0])" :to="onScreen(ends[1])" />
    <circle
      v-for="index in [0, 1] as const"
      :key="index"
      :class="{ last: index === 1 }"
      :cx="onScreen(ends[index]).x"
      :cy="onScreen(ends[index]).y"
      r="6"
      tabindex="0"
      role="button"
      :aria-label="`${names[index]}, on the stage: arrows move it`"
      @pointerdown.stop="dragEnd($event, index)"
      @keydown="nudgeEnd($event, index)"
    >
      <title>{{ names[index] }}</title>
    </circle>
  </g>
</template>

<style scoped>
circle {
  cursor: move;
  fill: #fff6ee;
  stroke: #2b2420;
  stroke-width: 1.5;
}
.last {
  fill: #2b2420;
  stroke: #fff6ee;
}
</style>
