<script setup lang="ts">
import { useEventListener, useTitle } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import { fileStem } from '#core/formats/file-stem'
import {
  addColumn,
  addRows,
  alsoCalled,
  duplicateRows,
  moveColumn,
  pasteBlock,
  removeColumn,
  removeRows,
  renameColumn,
  setCells,
} from '#core/rosters/edit'
import { idleColumns } from '#core/rosters/matching'
import type { Roster, RosterColumn } from '#core/rosters/roster'
import { rosterCsv } from '#core/rosters/table-out'
import BringTable from '~/components/rosters/BringTable.vue'
import NameDialog from '~/components/rosters/NameDialog.vue'
import RosterGrid from '~/components/rosters/RosterGrid.vue'
import RosterRender from '~/components/rosters/RosterRender.vue'
import RowSide from '~/components/rosters/RowSide.vue'
import PlaceBar from '~/components/shell/PlaceBar.vue'
import UndoTools from '~/components/shell/UndoTools.vue'
import { api } from '~/composables/api'
import { chosenFiles } from '~/composables/chosen-file'
import { download } from '~/composables/download'
import { useRowCrop } from '~/composables/row-crop'
import { useRowAbouts } from '~/composables/row-abouts'
import type { ShelfCard } from '~/stores/cards'
import { useCards } from '~/stores/cards'
import { useNotices } from '~/stores/notices'
import { usePictures } from '~/stores/pictures'
import { useRoster } from '~/stores/roster'
import { attempt } from '~/composables/attempt'

const route = useRoute()
const id = String(route.params.id)
const store = useRoster()
const cards = useCards()
const pictures = usePictures()
const notices = useNotices()

const missing = ref<Fault | null>(null)
const selected = ref<string | null>(null)
const bringing = ref<File | null>(null)
const rendering = ref(false)
const naming = ref<RosterColumn | null>(null)
const picker = ref<HTMLInputElement>()
const picturePicker = ref<HTMLInputElement>()
const grid = useTemplateRef<InstanceType<typeof RosterGrid>>('grid')

const roster = computed(() => store.desk?.roster ?? null)
useTitle(computed(() => `${roster.value?.name ?? 'Roster'} · Wax Ribbon`))
const card = computed<ShelfCard | null>(() => cards.list.find(({ id: one }) => one === store.desk?.cardId) ?? null)
// As it is: what reads it many times is slow through the interface's own wrappers.
const design = shallowRef<Card | null>(null)
watch(
  card,
  (now) =>
    attempt(async () => {
      const document = now ? await cards.documentOf(now) : null
      if (card.value?.id === now?.id) design.value = document
    }),
  { immediate: true },
)
/** Cards with fields stand first: others take no rows. */
const choices = computed(() =>
  [...cards.list].sort((a, b) => Number(b.fields.length > 0) - Number(a.fields.length > 0)),
)
const { cards: rowCards, programme, abouts, looks } = useRowAbouts(design, roster, selected)
const matches = computed(() => rowCards.value?.matches ?? [])
const unfilled = computed(() => matches.value.filter(({ column }) => column === null))
const idle = computed(() => (roster.value ? idleColumns(matches.value, roster.value) : []))
const about = computed(() => (selected.value ? (abouts.value.get(selected.value) ?? null) : null))
const place = computed(() => roster.value?.rows.findIndex(({ id: row }) => row === selected.value) ?? -1)
const crop = useRowCrop(design)
const wrong = computed(() => [...abouts.value.values()].filter(({ faults }) => faults.length > 0).length)
const flagged = computed(() => [...abouts.value.values()].filter(({ flags }) => (flags?.length ?? 0) > 0).length)
const pictureNames = computed(() => pictures.list.map(({ fileName }) => fileName))
const takesPictures = computed(() => design.value?.fields.some(({ kind }) => kind === 'picture') ?? false)

onMounted(() =>
  attempt(
    async () => {
      await Promise.all([cards.load(), pictures.load(), store.open(id)])
      selected.value = roster.value?.rows[0]?.id ?? null
    },
    (fault) => (missing.value = fault),
  ),
)

/** Rows and columns that go can be had back at once. */
function remove(label: string, change: (roster: Roster) => Roster) {
  store.edit(label, change)
  notices.say(`${label}.`, { label: 'Undo', run: store.undo })
}

function addRow() {
  let made = ''
  const at = place.value < 0 ? undefined : place.value + 1
  store.edit('New row', (one) => {
    const added = addRows(one, 1, at)
    made = added.ids[0] ?? ''
    return added.roster
  })
  if (made) selected.value = made
}

function removeChosen() {
  const ids = new Set(grid.value?.chosenRows() ?? [])
  if (ids.size === 0 && selected.value) ids.add(selected.value)
  remove(ids.size === 1 ? 'A row was removed' : `${ids.size} rows were removed`, (one) => removeRows(one, ids))
}

function duplicateChosen() {
  const ids = new Set(grid.value?.chosenRows() ?? [])
  store.edit('Copied rows', (one) => duplicateRows(one, ids))
}

/** A table takes the place of the rows of an empty roster, and else follows them. */
function take(table: Roster) {
  bringing.value = null
  const before = roster.value!
  const isEmpty = before.rows.every(({ cells }) => Object.keys(cells).length === 0)
  store.edit('A table was brought in', (one) => (isEmpty ? { ...table, name: one.name } : appended(one, table)))
  selected.value = roster.value?.rows[isEmpty ? 0 : before.rows.length]?.id ?? null
  notices.say(`${table.rows.length} rows were brought in.`, { label: 'Undo', run: store.undo })
}

/** Rows of another roster behind those that are there: columns go by their headings. */
function appended(one: Roster, table: Roster): Roster {
  let next = one
  const to = new Map<string, string>()
  for (const column of table.columns) {
    const known = next.columns.find(({ name }) => name.toLowerCase() === column.name.toLowerCase())
    if (known) to.set(column.id, known.id)
    else {
      const added = addColumn(next, column.name)
      next = added.roster
      to.set(column.id, added.id)
    }
  }
  const added = addRows(next, table.rows.length)
  const rows = table.rows.slice(0, added.ids.length).map((row, i) => ({
    ...row,
    id: added.ids[i]!,
    cells: Object.fromEntries(Object.entries(row.cells).map(([column, text]) => [to.get(column)!, text])),
  }))
  return { ...added.roster, rows: [...next.rows, ...rows] }
}

function menu(what: 'rename' | 'remove' | 'left' | 'right', column: RosterColumn) {
  const at = roster.value!.columns.findIndex((one) => one.id === column.id)
  if (what === 'rename') naming.value = column
  else if (what === 'remove') remove(`The column “${column.name}” was removed`, (one) => removeColumn(one, column.id))
  else store.edit('Order of the columns', (one) => moveColumn(one, column.id, what === 'left' ? at - 1 : at + 1))
}

function step(by: 1 | -1) {
  const { rows } = roster.value!
  selected.value = rows[(place.value + by + rows.length) % rows.length]?.id ?? null
  if (selected.value) grid.value?.goTo(selected.value)
}

/** Changes the card, for every row. */
const fit = (piece: string) =>
  attempt(async () => {
    const document = await looks.fitted(piece)
    const { value: before } = card
    const { value: kept } = design
    if (!document || !before || !kept) return
    const saved = await api<ShelfCard>(`/cards/${before.id}`, 'PUT', { document, revision: before.revision })
    await cards.load()
    const { name } = before
    notices.say(`“${name}” makes words smaller now that have no room.`, {
      label: 'Undo',
      run: () =>
        void attempt(async () => {
          await api(`/cards/${before.id}`, 'PUT', { document: kept, revision: saved.revision })
          await cards.load()
        }),
    })
  })

const bringPictures = (event: Event) =>
  attempt(async () => {
    const files = chosenFiles(event)
    for (const file of files) await pictures.bringIn(file)
    notices.say(`${files.length} ${files.length === 1 ? 'picture is' : 'pictures are'} here.`)
  })

const saveCsv = () =>
  download(new Blob([rosterCsv(roster.value!)], { type: 'text/csv' }), `${fileStem(roster.value!.name)}.csv`)

onBeforeRouteLeave(async () => {
  if (await store.save()) return true
  notices.fault(store.saveFault ?? { message: 'The roster is not saved yet.', remedy: 'Try again in a moment.' })
  return store.saveState !== 'conflict'
})
useEventListener(window, 'beforeunload', (event) => {
  if (!store.hasUnsaved()) return
  void store.save()
  event.preventDefault()
})
useEventListener(window, 'keydown', (event) => {
  if (!(event.ctrlKey || event.metaKey) || (event.target as HTMLElement).matches('input, textarea')) return
  const key = event.key.toLowerCase()
  if (key === 'z') {
    event.preventDefault()
    if (event.shiftKey) store.redo()
    else store.undo()
  } else if (key === 'y') {
    event.preventDefault()
    store.redo()
  }
})

const value = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="page">
    <PlaceBar roster="here">
      <div v-if="roster" class="name">
        <input
          :value="roster.name"
          maxlength="200"
          aria-label="Name of the roster"
          @change="value($event).trim() && store.edit('Name', (one) => ({ ...one, name: value($event).trim() }))"
        />
        <span class="quiet" role="status" data-test="save-state">{{
          store.saveState === 'saved' ? 'saved' : store.saveState === 'failed' ? 'not saved yet' : 'saving…'
        }}</span>
      </div>
      <div class="tools">
        <UndoTools :past="store.past" :future="store.future" @undo="store.undo()" @redo="store.redo()" />
        <button class="wax-button" :disabled="!card || !roster || roster.rows.length === 0" @click="rendering = true">
          Render the rows
        </button>
      </div>
    </PlaceBar>
    <p v-if="store.saveState === 'conflict'" class="strip" role="alert">
      This roster was changed in another window. Nothing of yours is lost.
      <button class="plain-button" @click="attempt(() => store.open(id))">Open the newer one</button>
      <button
        class="plain-button"
        title="The other one becomes a roster of its own"
        @click="attempt(async () => store.takeOver())"
      >
        Take over with mine
      </button>
    </p>
    <div v-if="missing" class="missing">
      <p>{{ missing.message }} {{ missing.remedy }}</p>
      <NuxtLink to="/">To the shelf</NuxtLink>
    </div>
    <template v-else-if="roster">
      <div class="bar">
        <label
          >Fills
          <select
            class="plain-field"
            :value="store.desk?.cardId ?? ''"
            aria-label="The card that is filled"
            @change="store.fillInto(value($event) || null)"
          >
            <option value="" disabled>Choose a card</option>
            <option v-for="one in choices" :key="one.id" :value="one.id">
              {{ one.name }} ·
              {{ one.fields.length > 0 ? one.fields.join(', ') : 'no fields' }}
            </option>
          </select></label
        >
        <span class="gap" />
        <button class="plain-button" @click="addRow">Add a row</button>
        <button
          class="plain-button"
          @click="store.edit('New column', (one) => addColumn(one, unfilled[0]?.field.label ?? 'Column').roster)"
        >
          Add a column
        </button>
        <button class="plain-button" :disabled="!selected" @click="duplicateChosen">Copy rows</button>
        <button class="plain-button" :disabled="!selected" @click="removeChosen">Remove rows</button>
        <button v-if="takesPictures" class="plain-button" @click="picturePicker?.click()">Bring pictures in…</button>
        <button class="plain-button" @click="picker?.click()">Bring a table in…</button>
        <button class="plain-button" :disabled="roster.rows.length === 0" @click="saveCsv">Save as CSV</button>
        <input
          ref="picker"
          type="file"
          accept=".csv,.tsv,.txt,.json,text/csv"
          hidden
          data-test="table-file"
          @change="bringing = chosenFiles($event)[0] ?? null"
        />
        <input
          ref="picturePicker"
          type="file"
          accept="image/png,image/jpeg,image/webp"
          multiple
          hidden
          data-test="picture-files"
          @change="bringPictures"
        />
      </div>
      <p v-if="card && card.fields.length === 0" class="hint" role="status">
        “{{ card.name }}” has no fields yet: on its bench, the tag beside a value makes it one.
        <NuxtLink :to="`/card/${card.id}`">To its bench</NuxtLink>
      </p>
      <p v-else-if="unfilled.length > 0 && idle.length > 0" class="hint" role="status">
        <template v-for="{ field } in unfilled" :key="field.id">
          <label
            >No column is called “{{ field.label }}”:
            <select
              class="plain-field"
              value=""
              @change="
                store.edit(`“${field.label}” is filled by a column`, (one) =>
                  alsoCalled(one, value($event), field.label),
                )
              "
            >
              <option value="" disabled>take one…</option>
              <option v-for="column in idle" :key="column.id" :value="column.id">{{ column.name }}</option>
            </select></label
          >
        </template>
      </p>
      <main class="room">
        <RosterGrid
          ref="grid"
          class="rows"
          :roster="roster"
          :matches="matches"
          :pictures="pictureNames"
          :about="(row) => abouts.get(row) ?? null"
          :crop="crop"
          :known="abouts"
          @cells="(changes, label) => store.edit(label, (one) => setCells(one, changes))"
          @paste="(block, from, columns) => store.edit('Pasted cells', (one) => pasteBlock(one, block, from, columns))"
          @change="(change, label) => store.edit(label, change)"
          @select="selected = $event"
          @menu="menu"
        />
        <RowSide
          v-if="about && card"
          :about="about"
          :card-id="card.id"
          :roster-id="id"
          :number="place + 1"
          :of="roster.rows.length"
          @step="step"
          @fit="fit"
        />
        <aside v-else class="no-card quiet">
          <p v-if="!card">
            Choose the card that the rows fill: each row is shown here, and rendered as a file of its own.
          </p>
          <p v-else>Choose a row to see it.</p>
        </aside>
      </main>
      <footer class="foot quiet" role="status">
        {{ roster.rows.length }} {{ roster.rows.length === 1 ? 'row' : 'rows' }},
        {{ roster.rows.filter(({ on }) => on).length }} on
        <template v-if="programme.entries.length > 0">
          · {{ programme.entries.length }} with their place in the programme</template
        >
        <template v-if="wrong > 0">
          · <b class="bad">{{ wrong }} with a cell that cannot be read</b></template
        >
        <template v-if="card && looks.done.value < roster.rows.length"> · {{ looks.done.value }} looked at…</template>
        <template v-if="flagged > 0"> · {{ flagged }} with something found</template>
      </footer>
      <BringTable :file="bringing" :fields="design?.fields ?? []" @take="take" @close="bringing = null" />
      <NameDialog
        :name="naming?.name ?? null"
        title="Name of the column"
        @close="naming = null"
        @take="(name) => store.edit('Name of a column', (one) => renameColumn(one, naming!.id, name))"
      />
      <RosterRender
        v-if="card && design"
        v-model="rendering"
        :card="card"
        :design="design"
        :roster="roster"
        :abouts="[...abouts.values()]"
        :placed="programme.entries.length"
        :chosen="grid?.chosenRows ?? (() => [])"
      />
    </template>
    <div v-else class="missing quiet">Opening…</div>
  </div>
</template>

<style scoped>
.page {
  display: flex;
  flex-direction: column;
  height: 100vh;
  background: var(--paper);
}
.name {
  display: flex;
  gap: 10px;
  align-items: baseline;
  min-width: 0;
  margin: 0 auto;
}
.name input {
  width: 320px;
  font: inherit;
  font-weight: 650;
  color: inherit;
  text-align: center;
  background: none;
  border: 1px solid transparent;
  border-radius: 5px;
}
.name input:hover,
.name input:focus {
  border-color: var(--line-strong);
}
.tools {
  display: flex;
  gap: 4px;
  align-items: center;
}
.tools .wax-button {
  margin-left: 8px;
}
.strip,
.hint {
  display: flex;
  gap: 14px;
  align-items: center;
  padding: 6px 14px;
  margin: 0;
  background: var(--paper-2);
  border-bottom: 1px solid var(--line);
}
.strip {
  color: var(--wax);
}
.bar {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 7px 14px;
  border-bottom: 1px solid var(--line);
}
.bar label {
  display: flex;
  gap: 8px;
  align-items: center;
  color: var(--ink-2);
}
.bar select {
  width: 300px;
}
.gap {
  flex: 1;
}
.room {
  display: flex;
  flex: 1;
  min-height: 0;
}
.rows {
  flex: 1;
  min-width: 0;
}
.no-card {
  width: 332px;
  padding: 20px;
  border-left: 1px solid var(--line);
}
.foot {
  padding: 5px 14px;
  font-size: 12px;
  border-top: 1px solid var(--line);
}
.bad {
  font-weight: 600;
  color: var(--wax);
}
.missing {
  padding: 60px;
  text-align: center;
}
</style>
