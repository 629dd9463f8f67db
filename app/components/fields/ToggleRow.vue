<script setup lang="ts">
import type { ParameterPlace } from '#core/card/addresses'
import { isOfMotor } from '#core/card/addresses'
import { useParameter } from '~/composables/parameter'
import KeyDot from './KeyDot.vue'
import HintText from './HintText.vue'
import FieldMark from './FieldMark.vue'

const props = defineProps<{ place: ParameterPlace }>()
const { value, moving, keyHere, write, key } = useParameter(() => props.place)
</script>

<template>
  <div class="row">
    <FieldMark v-if="!isOfMotor(place.address)" :address="place.address" />
    <label>
      <input
        type="checkbox"
        :checked="value === true"
        :aria-label="place.label"
        @change="write(($event.target as HTMLInputElement).checked, '')"
      />
      {{ place.parameter.label }}
      <HintText :text="place.parameter.help" />
    </label>
    <KeyDot :moving="moving" :here="keyHere" :label="place.label" @toggle="key" />
  </div>
</template>

<style scoped>
.row {
  position: relative;
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
  min-height: 28px;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
  color: var(--ink-2);
  cursor: pointer;
}
input {
  width: 15px;
  height: 15px;
  accent-color: var(--teal);
}
</style>
