<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import { fileStem } from '#core/formats/file-stem'
import type { Roster } from '#core/rosters/roster'
import { rosterCsv } from '#core/rosters/table-out'
import { chosenFiles } from '~/composables/chosen-file'
import { download } from '~/composables/download'
import { useCards } from '~/stores/cards'

/** What is done with a roster as a whole: the card that it fills, rows and columns, tables in and out. */
const props = defineProps<{ roster: Roster; cardId: string; hasSelected: boolean; takesPictures: boolean }>()
const emit = defineEmits<{
  fill: [cardId: string | null]
  addRow: []
  addColumn: []
  duplicate: []
  remove: []
  table: [file: File | null]
  pictures: [files: File[]]
}>()
/** Only rows that say these are shown. */
const words = defineModel<string>('words', { required: true })

const cards = useCards()
const tablePicker = useTemplateRef<HTMLInputElement>('table')
const picturePicker = useTemplateRef<HTMLInputElement>('pictures')
/** Cards with fields stand first: others take no rows. */
const choices = computed(() =>
  [...cards.list].sort((a, b) => Number(b.fields.length > 0) - Number(a.fields.length > 0)),
)
const saveCsv = () =>
  download(new Blob([rosterCsv(props.roster)], { type: 'text/csv' }), `${fileStem(props.roster.name)}.csv`)
const value = (event: Event) => (event.target as HTMLSelectElement).value
</script>

<template>
  <div class="bar">
    <label
      >Fills
      <select
        class="plain-field"
        :value="cardId"
        aria-label="The card that is filled"
        @change="emit('fill', value($event) || null)"
      >
        <option value="" disabled>Choose a card</option>
        <option v-for="one in choices" :key="one.id" :value="one.id">
          {{ one.name }} · {{ one.fields.length > 0 ? one.fields.join(', ') : 'no fields' }}
        </option>
      </select></label
    >
    <input v-model="words" class="plain-field find" type="search" placeholder="Find rows" aria-label="Find rows" />
    <span class="gap" />
    <button class="plain-button" @click="emit('addRow')">Add a row</button>
    <button class="plain-button" @click="emit('addColumn')">Add a column</button>
    <button class="plain-button" :disabled="!hasSelected" @click="emit('duplicate')">Copy rows</button>
    <button class="plain-button" :disabled="!hasSelected" @click="emit('remove')">Remove rows</button>
    <button v-if="takesPictures" class="plain-button" @click="picturePicker?.click()">Bring pictures in…</button>
    <button class="plain-button" @click="tablePicker?.click()">Bring a table in…</button>
    <button class="plain-button" :disabled="roster.rows.length === 0" @click="saveCsv">Save as CSV</button>
    <input
      ref="table"
      type="file"
      accept=".csv,.tsv,.txt,.json,text/csv"
      hidden
      data-test="table-file"
      @change="emit('table', chosenFiles($event)[0] ?? null)"
    />
    <input
      ref="pictures"
      type="file"
      accept="image/png,image/jpeg,image/webp"
      multiple
      hidden
      data-test="picture-files"
      @change="emit('pictures', chosenFiles($event))"
    />
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 7px 14px;
  border-bottom: 1px solid var(--line);
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
  color: var(--ink-2);
}
select {
  width: 250px;
}
.find {
  width: 120px;
}
.gap {
  flex: 1;
}
</style>
