<script setup lang="ts">
import type { CardField } from '#core/card/fields'
import type { RosterColumn } from '#core/rosters/roster'

/** Fields that no column fills, and columns that fill none: one is taken for the other. */
defineProps<{ fields: readonly CardField[]; idle: readonly RosterColumn[] }>()
const emit = defineEmits<{ take: [column: string, label: string] }>()
const value = (event: Event) => (event.target as HTMLSelectElement).value
</script>

<template>
  <p class="unfilled" role="status">
    <label v-for="field in fields" :key="field.id">
      No column is called “{{ field.label }}”:
      <select class="plain-field" value="" @change="emit('take', value($event), field.label)">
        <option value="" disabled>take one…</option>
        <option v-for="column in idle" :key="column.id" :value="column.id">{{ column.name }}</option>
      </select>
    </label>
  </p>
</template>

<style scoped>
.unfilled {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  padding: 6px 14px;
  margin: 0;
  background: var(--paper-2);
  border-bottom: 1px solid var(--line);
}
</style>
