<script setup lang="ts">
import type { ParameterPlace } from '#core/card/addresses'
import { useParameter } from '~/composables/parameter'

const props = defineProps<{ place: ParameterPlace }>()
const { value, write } = useParameter(() => props.place)
</script>

<template>
  <label class="row">
    <input
      type="checkbox"
      :checked="value === true"
      :aria-label="place.label"
      @change="write(($event.target as HTMLInputElement).checked, '')"
    />
    {{ place.parameter.label }}
    <VTooltip activator="parent" :text="place.parameter.help" location="left" />
  </label>
</template>

<style scoped>
.row {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 28px;
  color: var(--ink-2);
  cursor: pointer;
}
input {
  width: 15px;
  height: 15px;
  accent-color: var(--teal);
}
</style>
