<script setup lang="ts">
import { computed } from 'vue'
import { ROW_CHECKS } from '#core/judge/row/definition'
import type { RowAbout } from './row-about'

/** What was found in a row, in a few words. */
const props = defineProps<{ about: RowAbout }>()
const marks = computed(() => {
  const { faults, flags } = props.about
  const found = ROW_CHECKS.filter(({ id }) => flags?.some(({ check }) => check === id))
  return [
    ...(faults.length > 0
      ? [{ word: faults.length === 1 ? 'a cell' : `${faults.length} cells`, bad: true, tip: faults[0]!.message }]
      : []),
    ...found.map(({ id, label }) => ({
      ...{ word: label.toLowerCase(), bad: id === 'render' },
      tip: flags!.find(({ check }) => check === id)!.message,
    })),
  ]
})
</script>

<template>
  <span class="marks">
    <span v-for="mark in marks" :key="mark.word" :class="['mark', { bad: mark.bad }]" :title="mark.tip">{{
      mark.word
    }}</span>
    <span v-if="marks.length === 0" class="quiet">{{
      about.blank ? 'empty' : about.flags === null ? '…' : 'good'
    }}</span>
  </span>
</template>

<style scoped>
.marks {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
}
.mark {
  padding: 1px 6px;
  font-size: 12px;
  color: var(--ink);
  background: var(--paper-3);
  border-radius: 4px;
}
.mark.bad {
  color: var(--paper);
  background: var(--wax);
}
</style>
