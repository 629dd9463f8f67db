<script setup lang="ts">
import type { ParameterPlace } from '#core/card/addresses'
import { isOfMotor } from '#core/card/addresses'
import { useParameter } from '~/composables/parameter'
import HintText from './HintText.vue'
import KeyDot from './KeyDot.vue'
import FieldMark from './FieldMark.vue'

/** A short text that is a value: numbers of bands, tags of features. */
const props = defineProps<{ place: ParameterPlace }>()
const { value, moving, keyHere, write, key } = useParameter(() => props.place)
</script>

<template>
  <div class="row field-row">
    <FieldMark v-if="!isOfMotor(place.address)" :address="place.address" />
    <span class="field-label">{{ place.parameter.label }}<HintText :text="place.parameter.help" /></span>
    <input
      class="plain-field"
      :value="value"
      :aria-label="place.label"
      spellcheck="false"
      @change="write(($event.target as HTMLInputElement).value.trim(), '')"
    />
    <KeyDot :moving="moving" :here="keyHere" :label="place.label" @toggle="key" />
  </div>
</template>

<style scoped>
.row {
  grid-template-columns: 78px 1fr 24px;
}
input {
  min-width: 0;
}
</style>
