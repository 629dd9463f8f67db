<script setup lang="ts">
import { useEventListener, useTitle } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import type { Card } from '#core/card/schema'
import type { Fault } from '#core/errors'
import {
  addColumn,
  addRows,
  alsoCalled,
  appendRoster,
  duplicateRows,
  moveColumn,
  pasteBlock,
  removeColumn,
  removeRows,
  renameColumn,
  setCells,
  sortRows,
} from '#core/rosters/edit'
import { idleColumns } from '#core/rosters/matching'
import type { Roster, RosterColumn } from '#core/rosters/roster'
import { isBlank, isRendered } from '#core/rosters/roster'
import BringTable from '~/components/rosters/BringTable.vue'
import type { ColumnDeed } from '~/components/rosters/grid-columns'
import NameDialog from '~/components/rosters/NameDialog.vue'
import RosterBar from '~/components/rosters/RosterBar.vue'
import RosterFoot from '~/components/rosters/RosterFoot.vue'
import RosterGrid from '~/components/rosters/RosterGrid.vue'
import RosterName from '~/components/rosters/RosterName.vue'
import RosterRender from '~/components/rosters/RosterRender.vue'
import RowSide from '~/components/rosters/RowSide.vue'
import UnfilledFields from '~/components/rosters/UnfilledFields.vue'
import PlaceBar from '~/components/shell/PlaceBar.vue'
import UndoTools from '~/components/shell/UndoTools.vue'
import { api } from '~/composables/api'
import { useRowCrop } from '~/composables/row-crop'
import { useRowAbouts } from '~/composables/row-abouts'
import { useRowFilter } from '~/composables/row-filter'
import { useUndoKeys } from '~/composables/undo-keys'
import { undoOffer } from '~/composables/undo-offer'
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
/** Rows in the window of the grid. */
const seen = ref<string[]>([])
const first = computed(() => [...(selected.value === null ? [] : [selected.value]), ...seen.value])
const { cards: rowCards, programme, abouts, looks } = useRowAbouts(design, roster, first)
const filter = useRowFilter(roster, abouts)
const matches = computed(() => rowCards.value?.matches ?? [])
const unfilled = computed(() => matches.value.filter(({ column }) => column === null))
const idle = computed(() => (roster.value ? idleColumns(matches.value, roster.value) : []))
const about = computed(() => (selected.value ? (abouts.value.get(selected.value) ?? null) : null))
const place = computed(() => roster.value?.rows.findIndex(({ id: row }) => row === selected.value) ?? -1)
const crop = useRowCrop(design)
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
  notices.say(`${label}.`, undoOffer(store))
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
  const isEmpty = before.rows.every(isBlank)
  store.edit('A table was brought in', (one) => (isEmpty ? { ...table, name: one.name } : appendRoster(one, table)))
  selected.value = roster.value?.rows[isEmpty ? 0 : before.rows.length]?.id ?? null
  notices.say(`${table.rows.length} rows were brought in.`, undoOffer(store))
}

const SIDES = { left: -1, right: 1 } as const

function menu(what: ColumnDeed, column: RosterColumn) {
  const at = roster.value!.columns.findIndex((one) => one.id === column.id)
  if (what === 'rename') naming.value = column
  else if (what === 'remove') remove(`The column “${column.name}” was removed`, (one) => removeColumn(one, column.id))
  else if (what === 'left' || what === 'right')
    store.edit('Order of the columns', (one) => moveColumn(one, column.id, at + SIDES[what]))
  else store.edit(`Sorted by “${column.name}”`, (one) => sortRows(one, column.id, what))
}

function step(by: 1 | -1) {
  const rows = filter.rows.value
  const now = rows.findIndex(({ id: row }) => row === selected.value)
  selected.value = rows[(now + by + rows.length) % rows.length]?.id ?? selected.value
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

const bringPictures = (files: File[]) =>
  attempt(async () => {
    for (const file of files) await pictures.bringIn(file)
    notices.say(`${files.length} ${files.length === 1 ? 'picture is' : 'pictures are'} here.`)
  })

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
useUndoKeys(store)
</script>

<template>
  <div class="page">
    <PlaceBar roster="here">
      <RosterName
        v-if="roster"
        :name="roster.name"
        :save-state="store.saveState"
        @rename="(name) => store.edit('Name', (one) => ({ ...one, name }))"
      />
      <div class="tools">
        <UndoTools :past="store.past" :future="store.future" @undo="store.undo()" @redo="store.redo()" />
        <button
          class="wax-button"
          :disabled="!card || !roster?.rows.some(isRendered)"
          :title="card ? 'Rows that are on and in which something is written' : 'Choose the card that the rows fill'"
          @click="rendering = true"
        >
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
      <RosterBar
        v-model:words="filter.words.value"
        :roster="roster"
        :card-id="store.desk?.cardId ?? ''"
        :has-selected="selected !== null"
        :takes-pictures="takesPictures"
        @fill="store.fillInto"
        @add-row="addRow"
        @add-column="store.edit('New column', (one) => addColumn(one, unfilled[0]?.field.label ?? 'Column').roster)"
        @duplicate="duplicateChosen"
        @remove="removeChosen"
        @table="bringing = $event"
        @pictures="bringPictures"
      />
      <p v-if="card && card.fields.length === 0" class="hint" role="status">
        “{{ card.name }}” has no fields yet: on its bench, the tag beside a value makes it one.
        <NuxtLink :to="`/card/${card.id}`">To its bench</NuxtLink>
      </p>
      <UnfilledFields
        v-else-if="unfilled.length > 0 && idle.length > 0"
        :fields="unfilled.map(({ field }) => field)"
        :idle="idle"
        @take="
          (column, label) => store.edit(`“${label}” is filled by a column`, (one) => alsoCalled(one, column, label))
        "
      />
      <main class="room">
        <RosterGrid
          ref="grid"
          class="rows"
          :roster="roster"
          :rows="filter.rows.value"
          :matches="matches"
          :pictures="pictureNames"
          :about="(row) => abouts.get(row) ?? null"
          :crop="crop"
          :known="abouts"
          @cells="(changes, label) => store.edit(label, (one) => setCells(one, changes))"
          @paste="(block, from, shown) => store.edit('Pasted cells', (one) => pasteBlock(one, block, from, shown))"
          @change="(change, label) => store.edit(label, change)"
          @select="selected = $event"
          @see="seen = $event"
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
      <RosterFoot
        v-model:only-found="filter.onlyFound.value"
        :roster="roster"
        :shown="filter.rows.value.length"
        :placed="programme.entries.length"
        :abouts="abouts"
        :looked="card ? looks.done.value : null"
      />
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
.missing {
  padding: 60px;
  text-align: center;
}
</style>
