<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { writeValue } from '#core/edit/values'
import type { BeforeStep } from '#core/frame/before-step'
import { place, unplace } from '#core/outline/outline'
import { MeasuredStrand } from '#core/outline/strand'
import type { Grip } from '#core/steps/grips'
import { stepOf } from '#core/steps/table'
import type { Point } from '#core/units'
import { valueAt, valuesAt } from '#core/values/evaluated'
import type { Length } from '#core/values/moving'
import type { StageHand } from '~/composables/stage-hand'
import { useMoment } from '~/composables/moment'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { onEngine } from '~/workers/engine-pool'
import HandleLine from './HandleLine.vue'

/** Hands on the grips of an outline step: what its definition has to take hold of. */
const props = defineProps<{ hand: StageHand; engineName: string }>()
const bench = useBench()
const ribbon = useRibbon()
const { base } = useMoment()
const { onScreen } = props.hand

const step = computed(() => bench.step!)
const definition = computed(() => stepOf(step.value.kind))
const entry = computed(() => props.hand.outlook().find(({ id }) => id === bench.piece?.id))

// What comes into the step does not change while the step is moved by hand.
const before = ref<BeforeStep | null>(null)
watch(
  [step, () => bench.card, () => ribbon.frame, () => bench.dragging],
  async () => {
    if (!definition.value.grips || bench.dragging) return
    const [piece, id] = [bench.piece!.id, step.value.id]
    before.value = await onEngine(
      (face) => face.beforeStep(props.engineName, piece, id, ribbon.frame),
      () => null,
    )
  },
  { immediate: true },
)
const line = computed(() => {
  const all = (before.value?.lines ?? []).map(({ points, closed, thickness }) => ({
    along: new MeasuredStrand({ points, closed, smooth: [] }),
    thickness,
  }))
  return all.reduce<(typeof all)[number] | null>(
    (most, one) => (most && most.along.length >= one.along.length ? most : one),
    null,
  )
})
const px = (length: Length) =>
  typeof length === 'number' ? length : (length.value / 100) * (before.value?.reference ?? 0)

const grips = computed<Grip[]>(() => {
  if (!before.value || !entry.value) return []
  const values = valuesAt(definition.value.parameters, step.value, base.value)
  return definition.value.grips?.(values, { px, whole: before.value.whole, line: line.value }) ?? []
})

/** Lengths are written as they are stored: in % where they are in % now. */
function put(label: string, values: Record<string, number>) {
  const { parameters, label: own } = definition.value
  const address = `${bench.piece!.id}/${step.value.id}`
  const reference = Math.max(1, before.value?.reference ?? 1)
  bench.edit(
    `${label} of ${own.toLowerCase()}`,
    (card) =>
      Object.entries(values).reduce((next, [name, value]) => {
        const parameter = parameters[name]!
        const inPercent = typeof valueAt(parameter, step.value[name], base.value) === 'object'
        const stored = inPercent ? (value / reference) * 100 : value
        const cut = 'min' in parameter ? Math.min(parameter.max, Math.max(parameter.min, stored)) : stored
        return writeValue(next, `${address}/${name}`, ribbon.frame, Math.round(cut * 10) / 10)
      }, card),
    `${address}/hand`,
  )
}

const onCard = (point: Point) => place(entry.value!.placement, point)
/** What a grip is moved by stays the one that was taken hold of. */
const move = (grip: Grip) => {
  const { placement } = entry.value!
  return (point: Point) => put(grip.label, grip.values(unplace(placement, point)))
}
</script>

<template>
  <g class="step">
    <template v-for="grip in grips" :key="grip.label">
      <HandleLine v-if="grip.from" :from="onScreen(onCard(grip.from))" :to="onScreen(onCard(grip.at))" />
      <rect
        class="grip"
        :x="onScreen(onCard(grip.at)).x - 6.5"
        :y="onScreen(onCard(grip.at)).y - 6.5"
        width="13"
        height="13"
        :rx="grip.from ? 3 : 6.5"
        tabindex="0"
        role="button"
        :aria-label="`${grip.label}, on the stage: arrows move it`"
        @pointerdown.stop="hand.drag($event, move(grip))"
        @keydown="hand.nudge($event, onCard(grip.at), move(grip))"
      >
        <title>{{ grip.label }}</title>
      </rect>
    </template>
  </g>
</template>

<style scoped>
.grip {
  cursor: move;
  fill: #9b2d26;
  stroke: #fff6ee;
  stroke-width: 1.8;
}
</style>
