<script setup lang="ts">
import type { Fault } from '#core/errors'

const faults = defineModel<Fault[]>({ required: true })
defineProps<{ fileName: string }>()
</script>

<template>
  <VDialog :model-value="faults.length > 0" max-width="560" @update:model-value="faults = []">
    <div class="sheet dialog-sheet" role="alertdialog" aria-label="The file cannot be read">
      <h2>{{ fileName }} cannot be brought in</h2>
      <p class="quiet">
        Nothing was changed. {{ faults.length === 1 ? 'One place is' : `${faults.length} places are` }} wrong:
      </p>
      <ul>
        <li v-for="(fault, i) in faults.slice(0, 50)" :key="i">
          <code>{{ fault.place }}</code>
          <span>{{ fault.message }}</span>
          <span class="quiet">{{ fault.remedy }}</span>
        </li>
      </ul>
      <button class="plain-button" @click="faults = []">Close</button>
    </div>
  </VDialog>
</template>

<style scoped>
ul {
  max-height: 50vh;
  padding: 0;
  overflow: auto;
  list-style: none;
}
li {
  display: grid;
  gap: 2px;
  padding: 8px 0;
  border-top: 1px solid var(--line);
}
code {
  font-size: 12px;
  color: var(--teal);
}
</style>
