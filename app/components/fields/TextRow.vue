<script setup lang="ts">
import type { ParameterPlace } from '#core/card/addresses'
import { useParameter } from '~/composables/parameter'
import HintText from './HintText.vue'
import KeyDot from './KeyDot.vue'

/** A short text that is a value: numbers of bands, tags of features. */
const props = defineProps<{ place: ParameterPlace }>()
const { value, moving, keyHere, write, key } = useParameter(() => props.place)
</script>

<template>
  <label class="row">
    <span class="label">{{ place.parameter.label }}<HintText :text="place.parameter.help" /></span>
    <input
      class="plain-field"
      :value="value"
      :aria-label="place.label"
      spellcheck="false"
      @change="write(($event.target as HTMLInputElement).value.trim(), '')"
    />
    <KeyDot :moving="moving" :here="keyHere" :label="place.label" @toggle="key" />
  </label>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 78px 1fr 24px;
  gap: 8px;
  align-items: center;
  min-height: 32px;
}
.label {
  color: var(--ink-2);
}
input {
  min-width: 0;
}
</style>
