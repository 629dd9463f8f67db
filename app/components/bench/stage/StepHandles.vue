<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { BeforeStep } from '#core/frame/before-step'
import { MeasuredStrand } from '#core/outline/strand'
import type { Grip } from '#core/steps/grips'
import { stepOf } from '#core/steps/table'
import { valuesAt } from '#core/values/evaluated'
import type { Length } from '#core/values/moving'
import type { StageHand } from '~/composables/stage-hand'
import { useMoment } from '~/composables/moment'
import { usePutValues } from '~/composables/put-values'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { onEngine } from '~/workers/engine-pool'
import GripHandles from './GripHandles.vue'

/** Hands on the grips of an outline step: what its definition has to take hold of. */
const props = defineProps<{ hand: StageHand; engineName: string }>()
const bench = useBench()
const ribbon = useRibbon()
const { base } = useMoment()

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

const putValues = usePutValues(
  () => step.value,
  () => before.value?.reference ?? 1,
)
</script>

<template>
  <GripHandles
    v-if="entry"
    class="step"
    :hand="hand"
    :grips="grips"
    :placement="entry.placement"
    @put="(label, values) => putValues(`${label} of ${definition.label.toLowerCase()}`, values)"
  />
</template>
