<script setup lang="ts">
import { computed } from 'vue'
import { isOfMotor, numbersOf } from '#core/card/addresses'
import { arithmetic } from '#core/formats/arithmetic'
import type { MotorParameter } from '#core/values/motors/definition'
import { followPointer } from '~/composables/follow-pointer'
import { useBench } from '~/stores/bench'

const props = defineProps<{ parameter: MotorParameter; value: unknown; unit: string; own: string }>()
const emit = defineEmits<{ change: [value: unknown, mark?: string] }>()

const bench = useBench()
const suffix = computed(() => {
  const { parameter } = props
  return parameter.type === 'amount' ? props.unit : parameter.type === 'number' ? parameter.unit : ''
})
/** Every number of the card that can be followed. */
const sources = computed(() =>
  numbersOf(bench.card!).filter(({ address }) => address !== props.own && !isOfMotor(address)),
)

function put(value: number, mark?: string) {
  const { parameter } = props
  if (!('min' in parameter) || !Number.isFinite(value)) return
  emit('change', Math.round(Math.min(parameter.max, Math.max(parameter.min, value)) * 1000) / 1000, mark)
}

function type(event: Event) {
  const input = event.target as HTMLInputElement
  const typed = arithmetic(input.value)
  if (typed === null) input.value = String(props.value)
  else put(typed)
}

function step(event: KeyboardEvent, direction: 1 | -1) {
  event.preventDefault()
  if ('step' in props.parameter)
    put(Number(props.value) + direction * props.parameter.step * (event.shiftKey ? 10 : 1), 'step')
}

/** Dragging the label: a pixel is a step, ten with Shift, a tenth with Alt. */
function drag(event: PointerEvent) {
  const { parameter } = props
  if (!('step' in parameter)) return
  bench.endStep()
  let last = event.clientX
  let value = Number(props.value)
  followPointer(
    event,
    (next) => {
      bench.dragging = true
      value += (next.clientX - last) * parameter.step * (next.shiftKey ? 10 : next.altKey ? 0.1 : 1)
      last = next.clientX
      put(value, 'drag')
    },
    () => bench.endStep(),
  )
}
</script>

<template>
  <label class="field" :title="parameter.help">
    <span :class="{ drags: 'step' in parameter }" @pointerdown.prevent="drag">{{ parameter.label }}</span>
    <select
      v-if="parameter.type === 'choice'"
      class="plain-field"
      :value="value"
      @change="emit('change', ($event.target as HTMLSelectElement).value)"
    >
      <option v-for="option in parameter.options" :key="option.value" :value="option.value">{{ option.label }}</option>
    </select>
    <select
      v-else-if="parameter.type === 'source'"
      class="plain-field"
      :value="value"
      @change="emit('change', ($event.target as HTMLSelectElement).value)"
    >
      <option value="">nothing yet</option>
      <option v-for="source in sources" :key="source.address" :value="source.address">{{ source.label }}</option>
    </select>
    <input
      v-else-if="parameter.type === 'formula'"
      class="plain-field formula"
      :value="value"
      spellcheck="false"
      maxlength="500"
      @change="emit('change', ($event.target as HTMLInputElement).value)"
    />
    <span v-else class="number">
      <input
        class="plain-field"
        :value="value"
        inputmode="decimal"
        @change="type"
        @keydown.up="step($event, 1)"
        @keydown.down="step($event, -1)"
      />
      <i>{{ suffix }}</i>
    </span>
  </label>
</template>

<style scoped>
.field {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 6px;
  align-items: center;
  min-height: 28px;
  color: var(--ink-2);
}
.drags {
  cursor: ew-resize;
  touch-action: none;
  user-select: none;
}
input,
select {
  width: 100%;
  height: 24px;
}
.formula {
  font:
    12px/1.4 ui-monospace,
    monospace;
}
.number {
  display: grid;
  grid-template-columns: 90px 1fr;
  gap: 6px;
  align-items: center;
}
.number input {
  text-align: right;
}
i {
  font-style: normal;
}
</style>
