import { headingOf } from '../card/fields'
import { switchIn } from './kinds/switch'
import type { Roster, RosterColumn, RosterRow } from './roster'
import { LONGEST_CELL, MOST_COLUMNS, MOST_ROWS } from './roster'

// Edits of a roster: pure functions, the former roster is their inverse. What they do not touch stays the same object.

/** What every row has beside the cells of its columns. */
export const OWN_COLUMNS = ['name', 'on', 'in', 'out', 'note'] as const
export type OwnColumn = (typeof OWN_COLUMNS)[number]

/** A place in the grid: a row by its id, a column by its id, or what every row has by `:name`, `:on` and so on. */
export interface CellChange {
  row: string
  column: string
  text: string
}

export const ownColumn = (name: OwnColumn): string => `:${name}`

/** What a cell says, whichever column it is. */
export function cellOf(row: RosterRow, column: string): string {
  if (!column.startsWith(':')) return row.cells[column] ?? ''
  const value = row[column.slice(1) as OwnColumn]
  return typeof value === 'boolean' ? (value ? 'on' : 'off') : value
}

const LONGEST: Readonly<Record<string, number>> = { name: 200, note: 2000, in: 40, out: 40 }

function withCell(row: RosterRow, column: string, text: string): RosterRow {
  if (column === ownColumn('on')) return { ...row, on: text.trim() === '' ? row.on : (switchIn(text) ?? row.on) }
  if (column.startsWith(':')) {
    const own = column.slice(1)
    return { ...row, [own]: text.slice(0, LONGEST[own]) }
  }
  const others = Object.entries(row.cells).filter(([id]) => id !== column)
  const cells = text === '' ? others : [...others, [column, text.slice(0, LONGEST_CELL)] as const]
  return { ...row, cells: Object.fromEntries(cells) }
}

/** Writes cells; those of rows and columns that are gone are passed over. */
export function setCells(roster: Roster, changes: readonly CellChange[]): Roster {
  const there = new Set([...OWN_COLUMNS.map(ownColumn), ...roster.columns.map(({ id }) => id)])
  const byRow = new Map<string, CellChange[]>()
  for (const change of changes.filter(({ column }) => there.has(column)))
    byRow.set(change.row, [...(byRow.get(change.row) ?? []), change])
  return {
    ...roster,
    rows: roster.rows.map((row) =>
      (byRow.get(row.id) ?? []).reduce((next, { column, text }) => withCell(next, column, text), row),
    ),
  }
}

/** The first number after which `row-N` is free. */
const nextNumber = (entries: readonly { id: string }[], stem: string): number =>
  entries.reduce((most, { id }) => {
    const number = id.startsWith(`${stem}-`) ? Number(id.slice(stem.length + 1)) : 0
    return Number.isSafeInteger(number) ? Math.max(most, number) : most
  }, 0) + 1

export const emptyRow = (id: string): RosterRow => ({ id, name: '', on: true, note: '', in: '', out: '', cells: {} })

/** So many empty rows before a place; as many as there is room for. */
export function addRows(roster: Roster, count: number, at = roster.rows.length): { roster: Roster; ids: string[] } {
  const first = nextNumber(roster.rows, 'row')
  const room = Math.max(0, Math.min(count, MOST_ROWS - roster.rows.length))
  const made = Array.from({ length: room }, (_, i) => emptyRow(`row-${first + i}`))
  return {
    roster: { ...roster, rows: [...roster.rows.slice(0, at), ...made, ...roster.rows.slice(at)] },
    ids: made.map(({ id }) => id),
  }
}

export const removeRows = (roster: Roster, ids: ReadonlySet<string>): Roster => ({
  ...roster,
  rows: roster.rows.filter(({ id }) => !ids.has(id)),
})

/** Copies of rows, each right behind its own. */
export function duplicateRows(roster: Roster, ids: ReadonlySet<string>): Roster {
  let next = nextNumber(roster.rows, 'row')
  const rows = roster.rows.flatMap((row) => (ids.has(row.id) ? [row, { ...row, id: `row-${next++}` }] : [row]))
  return { ...roster, rows: rows.slice(0, MOST_ROWS) }
}

/** Moves a row to before another one; to the end for null. */
export function moveRow(roster: Roster, id: string, before: string | null): Roster {
  const row = roster.rows.find((one) => one.id === id)
  if (!row || before === id) return roster
  const rest = roster.rows.filter((one) => one.id !== id)
  const to = rest.findIndex((one) => one.id === before)
  const at = to < 0 ? rest.length : to
  return { ...roster, rows: [...rest.slice(0, at), row, ...rest.slice(at)] }
}

/** Words in the order of the alphabet, numbers within them by their size: “Lane 9” before “Lane 10”. */
const WORDS = new Intl.Collator('en', { numeric: true, sensitivity: 'base' })

/** Puts the rows in the order of a column, whatever it is; those that say nothing there stand last. Equal ones keep their order. */
export function sortRows(roster: Roster, column: string, way: 'rising' | 'falling'): Roster {
  const sign = way === 'rising' ? 1 : -1
  const keyed = roster.rows.map((row) => ({ row, text: cellOf(row, column).trim() }))
  const isLast = ({ text }: { text: string }) => Number(text === '')
  keyed.sort((a, b) => isLast(a) - isLast(b) || sign * WORDS.compare(a.text, b.text))
  const rows = keyed.map(({ row }) => row)
  return rows.every((row, i) => row === roster.rows[i]) ? roster : { ...roster, rows }
}

/** Rows of another roster behind those that are there: columns go by their headings, new ones are added. */
export function appendRoster(roster: Roster, other: Roster): Roster {
  let next = roster
  const to = new Map<string, string>()
  for (const column of other.columns) {
    const known = next.columns.find(({ name }) => headingOf(name) === headingOf(column.name))
    if (known) to.set(column.id, known.id)
    else {
      const added = addColumn(next, column.name)
      next = added.roster
      to.set(column.id, added.id)
    }
  }
  const added = addRows(next, other.rows.length)
  const rows = other.rows.slice(0, added.ids.length).map((row, i) => ({
    ...row,
    id: added.ids[i]!,
    cells: Object.fromEntries(Object.entries(row.cells).map(([column, text]) => [to.get(column)!, text])),
  }))
  return { ...added.roster, rows: [...next.rows, ...rows] }
}

/** The heading, told apart from those that are there. */
export function freeHeading(columns: readonly RosterColumn[], name: string): string {
  const taken = new Set(columns.map((column) => headingOf(column.name)))
  const own = name.trim().slice(0, 76) || 'Column'
  if (!taken.has(headingOf(own))) return own
  let n = 2
  while (taken.has(headingOf(`${own} ${n}`))) n++
  return `${own} ${n}`
}

export function addColumn(roster: Roster, name: string): { roster: Roster; id: string } {
  const id = `column-${nextNumber(roster.columns, 'column')}`
  if (roster.columns.length >= MOST_COLUMNS) return { roster, id: roster.columns.at(-1)!.id }
  const column = { id, name: freeHeading(roster.columns, name), also: [] }
  return { roster: { ...roster, columns: [...roster.columns, column] }, id }
}

const withColumn = (roster: Roster, id: string, change: Partial<RosterColumn>): Roster => ({
  ...roster,
  columns: roster.columns.map((column) => (column.id === id ? { ...column, ...change } : column)),
})

export function renameColumn(roster: Roster, id: string, name: string): Roster {
  const others = roster.columns.filter((column) => column.id !== id)
  return name.trim() === '' ? roster : withColumn(roster, id, { name: freeHeading(others, name) })
}

/** Lets a column be found under another heading too; no other column is found under it any more. */
export function alsoCalled(roster: Roster, id: string, heading: string): Roster {
  const without = (column: RosterColumn) => column.also.filter((one) => headingOf(one) !== headingOf(heading))
  return {
    ...roster,
    columns: roster.columns.map((column) => ({
      ...column,
      also: column.id === id ? [...without(column), heading].slice(-20) : without(column),
    })),
  }
}

export function removeColumn(roster: Roster, id: string): Roster {
  return {
    ...roster,
    columns: roster.columns.filter((column) => column.id !== id),
    rows: roster.rows.map((row) => (id in row.cells ? withCell(row, id, '') : row)),
  }
}

/** Moves a column; `to` counts after it was taken out. */
export function moveColumn(roster: Roster, id: string, to: number): Roster {
  const column = roster.columns.find((one) => one.id === id)
  if (!column) return roster
  const rest = roster.columns.filter((one) => one.id !== id)
  return { ...roster, columns: [...rest.slice(0, to), column, ...rest.slice(to)] }
}

/** The rows and columns that a grid shows, by their ids in its order. */
export interface ShownGrid {
  rows: readonly string[]
  columns: readonly string[]
}

/**
 * Lays a block of texts, as a spreadsheet copies it, from a cell on; rows and columns that it goes beyond are added. Rows that the grid
 * does not show are passed over.
 */
export function pasteBlock(
  roster: Roster,
  block: readonly (readonly string[])[],
  from: { row: string | null; column: string },
  { rows, columns }: ShownGrid,
): Roster {
  const start = from.row === null ? rows.length : rows.indexOf(from.row)
  const first = columns.indexOf(from.column)
  if (start < 0 || first < 0) return roster
  const width = Math.max(0, ...block.map((cells) => cells.length))
  const longer = addRows(roster, start + block.length - rows.length)
  const shown = [...rows, ...longer.ids]
  let next = longer.roster
  const all = [...columns]
  while (all.length < first + width && next.columns.length < MOST_COLUMNS) {
    const added = addColumn(next, 'Column')
    next = added.roster
    all.push(added.id)
  }
  const changes = block.flatMap((cells, y) =>
    cells.flatMap((text, x): CellChange[] => {
      const [row, column] = [shown[start + y], all[first + x]]
      return row !== undefined && column ? [{ row, column, text }] : []
    }),
  )
  return setCells(next, changes)
}
