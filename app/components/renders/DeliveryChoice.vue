<script setup lang="ts">
import type { DeliveryFormat } from '#core/formats/deliveries/table'
import { DELIVERIES } from '#core/formats/deliveries/table'

// Which delivery: those that are transparent stand together, and what is not stands apart.

const format = defineModel<DeliveryFormat>({ required: true })

const groups = [
  { title: 'With transparency', deliveries: DELIVERIES.filter(({ alpha }) => alpha !== 'none') },
  { title: 'Without transparency', deliveries: DELIVERIES.filter(({ alpha }) => alpha === 'none') },
]
</script>

<template>
  <div class="formats" role="radiogroup" aria-label="Format">
    <template v-for="group in groups" :key="group.title">
      <p class="quiet">{{ group.title }}</p>
      <button
        v-for="delivery in group.deliveries"
        :key="delivery.format"
        type="button"
        role="radio"
        :title="delivery.help"
        :aria-checked="format === delivery.format"
        @click="format = delivery.format"
      >
        <b>{{ delivery.label }}</b>
        <span class="quiet">{{ delivery.takes }}</span>
      </button>
    </template>
  </div>
</template>

<style scoped>
.formats {
  display: grid;
  gap: 2px;
  align-content: start;
}
p {
  margin: 6px 0 2px;
  font-size: 12px;
}
p:first-child {
  margin-top: 0;
}
button {
  display: flex;
  gap: 10px;
  align-items: baseline;
  justify-content: space-between;
  padding: 5px 10px;
  font: inherit;
  color: inherit;
  text-align: left;
  cursor: pointer;
  background: none;
  border: 1px solid transparent;
  border-radius: 6px;
}
button b {
  font-weight: 600;
}
button .quiet {
  font-size: 12px;
}
button:hover {
  background: var(--paper-2);
}
button[aria-checked='true'] {
  background: var(--teal-soft);
  border-color: var(--teal);
}
</style>
