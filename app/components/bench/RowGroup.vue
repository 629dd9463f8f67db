<script setup lang="ts">
import { computed } from 'vue'
import type { ParameterPlace } from '#core/card/addresses'
import { defaultOf } from '#core/values/parameters'
import ParameterRow from '../fields/ParameterRow.vue'

/** Rows that are seldom needed, folded under a name; open where one of them is not as it ships. */
const props = defineProps<{ name: string; places: ParameterPlace[]; referenceOf: (piece: string) => number }>()
const used = computed(() =>
  props.places.some(({ parameter, value }) => JSON.stringify(value) !== JSON.stringify(defaultOf(parameter))),
)
</script>

<template>
  <details class="group" :data-rows="name" :open="used">
    <summary>{{ name }}</summary>
    <ParameterRow v-for="place in places" :key="place.address" :place="place" :reference-of="referenceOf" />
    <slot />
  </details>
</template>

<style scoped>
.group {
  border-top: 1px solid var(--line);
}
summary {
  padding: 6px 0;
  font-weight: 650;
  color: var(--ink-2);
  cursor: pointer;
}
summary:hover {
  color: var(--ink);
}
</style>
