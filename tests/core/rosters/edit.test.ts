import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  addColumn,
  addRows,
  alsoCalled,
  duplicateRows,
  moveColumn,
  moveRow,
  pasteBlock,
  removeColumn,
  removeRows,
  renameColumn,
  setCells,
} from '#core/rosters/edit'
import type { Roster } from '#core/rosters/roster'
import { createRoster, readRoster, rowTitle } from '#core/rosters/roster'
import { matchFields, idleColumns } from '#core/rosters/matching'

const two = (): Roster => {
  let roster = createRoster('Crew')
  for (const name of ['Name', 'Role']) roster = addColumn(roster, name).roster
  return addRows(roster, 2).roster
}
const cells = ({ rows, columns }: Roster) => rows.map((row) => columns.map(({ id }) => row.cells[id] ?? ''))

test('a block from a spreadsheet goes beyond what is there: rows and columns are added', () => {
  const roster = two()
  const shown = roster.columns.map(({ id }) => id)
  const pasted = pasteBlock(roster, [['a', 'b', 'c'], ['d'], ['e', 'f']], { row: 'row-2', column: shown[1]! }, shown)
  expect(cells(pasted)).toEqual([
    ['', '', '', ''],
    ['', 'a', 'b', 'c'],
    ['', 'd', '', ''],
    ['', 'e', 'f', ''],
  ])
  expect(pasted.rows[0]).toBe(roster.rows[0])
})

test('a field finds its column by heading, whatever its case, and by what it is called elsewhere', () => {
  const field = (label: string) => ({ id: label, label, kind: 'wording' as const, at: ['a/wording'], variants: [] })
  const roster = alsoCalled(two(), 'column-2', 'Job title')
  const found = matchFields({ fields: [field(' name '), field('JOB TITLE'), field('Town')] }, roster)
  expect(found.map(({ column }) => column?.name ?? null)).toEqual(['Name', 'Role', null])
  expect(idleColumns(found.slice(0, 1), roster).map(({ name }) => name)).toEqual(['Role'])
  // Only one column is called so.
  expect(alsoCalled(roster, 'column-1', 'job title').columns.map(({ also }) => also)).toEqual([['job title'], []])
})

test('a row is called by its name, or by its first words', () => {
  const roster = setCells(two(), [
    { row: 'row-1', column: 'column-2', text: 'Pilot\nand cook' },
    { row: 'row-2', column: ':name', text: ' 02 ' },
  ])
  expect(roster.rows.map((row) => rowTitle(roster, row))).toEqual(['Pilot', '02'])
})

test('whatever is done to a roster leaves one that can be read again', () => {
  const row = fc.nat(6).map((n) => `row-${n}`)
  const column = fc.nat(5).map((n) => `column-${n}`)
  const text = fc.string({ maxLength: 6 })
  const edit = fc.oneof(
    fc.tuple(row, column, text).map(
      ([r, c, t]) =>
        (one: Roster) =>
          setCells(one, [{ row: r, column: c, text: t }]),
    ),
    fc.nat(3).map((n) => (one: Roster) => addRows(one, n, 1).roster),
    text.map((t) => (one: Roster) => addColumn(one, t).roster),
    fc.tuple(column, text).map(
      ([c, t]) =>
        (one: Roster) =>
          renameColumn(one, c, t),
    ),
    column.map((c) => (one: Roster) => removeColumn(one, c)),
    row.map((r) => (one: Roster) => removeRows(one, new Set([r]))),
    row.map((r) => (one: Roster) => duplicateRows(one, new Set([r]))),
    fc.tuple(row, fc.nat(4)).map(
      ([r, to]) =>
        (one: Roster) =>
          moveRow(one, r, to),
    ),
    fc.tuple(column, fc.nat(4)).map(
      ([c, to]) =>
        (one: Roster) =>
          moveColumn(one, c, to),
    ),
    fc.tuple(row, fc.array(fc.array(text, { maxLength: 3 }), { maxLength: 3 })).map(
      ([r, block]) =>
        (one: Roster) =>
          pasteBlock(
            one,
            block,
            { row: r, column: 'column-1' },
            one.columns.map(({ id }) => id),
          ),
    ),
  )
  fc.assert(
    fc.property(fc.array(edit, { maxLength: 12 }), (edits) => {
      const before = two()
      const kept = JSON.stringify(before)
      const after = edits.reduce((one, change) => change(one), before)
      const columns = new Set(after.columns.map(({ id }) => id))
      expect(readRoster(JSON.parse(JSON.stringify(after))).faults).toBeNull()
      for (const { cells: own } of after.rows) for (const id of Object.keys(own)) expect(columns).toContain(id)
      expect(JSON.stringify(before)).toBe(kept)
    }),
  )
})
