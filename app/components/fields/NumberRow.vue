<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { isOfMotor } from '#core/card/addresses'
import type { LengthParameter, NumberParameter } from '#core/values/parameters'
import { arithmetic } from '#core/formats/arithmetic'
import { useParameter } from '~/composables/parameter'
import { followPointer } from '~/composables/follow-pointer'
import { useBench } from '~/stores/bench'
import { useNotices } from '~/stores/notices'
import { useRibbon } from '~/stores/ribbon'
import KeyDot from './KeyDot.vue'
import HintText from './HintText.vue'
import FieldMark from './FieldMark.vue'

const props = defineProps<{
  place: ParameterPlace
  referenceOf?: (piece: string) => number
  /** Two to a line: the label is dragged, there is no slider. */
  compact?: boolean
}>()

const bench = useBench()
const notices = useNotices()
const ribbon = useRibbon()
const { amount, moving, driven, mixed, keyHere, percent, writeAmount, key, reset, unit } = useParameter(
  () => props.place,
  (piece) => props.referenceOf?.(piece) ?? 0,
)
const parameter = computed(() => props.place.parameter as NumberParameter | LengthParameter)
const isLength = computed(() => parameter.value.type === 'length')
const suffix = computed(() =>
  isLength.value ? (percent.value ? '%' : 'px') : (parameter.value as NumberParameter).unit,
)
const slider = computed<readonly [number, number]>(() => {
  const [low, high] = parameter.value.slider ?? [parameter.value.min, parameter.value.max]
  return percent.value ? [low < 0 ? -60 : 0, 60] : [low, high]
})
const filled = computed(() => {
  const [low, high] = slider.value
  return `${Math.min(100, Math.max(0, ((amount.value - low) / (high - low)) * 100))}%`
})
const shown = computed(() => String(Math.round(amount.value * 100) / 100))
const draft = ref<string | null>(null)

function slide(event: Event) {
  bench.dragging = true
  writeAmount(Number((event.target as HTMLInputElement).value))
}

/** A number or simple arithmetic, with or without the unit; for lengths the typed unit is taken over. */
function commit() {
  const text = draft.value
  draft.value = null
  if (text === null) return
  const [, sum = '', typedUnit] = /^(.*?)\s*(px|%|°|‰)?\s*$/.exec(text) ?? []
  const typed = arithmetic(sum)
  if (typed === null) {
    notices.fault({ message: `“${text}” is no number.`, remedy: 'Type a number, or arithmetic such as 240/2.' })
    return
  }
  if (isLength.value && (typedUnit === '%' || typedUnit === 'px')) unit(typedUnit)
  bench.endStep()
  writeAmount(typed)
  bench.endStep()
}

function stepBy(event: KeyboardEvent, direction: 1 | -1) {
  event.preventDefault()
  draft.value = null
  writeAmount(amount.value + direction * parameter.value.step * (event.shiftKey ? 10 : 1))
}

/** Dragging the label: a pixel is a step, ten with Shift, a tenth with Alt. */
function drag(event: PointerEvent) {
  bench.endStep()
  let last = event.clientX
  let value = amount.value
  const move = (next: PointerEvent) => {
    bench.dragging = true
    value += (next.clientX - last) * parameter.value.step * (next.shiftKey ? 10 : next.altKey ? 0.1 : 1)
    last = next.clientX
    writeAmount(value)
  }
  followPointer(event, move, () => bench.endStep())
}
</script>

<template>
  <div class="row" :class="{ compact }">
    <FieldMark v-if="!isOfMotor(place.address)" :address="place.address" />
    <span class="label" @pointerdown.prevent="drag" @dblclick="reset">
      {{ parameter.label }}
      <HintText :text="`${parameter.help}. Drag to change, double-click for the standard value`" />
    </span>
    <input
      v-if="!compact"
      class="slider"
      type="range"
      :min="slider[0]"
      :max="slider[1]"
      :step="parameter.step"
      :value="amount"
      :style="{ '--filled': filled }"
      :aria-label="`${place.label}, slider`"
      @input="slide"
      @change="bench.endStep()"
    />
    <span class="value" :class="{ mixed }">
      <input
        :value="draft ?? shown"
        :title="mixed ? 'The selected pieces have different values' : undefined"
        :aria-label="place.label"
        inputmode="decimal"
        @focus="($event.target as HTMLInputElement).select()"
        @input="draft = ($event.target as HTMLInputElement).value"
        @change="commit"
        @blur="commit"
        @keydown.enter="($event.target as HTMLInputElement).blur()"
        @keydown.up="stepBy($event, 1)"
        @keydown.down="stepBy($event, -1)"
      />
      <button
        v-if="isLength"
        class="unit"
        :aria-label="`Unit of ${place.label}: ${suffix}`"
        @click="unit(percent ? 'px' : '%')"
      >
        {{ suffix }}
        <HintText
          :text="
            percent ? 'In % of the piece: fits pieces of any size. Change to px' : 'In px. Change to % of the piece'
          "
        />
      </button>
      <span v-else class="unit">{{ suffix }}</span>
    </span>
    <KeyDot
      :moving="moving"
      :here="keyHere"
      :driven="driven"
      :drives="!isOfMotor(place.address)"
      :label="place.label"
      @toggle="key"
      @motors="ribbon.motorsOf = place.address"
    />
  </div>
</template>

<style scoped>
.row {
  position: relative;
  display: grid;
  grid-template-columns: 78px 1fr 76px 24px;
  gap: 6px;
  align-items: center;
  min-height: 30px;
}
.compact {
  grid-template-columns: 50px 1fr 24px;
  gap: 2px;
}
.compact .label {
  font-size: 12px;
}
.compact .unit {
  min-width: 14px;
  padding: 0 3px 0 1px;
}
.compact .value input {
  padding-left: 2px;
}
.label {
  overflow: hidden;
  color: var(--ink-2);
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: ew-resize;
  touch-action: none;
  user-select: none;
}
.label:hover {
  color: var(--ink);
}
.slider {
  width: 100%;
  height: 18px;
  appearance: none;
  cursor: pointer;
  background: none;
}
.slider::-webkit-slider-runnable-track {
  height: 4px;
  background: linear-gradient(90deg, var(--teal) var(--filled), var(--paper-3) var(--filled));
  border-radius: 2px;
}
.slider::-moz-range-track {
  height: 4px;
  background: linear-gradient(90deg, var(--teal) var(--filled), var(--paper-3) var(--filled));
  border-radius: 2px;
}
.slider::-webkit-slider-thumb {
  width: 12px;
  height: 16px;
  margin-top: -6px;
  appearance: none;
  background: var(--raised);
  border: 2px solid var(--teal);
  border-radius: 4px;
}
.slider::-moz-range-thumb {
  width: 9px;
  height: 13px;
  background: var(--raised);
  border: 2px solid var(--teal);
  border-radius: 4px;
}
.value {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  height: 24px;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 5px;
}
.value.mixed input {
  font-style: italic;
  color: var(--ink-2);
}
.value:focus-within {
  border-color: var(--teal);
  box-shadow: 0 0 0 1px var(--teal);
}
.value input {
  width: 100%;
  min-width: 0;
  padding-left: 6px;
  font: inherit;
  color: inherit;
  text-align: right;
  background: none;
  border: 0;
  outline: 0;
}
.unit {
  min-width: 24px;
  height: 24px;
  padding: 0 4px 0 2px;
  font: inherit;
  font-size: 12px;
  line-height: 24px;
  color: var(--ink-2);
  background: none;
  border: 0;
}
button.unit {
  cursor: pointer;
}
button.unit:hover {
  color: var(--teal);
}
</style>
