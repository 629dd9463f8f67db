<script setup lang="ts">
import type { CellComponent, RangeComponent } from 'tabulator-tables'
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
import { getCurrentInstance, h, onBeforeUnmount, onMounted, ref, render, useTemplateRef, watch } from 'vue'
import { moveColumn, moveRow } from '#core/rosters/edit'
import type { CellChange } from '#core/rosters/edit'
import type { Match } from '#core/rosters/matching'
import type { Rect } from '#core/units'
import type { Roster, RosterColumn, RosterRow } from '#core/rosters/roster'
import type { GridRow } from './grid-columns'
import { gridColumns, gridRow } from './grid-columns'
import { blockFrom } from './clipboard-block'
import RowMark from './RowMark.vue'
import RowThumb from './RowThumb.vue'
import type { RowAbout } from './row-about'

/**
 * The rows of a roster as a grid: edited in place, chosen as ranges, pasted from spreadsheets. What is changed goes to the document by
 * events, and comes back from there: so that every change is one step of its history.
 */
const props = defineProps<{
  roster: Roster
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
  paste: [block: string[][], from: { row: string | null; column: string }, columns: string[]]
  change: [change: (roster: Roster) => Roster, label: string]
  select: [row: string]
  menu: [what: 'rename' | 'remove' | 'left' | 'right', column: RosterColumn]
}>()

Tabulator.registerModule([
  ...[ClipboardModule, EditModule, ExportModule, FormatModule, FrozenColumnsModule, InteractionModule],
  ...[KeybindingsModule, MenuModule, MoveColumnsModule, MoveRowsModule, ResizeColumnsModule, ResizeTableModule],
  SelectRangeModule,
])

const place = useTemplateRef<HTMLElement>('place')
const ready = ref(false)
const context = getCurrentInstance()!.appContext
let table: Tabulator | null = null
/** What the grid shows, by its rows' ids. */
let shown = new Map<string, RosterRow>()
let shownColumns: unknown = null
/** Elements in which something of the page's own is drawn. */
const drawn = new Map<string, HTMLElement>()

/** Draws into a cell, and again when something else is known of its row. */
function draw(kind: 'picture' | 'flags', row: string): HTMLElement {
  const key = `${kind} ${row}`
  const element = drawn.get(key) ?? document.createElement('span')
  drawn.set(key, element)
  fillIn(kind, row, element)
  return element
}

function fillIn(kind: 'picture' | 'flags', row: string, element: HTMLElement) {
  const about = props.about(row)
  const node = !about
    ? null
    : kind === 'picture'
      ? h(RowThumb, { name: `row-${row}`, card: about.card, crop: props.crop })
      : h(RowMark, { about })
  if (node) node.appContext = context
  render(node, element)
}

function columns() {
  const { roster, matches } = props
  return gridColumns(roster, matches, {
    saidOf: (row, column) => props.about(row)?.saidAt(column) ?? null,
    draw,
    pictures: () => [...props.pictures],
    menu: (column) => {
      const at = roster.columns.indexOf(column)
      return [
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
  shown = new Map(props.roster.rows.map((row) => [row.id, row]))
  shownColumns = columnsKey()
  const made = new Tabulator(place.value!, {
    ...{ index: 'id', height: '100%', layout: 'fitColumns', rowHeight: 60, nestedFieldSeparator: false },
    data: props.roster.rows.map(gridRow),
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
    placeholder: 'No rows yet: add one, bring a table in, or paste from a spreadsheet.',
    ...{ movableRows: true, movableColumns: true, editTriggerEvent: 'dblclick' },
    ...{
      selectableRange: 1,
      selectableRangeColumns: true,
      selectableRangeRows: true,
      selectableRangeClearCells: false,
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
  made.on('rowMoved', (row) => {
    const id = String((row.getData() as GridRow).id)
    const to = row
      .getTable()
      .getRows()
      .findIndex((one) => one === row)
    emit('change', (roster) => moveRow(roster, id, to), 'Order of the rows')
  })
  made.on('columnMoved', (column, all) => {
    const ids = props.roster.columns.map(({ id }) => id)
    const id = column.getField()
    const order = all.map((one) => one.getField()).filter((field) => ids.includes(field))
    if (ids.includes(id)) emit('change', (roster) => moveColumn(roster, id, order.indexOf(id)), 'Order of the columns')
    shownColumns = null
  })
})

onBeforeUnmount(() => {
  for (const element of drawn.values()) render(null, element)
  table?.destroy()
})

function edited(cell: CellComponent) {
  const row = String((cell.getData() as GridRow).id)
  const column = cell.getField()
  const value: unknown = cell.getValue()
  const text = typeof value === 'boolean' ? (value ? 'on' : 'off') : String(value ?? '')
  emit('cells', [{ row, column, text }], 'Cell')
}

function chosen(range: RangeComponent) {
  const row = range.getRows()[0]
  if (row) emit('select', String((row.getData() as GridRow).id))
}

const columnsKey = () =>
  JSON.stringify([props.roster.columns, props.matches.map(({ field, column }) => [field.id, field.kind, column?.id])])

/** Brings the grid to what the document is: only what is other is touched. */
function sync() {
  if (!table) return
  const { rows } = props.roster
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
  if (!same) void table.replaceData(rows.map(gridRow))
  else if (changed.length > 0) {
    // A cell that was emptied is written as empty: what is left out would stay.
    const empty = Object.fromEntries(props.roster.columns.map(({ id }) => [id, '']))
    void table.updateData(changed.map((row) => ({ ...empty, ...gridRow(row) })))
  }
}

watch(() => [props.roster, props.matches], sync)
// What was found of rows is drawn again where it is seen.
watch(
  () => props.known,
  () => {
    for (const [key, element] of drawn) {
      const [kind, row] = key.split(' ') as ['picture' | 'flags', string]
      if (element.isConnected) fillIn(kind, row, element)
    }
    for (const row of table?.getRows('visible') ?? []) row.reformat()
  },
)

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
  emit('paste', block, { row: row ? String((row.getData() as GridRow).id) : null, column: column! }, writable())
}

function clear() {
  const from = range()
  if (!from) return
  const changes = cellsOf(from).flatMap((cell): CellChange[] => {
    const column = cell.getField()
    if (!isWritable(column) || column === ':on') return []
    return [{ row: String((cell.getData() as GridRow).id), column, text: '' }]
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
  return (range()?.getRows() ?? []).map((row) => String((row.getData() as GridRow).id))
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

<style>
.grid {
  min-height: 0;
}
.grid .tabulator {
  height: 100%;
  font-size: 13px;
  color: var(--ink);
  background: var(--paper);
  border: 0;
}
.grid .tabulator .tabulator-header,
.grid .tabulator .tabulator-header .tabulator-col {
  font-weight: 600;
  color: var(--ink);
  background: var(--paper-2);
  border-color: var(--line);
}
.grid .tabulator .tabulator-header .tabulator-col.tabulator-range-highlight,
.grid .tabulator .tabulator-header .tabulator-col.tabulator-range-selected,
.grid .tabulator-row .tabulator-cell.tabulator-range-row-header.tabulator-range-highlight {
  color: var(--ink);
  background: var(--paper-3);
}
.grid .tabulator .tabulator-header .tabulator-frozen,
.grid .tabulator-row .tabulator-frozen {
  color: var(--ink-2);
  background: var(--paper-2) !important;
}
.grid .tabulator .tabulator-tableholder,
.grid .tabulator .tabulator-tableholder .tabulator-table {
  color: var(--ink);
  background: var(--paper);
}
.grid .tabulator .tabulator-tableholder .tabulator-placeholder .tabulator-placeholder-contents {
  font-size: 14px;
  font-weight: 400;
  color: var(--ink-2);
}
.grid .tabulator-row,
.grid .tabulator-row.tabulator-row-even {
  color: var(--ink);
  background: var(--paper);
  border-bottom: 1px solid var(--line);
}
.grid .tabulator-row.tabulator-selectable:hover {
  background: var(--paper-2);
}
.grid .tabulator-row .tabulator-cell {
  padding: 0 8px;
  border-color: var(--line);
}
.grid .tabulator-row .tabulator-cell.drawn {
  padding: 3px 6px;
}
.grid .tabulator-row .tabulator-cell.faulty {
  color: var(--wax);
  background: color-mix(in srgb, var(--wax) 10%, transparent);
}
.grid .tabulator-row .tabulator-cell.noted {
  text-decoration: underline dotted var(--teal);
  text-underline-offset: 3px;
}
.grid .tabulator-row .tabulator-cell.tabulator-range-selected:not(.tabulator-range-only-cell-selected) {
  background: color-mix(in srgb, var(--teal) 14%, transparent);
}
.grid .tabulator .tabulator-range-overlay .tabulator-range {
  border-color: var(--teal);
}
.grid .tabulator .tabulator-range-overlay .tabulator-range.tabulator-range-active::after {
  background: var(--teal);
}
.grid .tabulator .tabulator-range-overlay .tabulator-range-cell-active {
  border-color: var(--teal);
}
.grid .tabulator-row .tabulator-cell.tabulator-editing {
  padding: 0;
  border: 1px solid var(--teal);
}
.grid .tabulator-cell textarea {
  display: block;
  width: 100%;
  height: 100%;
  padding: 20px 8px 0;
  resize: none;
  border: 0;
  outline: 0;
}
.grid .tabulator-cell textarea,
.grid .tabulator-cell input {
  font: inherit;
  color: inherit;
  background: var(--raised);
}
.grid .tabulator-cell input[type='checkbox'] {
  accent-color: var(--teal);
}
.grid .cell-text {
  display: flex;
  gap: 6px;
  align-items: center;
  overflow: hidden;
  text-overflow: ellipsis;
}
.grid .cell-text i {
  flex: none;
  width: 14px;
  height: 14px;
  border: 1px solid var(--line-strong);
  border-radius: 3px;
}
.grid .fills::before {
  display: inline-block;
  width: 8px;
  height: 8px;
  margin-right: 6px;
  content: '';
  background: var(--teal);
  border-radius: 50%;
}
.grid .idle {
  color: var(--ink-2);
}
.tabulator-menu,
.tabulator-edit-list {
  font-size: 13px;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 6px;
}
.tabulator-menu .tabulator-menu-item:not(.tabulator-menu-item-disabled):hover {
  background: var(--paper-2);
}
.grid .switch {
  display: inline-block;
  width: 16px;
  height: 16px;
  border: 1.5px solid var(--line-strong);
  border-radius: 4px;
}
.grid .switch.on {
  background: var(--teal)
    url("data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 16 16'%3E%3Cpath d='M3.5 8.5l3 3 6-7' fill='none' stroke='white' stroke-width='2'/%3E%3C/svg%3E");
  border-color: var(--teal);
}
</style>
