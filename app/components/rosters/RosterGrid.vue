<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import type { CellComponent, RangeComponent, RowComponent } from 'tabulator-tables'
import {
  ClipboardModule,
  EditModule,
  ExportModule,
  FormatModule,
  FrozenColumnsModule,
  InteractionModule,
  KeybindingsModule,
  MenuModule,
  MoveColumnsModule,
  MoveRowsModule,
  ResizeColumnsModule,
  ResizeTableModule,
  SelectRangeModule,
  Tabulator,
} from 'tabulator-tables'
import 'tabulator-tables/dist/css/tabulator.min.css'
import { h, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { moveColumn, moveRow } from '#core/rosters/edit'
import type { CellChange, ShownGrid } from '#core/rosters/edit'
import type { Match } from '#core/rosters/matching'
import type { Rect } from '#core/units'
import type { Roster, RosterColumn, RosterRow } from '#core/rosters/roster'
import type { ColumnDeed, GridRow } from './grid-columns'
import { gridColumns, gridRow } from './grid-columns'
import { blockFrom } from './clipboard-block'
import RowMark from './RowMark.vue'
import RowThumb from './RowThumb.vue'
import type { RowAbout } from './row-about'
import { useRowDrawings } from './row-drawings'

/**
 * The rows of a roster as a grid: edited in place, chosen as ranges, pasted from spreadsheets. What is changed goes to the document by
 * events, and comes back from there: so that every change is one step of its history.
 */
const props = defineProps<{
  roster: Roster
  /** Those of its rows that are shown. */
  rows: readonly RosterRow[]
  matches: readonly Match[]
  pictures: readonly string[]
  /** What the page knows of a row. */
  about: (row: string) => RowAbout | null
  /** The part of the card that small pictures show, in its px. */
  crop: Rect
  /** Changes where what is known of rows has changed. */
  known: unknown
}>()
const emit = defineEmits<{
  cells: [changes: CellChange[], label: string]
  paste: [block: string[][], from: { row: string | null; column: string }, shown: ShownGrid]
  change: [change: (roster: Roster) => Roster, label: string]
  select: [row: string]
  /** Rows that are in the window. */
  see: [rows: string[]]
  menu: [what: ColumnDeed, column: RosterColumn]
}>()

const NO_ROWS = 'No rows yet: add one, bring a table in, or paste from a spreadsheet.'

Tabulator.registerModule([
  ...[ClipboardModule, EditModule, ExportModule, FormatModule, FrozenColumnsModule, InteractionModule],
  ...[KeybindingsModule, MenuModule, MoveColumnsModule, MoveRowsModule, ResizeColumnsModule, ResizeTableModule],
  SelectRangeModule,
])

const idOf = (row: RowComponent) => String((row.getData() as GridRow).id)
const place = useTemplateRef<HTMLElement>('place')
const ready = ref(false)
let table: Tabulator | null = null
/** What the grid shows, by its rows' ids. */
let shown = new Map<string, RosterRow>()
let shownColumns: unknown = null
const drawings = useRowDrawings((kind, row) => {
  const about = props.about(row)
  if (!about) return null
  return kind === 'picture'
    ? h(RowThumb, { name: `row-${row}`, card: about.card, crop: props.crop })
    : h(RowMark, { about })
})

function columns() {
  const { roster, matches } = props
  return gridColumns(roster, matches, {
    saidOf: (row, column) => props.about(row)?.saidAt(column) ?? null,
    draw: drawings.draw,
    pictures: () => [...props.pictures],
    menu: (column) => {
      const at = roster.columns.indexOf(column)
      return [
        { label: 'Sort, first to last', action: () => emit('menu', 'rising', column) },
        { label: 'Sort, last to first', action: () => emit('menu', 'falling', column) },
        { label: 'Rename…', action: () => emit('menu', 'rename', column) },
        { label: 'Move left', disabled: at === 0, action: () => emit('menu', 'left', column) },
        {
          label: 'Move right',
          disabled: at === roster.columns.length - 1,
          action: () => emit('menu', 'right', column),
        },
        { label: 'Remove the column', action: () => emit('menu', 'remove', column) },
      ]
    },
  })
}

/** Columns in which something can be written, as the grid shows them. */
const writable = () =>
  (table?.getColumns() ?? []).map((column) => column.getField()).filter((field) => isWritable(field))
const isWritable = (field: string | undefined) => field !== undefined && field !== ':picture' && field !== ':flags'

onMounted(() => {
  shown = new Map(props.rows.map((row) => [row.id, row]))
  shownColumns = columnsKey()
  const made = new Tabulator(place.value!, {
    ...{ index: 'id', height: '100%', layout: 'fitColumns', rowHeight: 60, nestedFieldSeparator: false },
    data: props.rows.map(gridRow),
    columns: columns(),
    rowHeader: {
      formatter: 'rownum',
      width: 44,
      vertAlign: 'middle',
      hozAlign: 'right',
      resizable: false,
      frozen: true,
      rowHandle: true,
      headerSort: false,
      cssClass: 'number',
    },
    placeholder: () => (props.roster.rows.length === 0 ? NO_ROWS : 'No row says that.'),
    ...{ movableRows: true, movableColumns: true, editTriggerEvent: 'dblclick' },
    ...{
      selectableRange: 1,
      selectableRangeColumns: true,
      selectableRangeRows: true,
      selectableRangeClearCells: false,
      // Rows change while somebody writes elsewhere, as when they are sought: the grid takes no keys that are not its own.
      selectableRangeAutoFocus: false,
    },
    ...{ clipboard: 'copy', clipboardCopyStyled: false, clipboardCopyRowRange: 'range' },
    clipboardCopyConfig: { rowHeaders: false, columnHeaders: false },
    columnHeaderVertAlign: 'middle',
  } as ConstructorParameters<typeof Tabulator>[1])
  made.on('tableBuilt', () => {
    table = made
    // What is scrolled can be reached by keys, so it is the group of rows; what lies within is nothing of its own.
    place.value?.querySelector('.tabulator-tableholder')?.setAttribute('role', 'rowgroup')
    place.value?.querySelector('.tabulator-table')?.setAttribute('role', 'presentation')
    ready.value = true
    sync()
  })
  made.on('cellEdited', edited)
  made.on('rangeChanged' as 'rangeAdded', (range: RangeComponent) => chosen(range))
  made.on('rangeAdded', chosen)
  for (const event of ['renderComplete', 'scrollVertical'] as const) made.on(event, told)
  made.on('rowMoved', (row) => {
    const after = row.getNextRow()
    const before = after ? idOf(after) : null
    emit('change', (roster) => moveRow(roster, idOf(row), before), 'Order of the rows')
  })
  made.on('columnMoved', (column, all) => {
    const ids = props.roster.columns.map(({ id }) => id)
    const id = column.getField()
    const order = all.map((one) => one.getField()).filter((field) => ids.includes(field))
    if (ids.includes(id)) emit('change', (roster) => moveColumn(roster, id, order.indexOf(id)), 'Order of the columns')
    shownColumns = null
  })
})

onBeforeUnmount(() => table?.destroy())

function edited(cell: CellComponent) {
  const row = idOf(cell.getRow())
  const column = cell.getField()
  const value: unknown = cell.getValue()
  const text = typeof value === 'boolean' ? (value ? 'on' : 'off') : String(value ?? '')
  emit('cells', [{ row, column, text }], 'Cell')
}

function chosen(range: RangeComponent) {
  const row = range.getRows()[0]
  if (row) emit('select', idOf(row))
}

/** Tells which rows are in the window, when it has come to rest. */
const told = useDebounceFn(() => {
  if (table) emit('see', table.getRows('visible').map(idOf))
}, 120)

const columnsKey = () =>
  JSON.stringify([props.roster.columns, props.matches.map(({ field, column }) => [field.id, field.kind, column?.id])])

/** Brings the grid to what the document is: only what is other is touched. */
function sync() {
  if (!table) return
  const { rows } = props
  const key = columnsKey()
  if (key !== shownColumns) {
    shownColumns = key
    table.setColumns(columns())
    // Rows get their cells, and these their widths, anew.
    shown = new Map()
  }
  const before = [...shown.keys()]
  const same = before.length === rows.length && rows.every(({ id }, i) => before[i] === id)
  const changed = rows.filter((row) => shown.get(row.id) !== row)
  shown = new Map(rows.map((row) => [row.id, row]))
  if (!same) void replace(rows)
  else if (changed.length > 0) {
    // A cell that was emptied is written as empty: what is left out would stay.
    const empty = Object.fromEntries(props.roster.columns.map(({ id }) => [id, '']))
    void table.updateData(changed.map((row) => ({ ...empty, ...gridRow(row) })))
  }
}

/** Other rows in the place of those that are there. Whoever writes in the grid goes on there: its cells are new ones. */
async function replace(rows: readonly RosterRow[]) {
  const holder = place.value?.querySelector<HTMLElement>('.tabulator-tableholder')
  const isHere = holder?.contains(document.activeElement) ?? false
  await table?.replaceData(rows.map(gridRow))
  if (isHere) holder?.focus({ preventScroll: true })
}

watch(() => [props.roster, props.rows, props.matches], sync)
// What is known of rows is drawn again where it is seen. A cell that somebody writes in stays as it is.
watch(
  () => props.known,
  () => {
    drawings.drawAgain()
    for (const row of table?.getRows('visible') ?? []) {
      if (!row.getElement().contains(document.activeElement)) row.reformat()
    }
  },
)
watch(() => props.crop, drawings.drawAgain)

const range = () => (table?.getRanges() ?? [])[0]
/** The cells of the range that was chosen. */
const cellsOf = (one: RangeComponent): CellComponent[] => (one.getCells() as unknown as CellComponent[][]).flat()
const isTyping = () =>
  (document.activeElement as HTMLElement | null)?.matches('.tabulator-cell input, .tabulator-cell textarea') ?? false

function paste(event: ClipboardEvent) {
  const from = range()
  if (!from || isTyping()) return
  const block = blockFrom(event.clipboardData)
  if (block.length === 0) return
  event.preventDefault()
  const [first] = cellsOf(from)
  const column = first?.getField()
  const row = from.getRows()[0]
  if (!isWritable(column)) return
  const rows = props.rows.map(({ id }) => id)
  emit('paste', block, { row: row ? idOf(row) : null, column: column! }, { rows, columns: writable() })
}

function clear() {
  const from = range()
  if (!from) return
  const changes = cellsOf(from).flatMap((cell): CellChange[] => {
    const column = cell.getField()
    if (!isWritable(column) || column === ':on') return []
    return [{ row: idOf(cell.getRow()), column, text: '' }]
  })
  if (changes.length > 0) emit('cells', changes, 'Emptied cells')
}

/** Typing begins to write a cell, as in a spreadsheet. */
function type(event: KeyboardEvent) {
  if (isTyping() || event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === 'Delete' || event.key === 'Backspace') {
    event.preventDefault()
    clear()
    return
  }
  if (event.key.length !== 1 || event.key === ' ') return
  const cell = range() && cellsOf(range()!)[0]
  if (!cell || !isWritable(cell.getField()) || cell.getField() === ':on') return
  event.preventDefault()
  cell.edit(true)
  const input = cell.getElement().querySelector<HTMLInputElement | HTMLTextAreaElement>('input, textarea')
  if (input) {
    input.value = event.key
    input.dispatchEvent(new Event('input'))
  }
}

/** The rows of the range that was chosen. */
function chosenRows(): string[] {
  return (range()?.getRows() ?? []).map(idOf)
}

function goTo(row: string) {
  void table?.scrollToRow(row, 'nearest', false)
}

defineExpose({ chosenRows, goTo })
</script>

<template>
  <div class="grid" :data-ready="ready" @paste="paste" @keydown="type">
    <div ref="place" />
  </div>
</template>

<style src="./roster-grid.css"></style>
