<script setup lang="ts">
import type { ParameterPlace } from '#core/card/addresses'
import { isOfMotor } from '#core/card/addresses'
import { useParameter } from '~/composables/parameter'
import ColourField from './ColourField.vue'
import KeyDot from './KeyDot.vue'
import HintText from './HintText.vue'
import FieldMark from './FieldMark.vue'

const props = defineProps<{ place: ParameterPlace; name?: string }>()
const { value, moving, keyHere, write, key, reset } = useParameter(() => props.place)
</script>

<template>
  <div class="row field-row">
    <FieldMark v-if="!isOfMotor(place.address)" :address="place.address" />
    <span class="label" @dblclick="reset">
      {{ name ?? place.parameter.label }}
      <HintText :text="place.parameter.help" />
    </span>
    <ColourField :model-value="String(value)" :label="place.label" @update:model-value="write" />
    <KeyDot :moving="moving" :here="keyHere" :label="place.label" @toggle="key" />
  </div>
</template>

<style scoped>
.row {
  grid-template-columns: 78px 1fr 18px;
}
.label {
  overflow: hidden;
  color: var(--ink-2);
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
