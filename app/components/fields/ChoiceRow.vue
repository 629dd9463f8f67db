<script setup lang="ts">
import { computed } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { isOfMotor } from '#core/card/addresses'
import type { ChoiceParameter } from '#core/values/parameters'
import { useParameter } from '~/composables/parameter'
import HintText from './HintText.vue'
import FieldMark from './FieldMark.vue'

const props = defineProps<{ place: ParameterPlace }>()
const { value, write } = useParameter(() => props.place)
const parameter = computed(() => props.place.parameter as ChoiceParameter)
/** Few choices lie side by side; many open as a list. */
const few = computed(() => parameter.value.options.length <= 3)
</script>

<template>
  <div class="row field-row">
    <FieldMark v-if="!isOfMotor(place.address)" :address="place.address" />
    <span class="field-label">
      {{ parameter.label }}
      <HintText :text="parameter.help" />
    </span>
    <div v-if="few" class="few" role="radiogroup" :aria-label="place.label">
      <button
        v-for="option in parameter.options"
        :key="option.value"
        role="radio"
        :aria-checked="value === option.value"
        @click="write(option.value, '')"
      >
        {{ option.label }}
      </button>
    </div>
    <select
      v-else
      class="plain-field"
      :value="value"
      :aria-label="place.label"
      @change="write(($event.target as HTMLSelectElement).value, '')"
    >
      <option v-for="option in parameter.options" :key="option.value" :value="option.value">{{ option.label }}</option>
    </select>
  </div>
</template>

<style scoped>
.few {
  display: flex;
  overflow: hidden;
  border: 1px solid var(--line);
  border-radius: 6px;
}
.few button {
  flex: 1;
  height: 24px;
  font: inherit;
  color: var(--ink-2);
  cursor: pointer;
  background: var(--raised);
  border: 0;
}
.few button + button {
  border-left: 1px solid var(--line);
}
.few button[aria-checked='true'] {
  font-weight: 650;
  color: var(--ink);
  background: var(--teal-soft);
}
</style>
