<script setup lang="ts">
import { computed } from 'vue'
import type { Roster } from '#core/rosters/roster'
import { isBlank } from '#core/rosters/roster'
import type { RowAbout } from './row-about'

const props = defineProps<{
  roster: Roster
  /** Rows that the words of the search leave. */
  shown: number
  /** Rows with their place in the programme. */
  placed: number
  abouts: ReadonlyMap<string, RowAbout>
  /** Rows that the engine has looked at; null without a card. */
  looked: number | null
}>()
const onlyFound = defineModel<boolean>('onlyFound', { required: true })

const blank = computed(() => props.roster.rows.filter((row) => row.on && isBlank(row)).length)
const count = (wanted: (about: RowAbout) => boolean) => [...props.abouts.values()].filter(wanted).length
const wrong = computed(() => count(({ faults }) => faults.length > 0))
const flagged = computed(() => count(({ flags }) => (flags?.length ?? 0) > 0))
</script>

<template>
  <footer class="foot quiet" role="status">
    {{ roster.rows.length }} {{ roster.rows.length === 1 ? 'row' : 'rows' }},
    {{ roster.rows.filter(({ on }) => on).length }} on
    <template v-if="blank > 0"> · {{ blank }} empty: not rendered</template>
    <template v-if="shown < roster.rows.length"> · {{ shown }} shown</template>
    <template v-if="placed > 0"> · {{ placed }} with their place in the programme</template>
    <template v-if="wrong > 0">
      · <b class="bad">{{ wrong }} with a cell that cannot be read</b></template
    >
    <template v-if="looked !== null && looked < roster.rows.length"> · {{ looked }} looked at…</template>
    <label v-if="flagged + wrong > 0 || onlyFound" class="only">
      <input v-model="onlyFound" type="checkbox" />
      {{ flagged }} with something found: only these
    </label>
  </footer>
</template>

<style scoped>
.foot {
  display: flex;
  gap: 4px;
  padding: 5px 14px;
  font-size: 12px;
  border-top: 1px solid var(--line);
}
.only {
  display: flex;
  gap: 5px;
  align-items: center;
  margin-left: auto;
}
.only input {
  accent-color: var(--teal);
}
.bad {
  font-weight: 600;
  color: var(--wax);
}
</style>
