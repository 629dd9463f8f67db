<script setup lang="ts">
import { mdiChevronLeft, mdiChevronRight } from '@mdi/js'
import { computed, onMounted } from 'vue'
import { useBench } from '~/stores/bench'
import { useRosters } from '~/stores/rosters'
import { useShownRow } from '~/stores/shown-row'
import { attempt } from '~/composables/attempt'

/** Shows rows of a roster on the stage, one after the other; and makes a roster of the card's fields. */
const bench = useBench()
const rosters = useRosters()
const rows = useShownRow()

onMounted(() => attempt(() => rosters.load()))
/** Those that the card was filled by before stand first. */
const choices = computed(() => {
  const own = (cardId: string | null) => (cardId === bench.id ? 0 : 1)
  return [...rosters.list].sort((a, b) => own(a.cardId) - own(b.cardId))
})
const faults = computed(() => rows.filled?.faults ?? [])

const create = () =>
  attempt(async () => {
    const { name, fields } = bench.card!
    const { id } = await rosters.create(`${name}, roster`.slice(0, 200), fields, bench.id)
    await navigateTo(`/roster/${id}`)
  })
</script>

<template>
  <div class="picker">
    <div class="line">
      <select
        class="plain-field"
        :value="rows.rosterId"
        aria-label="Show rows of"
        @change="attempt(() => rows.choose(($event.target as HTMLSelectElement).value))"
      >
        <option value="">{{ choices.length > 0 ? 'Show rows of a roster…' : 'No roster yet' }}</option>
        <option v-for="roster in choices" :key="roster.id" :value="roster.id">
          {{ roster.name }} · {{ roster.rows }} rows
        </option>
      </select>
      <button v-if="rows.rosterId === ''" class="plain-button" @click="create">
        New roster
        <VTooltip activator="parent" text="A table with a column for each field: a row becomes a file" />
      </button>
      <NuxtLink v-else class="plain-button" :to="`/roster/${rows.rosterId}`">Open it</NuxtLink>
    </div>
    <div v-if="rows.on" class="shown" role="status">
      <button class="icon-button" aria-label="Row before" @click="rows.step(-1)">
        <VIcon :icon="mdiChevronLeft" size="18" />
      </button>
      <span>
        <b>{{ rows.filled?.title }}</b>
        <small class="quiet">{{ rows.index + 1 }} of {{ rows.rows.length }}; the card stays as it is</small>
      </span>
      <button class="icon-button" aria-label="Next row" @click="rows.step(1)">
        <VIcon :icon="mdiChevronRight" size="18" />
      </button>
      <button class="plain-button" @click="rows.stop()">Done</button>
    </div>
    <p v-for="fault in faults" :key="fault.field" class="fault">{{ fault.place }}: {{ fault.message }}</p>
  </div>
</template>

<style scoped>
.picker {
  display: grid;
  gap: 6px;
  margin-top: 4px;
}
.line {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
}
a {
  text-decoration: none;
}
.line select {
  min-width: 0;
}
.shown {
  display: grid;
  grid-template-columns: auto 1fr auto auto;
  gap: 4px;
  align-items: center;
  padding: 4px;
  background: var(--paper-2);
  border-radius: 6px;
}
.shown span {
  display: grid;
  min-width: 0;
}
.shown b {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.fault {
  margin: 0;
  font-size: 12px;
  color: var(--wax);
}
</style>
