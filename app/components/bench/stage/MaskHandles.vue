<script setup lang="ts">
import { computed } from 'vue'
import { AREA_PARAMETERS, COMMON_MASK_PARAMETERS } from '#core/masks/definition'
import { grownEdge, maskGrips, maskRings } from '#core/masks/on-stage'
import { maskOf } from '#core/masks/table'
import { place, within } from '#core/outline/outline'
import { valuesAt } from '#core/values/evaluated'
import type { StageHand } from '~/composables/stage-hand'
import { useMoment } from '~/composables/moment'
import { usePutValues } from '~/composables/put-values'
import { useBench } from '~/stores/bench'
import GripHandles from './GripHandles.vue'
import PathHandles from './PathHandles.vue'

/** The edge of a mask, and hands on its place, its sides, its turn and its feather. */
const props = defineProps<{ hand: StageHand }>()
const bench = useBench()
const { base } = useMoment()

const mask = computed(() => bench.mask!)
const common = computed(() => valuesAt({ ...AREA_PARAMETERS, ...COMMON_MASK_PARAMETERS }, mask.value, base.value))
const values = computed(() => {
  const { parameters, also } = maskOf(mask.value.kind)
  return { ...valuesAt(parameters, mask.value, base.value), ...also?.(mask.value) } as never
})
const rings = computed(() => maskRings(mask.value.kind, values.value))

/** The space that its place counts in: a wash and what stays on the card have the card's. */
const parent = computed(() => {
  const onCard = { scale: 1, rotation: 0, x: 0, y: 0 }
  if (common.value.space === 'card' || bench.piece!.kind === 'wash') return onCard
  return props.hand.outlook().find(({ id }) => id === bench.piece!.id)?.placement ?? onCard
})
const stands = computed(() => {
  const { x, y, rotation } = common.value
  return within(parent.value, { x, y, rotation, scale: 1 })
})
/** Px of its space that 100 % stands for. */
const side = computed(() => {
  const { width, height } = bench.card!.frame
  if (bench.piece!.kind === 'wash') return Math.min(width, height)
  const stands = props.hand.outlook().find(({ id }) => id === bench.piece!.id)
  return stands ? (stands.reference * stands.placement.scale) / parent.value.scale : 0
})
const grow = computed(() => {
  const length = common.value.grow
  return typeof length === 'number' ? length : (length.value / 100) * side.value
})
const edge = computed(() =>
  grownEdge(rings.value, grow.value)
    .map(({ points }) => {
      const at = Array.from({ length: points.length / 2 }, (_, i) =>
        props.hand.onScreen(place(stands.value, { x: points[i * 2]!, y: points[i * 2 + 1]! })),
      )
      return `M${at.map((point) => `${point.x},${point.y}`).join('L')}Z`
    })
    .join(''),
)
const grips = computed(() => maskGrips(mask.value.kind, values.value, common.value, rings.value, side.value))
const putValues = usePutValues(
  () => mask.value,
  () => side.value,
)
</script>

<template>
  <g class="mask">
    <path class="edge under" :d="edge" />
    <path class="edge" :d="edge" />
    <PathHandles
      v-if="mask.kind === 'path'"
      :hand="hand"
      :piece="bench.piece!.id"
      :address="`${bench.piece!.id}/${mask.id}/path`"
      :path="mask.path!"
      :placement="stands"
    />
    <GripHandles
      :hand="hand"
      :grips="grips"
      :placement="parent"
      @put="(label, moved) => putValues(`${label} of mask`, moved)"
    />
  </g>
</template>

<style scoped>
.edge {
  pointer-events: none;
  fill: none;
  stroke: #fff6ee;
  stroke-width: 1.4;
  stroke-dasharray: 6 4;
}
.edge.under {
  stroke: #2b2420;
  stroke-width: 3;
  stroke-dasharray: none;
  stroke-opacity: 0.45;
}
</style>
