<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import type { CardField } from '#core/card/fields'
import { headingOf } from '#core/card/fields'
import type { Fault } from '#core/errors'
import { OWN_COLUMNS } from '#core/rosters/edit'
import { ENCODINGS } from '#core/rosters/encoding'
import type { Roster } from '#core/rosters/roster'
import { readRosterText, ROSTER_FORMAT } from '#core/rosters/roster'
import type { Table, TableForm } from '#core/rosters/table-in'
import { DELIMITERS, readTable } from '#core/rosters/table-in'
import type { ColumnUse } from '#core/rosters/table-to-roster'
import { rosterFrom, usesOf } from '#core/rosters/table-to-roster'
import { faultOf } from '~/composables/api'
import { WaxError } from '#core/errors'

/** A table before it is taken: what was found of it, which can be said otherwise, and its first rows. */
const props = defineProps<{ file: File | null; fields: readonly CardField[] }>()
const emit = defineEmits<{ take: [roster: Roster]; close: [] }>()

const OWN_WORDS = { name: 'the name of its files', on: 'on or off', in: 'in', out: 'out', note: 'a note' } as const
/** Rows that are shown. */
const SHOWN = 6

const bytes = shallowRef<Uint8Array>(new Uint8Array())
const table = shallowRef<Table | null>(null)
const uses = ref<ColumnUse[]>([])
const fault = ref<Fault | null>(null)

const labels = computed(() => new Set(props.fields.map(({ label }) => headingOf(label))))
const made = computed(() =>
  table.value ? rosterFrom(props.file!.name.replace(/\.[a-z]+$/i, ''), table.value, uses.value) : null,
)

watch(
  () => props.file,
  async (file) => {
    table.value = null
    fault.value = null
    if (!file) return
    bytes.value = new Uint8Array(await file.arrayBuffer())
    const text = new TextDecoder().decode(bytes.value.subarray(0, 4096))
    if (text.includes(`"${ROSTER_FORMAT}"`)) {
      const { document, faults } = readRosterText(new TextDecoder().decode(bytes.value))
      if (document) emit('take', document)
      else fault.value = faults[0] ?? null
    } else read({})
  },
  { immediate: true },
)

function read(said: Partial<TableForm>) {
  try {
    table.value = readTable(bytes.value, said, props.fields)
    uses.value = usesOf(table.value, props.fields)
    fault.value = null
  } catch (error) {
    table.value = null
    fault.value = error instanceof WaxError ? error.fault : faultOf(error)
  }
}

/** Says one thing otherwise; the rest stays as it was found. */
const say = (part: Partial<TableForm>) => read({ ...table.value!.form, ...part })

const wordOf = (use: ColumnUse) => (use.to === 'column' ? 'column' : use.to === 'own' ? `own ${use.name}` : 'nothing')
function use(i: number, word: string) {
  const heading = table.value!.headings[i] || `Column ${i + 1}`
  const [, own] = word.split(' ')
  const made: ColumnUse =
    word === 'column'
      ? { to: 'column', heading }
      : own
        ? { to: 'own', name: own as (typeof OWN_COLUMNS)[number] }
        : { to: 'nothing' }
  uses.value = uses.value.map((one, at) => (at === i ? made : one))
}

const rename = (i: number, heading: string) => {
  if (heading.trim())
    uses.value = uses.value.map((one, at) => (at === i ? { to: 'column', heading: heading.trim() } : one))
}

const fills = (one: ColumnUse) => one.to === 'column' && labels.value.has(headingOf(one.heading))
const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <VDialog :model-value="file !== null" max-width="980" @update:model-value="!$event && emit('close')">
    <section class="sheet dialog-sheet" aria-label="Bring a table in">
      <h2>{{ file?.name }}</h2>
      <p v-if="fault" class="warn" role="alert">{{ fault.message }} {{ fault.remedy }}</p>
      <template v-if="table">
        <div class="form">
          <label
            >Read as<select
              class="plain-field"
              :value="table.form.encoding"
              @change="say({ encoding: value($event) as TableForm['encoding'] })"
            >
              <option v-for="{ name, label } in ENCODINGS" :key="name" :value="name">{{ label }}</option>
            </select></label
          >
          <label v-if="table.form.delimiter !== null"
            >Cells are parted by<select
              class="plain-field"
              :value="table.form.delimiter"
              @change="say({ delimiter: value($event) as TableForm['delimiter'] })"
            >
              <option v-for="{ sign, label } in DELIMITERS" :key="sign" :value="sign">{{ label }}</option>
            </select></label
          >
          <label v-if="table.form.delimiter !== null" class="check"
            ><input
              type="checkbox"
              :checked="table.form.header"
              @change="say({ header: ($event.target as HTMLInputElement).checked })"
            />
            The first row has the headings</label
          >
        </div>
        <div class="scroll">
          <table>
            <thead>
              <tr>
                <th v-for="(one, i) in uses" :key="i" :class="{ fills: fills(one) }">
                  <input
                    class="plain-field"
                    :value="one.to === 'column' ? one.heading : table.headings[i] || `Column ${i + 1}`"
                    :disabled="one.to !== 'column'"
                    :aria-label="`Heading of column ${i + 1}`"
                    list="card-fields"
                    @change="rename(i, value($event))"
                  />
                  <select
                    class="plain-field"
                    :value="wordOf(one)"
                    :aria-label="`What column ${i + 1} becomes`"
                    @change="use(i, value($event))"
                  >
                    <option value="column">{{ fills(one) ? 'fills the field' : 'a column' }}</option>
                    <option v-for="name in OWN_COLUMNS" :key="name" :value="`own ${name}`">
                      {{ OWN_WORDS[name] }}
                    </option>
                    <option value="nothing">left out</option>
                  </select>
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(cells, y) in table.rows.slice(0, SHOWN)" :key="y">
                <td v-for="(cell, x) in cells" :key="x" :class="{ out: uses[x]?.to === 'nothing' }">{{ cell }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <datalist id="card-fields">
          <option v-for="{ id, label } in fields" :key="id" :value="label" />
        </datalist>
        <p class="quiet">
          {{ table.rows.length }} {{ table.rows.length === 1 ? 'row' : 'rows'
          }}{{ table.rows.length > SHOWN ? `, the first ${SHOWN} of them shown` : '' }}.
          <template v-if="fields.length > 0 && !uses.some(fills)">
            No heading is the name of a field: write a field’s name over the column that fills it.
          </template>
        </p>
        <p v-for="note in [...table.notes, ...(made?.notes ?? [])]" :key="note" class="warn">{{ note }}</p>
      </template>
      <div class="foot">
        <button type="button" class="plain-button" @click="emit('close')">Not now</button>
        <button class="wax-button" :disabled="!made" @click="emit('take', made!.roster)">
          Take {{ table?.rows.length ?? 0 }} {{ table?.rows.length === 1 ? 'row' : 'rows' }}
        </button>
      </div>
    </section>
  </VDialog>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 14px;
}
.form {
  display: flex;
  gap: 18px;
  align-items: end;
}
.form label {
  display: grid;
  gap: 4px;
  color: var(--ink-2);
}
.form .check {
  display: flex;
  gap: 8px;
  align-items: center;
  height: 26px;
}
.scroll {
  max-height: 330px;
  overflow: auto;
  border: 1px solid var(--line);
  border-radius: 6px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  position: sticky;
  top: 0;
  min-width: 130px;
  padding: 6px;
  background: var(--paper-2);
}
th input,
th select {
  width: 100%;
  margin-bottom: 3px;
}
th.fills input {
  border-color: var(--teal);
}
td {
  max-width: 260px;
  padding: 4px 10px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  border-top: 1px solid var(--line);
}
td.out {
  text-decoration: line-through;
  opacity: 0.5;
}
p {
  margin: 0;
}
.warn {
  color: var(--wax);
}
</style>
