import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  addColumn,
  addRows,
  appendRoster,
  alsoCalled,
  duplicateRows,
  moveColumn,
  moveRow,
  pasteBlock,
  removeColumn,
  removeRows,
  renameColumn,
  setCells,
  sortRows,
} from '#core/rosters/edit'
import type { Roster } from '#core/rosters/roster'
import { createRoster, readRoster, rowTitle } from '#core/rosters/roster'
import { matchFields, idleColumns } from '#core/rosters/matching'
import { NOTHING_BROUGHT } from '#core/rosters/fill'
import { RowCards } from '#core/rosters/rows'
import type { TypePiece } from '#core/card/schema'
import { emptyCard, withType } from '../../support/engine'

const two = (): Roster => {
  let roster = createRoster('Crew')
  for (const name of ['Name', 'Role']) roster = addColumn(roster, name).roster
  return addRows(roster, 2).roster
}
const cells = ({ rows, columns }: Roster) => rows.map((row) => columns.map(({ id }) => row.cells[id] ?? ''))

test('a block from a spreadsheet goes beyond what is there: rows and columns are added', () => {
  const roster = two()
  const shown = { rows: roster.rows.map(({ id }) => id), columns: roster.columns.map(({ id }) => id) }
  const from = { row: 'row-2', column: shown.columns[1]! }
  const pasted = pasteBlock(roster, [['a', 'b', 'c'], ['d'], ['e', 'f']], from, shown)
  expect(cells(pasted)).toEqual([
    ['', '', '', ''],
    ['', 'a', 'b', 'c'],
    ['', 'd', '', ''],
    ['', 'e', 'f', ''],
  ])
  expect(pasted.rows[0]).toBe(roster.rows[0])
})

test('a block passes over rows that are not shown', () => {
  const roster = addRows(two(), 2).roster
  const shown = { rows: ['row-1', 'row-4'], columns: roster.columns.map(({ id }) => id) }
  const pasted = pasteBlock(roster, [['a'], ['b'], ['c']], { row: 'row-1', column: shown.columns[0]! }, shown)
  expect(cells(pasted).map(([name]) => name)).toEqual(['a', '', '', 'b', 'c'])
})

test('rows are sorted by a column: numbers by their size, empty ones last, equal ones as they were', () => {
  const names = ['Lane 10', 'lane 9', '', 'Ärmel', 'apple', 'Lane 9']
  const roster = setCells(
    addRows(two(), names.length - 2).roster,
    names.flatMap((text, i) => [{ row: `row-${i + 1}`, column: 'column-1', text }]),
  )
  const order = (way: 'rising' | 'falling') => cells(sortRows(roster, 'column-1', way)).map(([name]) => name)
  expect(order('rising')).toEqual(['apple', 'Ärmel', 'lane 9', 'Lane 9', 'Lane 10', ''])
  expect(order('falling')).toEqual(['Lane 10', 'lane 9', 'Lane 9', 'Ärmel', 'apple', ''])
  const sorted = sortRows(roster, 'column-1', 'rising')
  expect(sortRows(sorted, 'column-1', 'rising')).toBe(sorted)
})

test('a row is put before another one, or at the end', () => {
  const roster = addRows(two(), 1).roster
  const ids = (one: Roster) => one.rows.map(({ id }) => id)
  expect(ids(moveRow(roster, 'row-3', 'row-1'))).toEqual(['row-3', 'row-1', 'row-2'])
  expect(ids(moveRow(roster, 'row-1', null))).toEqual(['row-2', 'row-3', 'row-1'])
})

test('a table that follows a roster fills its columns by their headings', () => {
  const roster = setCells(two(), [{ row: 'row-1', column: 'column-1', text: 'Ada' }])
  let other = addColumn(addColumn(createRoster('More'), 'ROLE').roster, 'Town').roster
  other = setCells(addRows(other, 1).roster, [
    { row: 'row-1', column: 'column-1', text: 'Pilot' },
    { row: 'row-1', column: 'column-2', text: 'Ebbing' },
    { row: 'row-1', column: ':note', text: 'late' },
  ])
  const all = appendRoster(roster, other)
  expect(all.columns.map(({ name }) => name)).toEqual(['Name', 'Role', 'Town'])
  expect(cells(all)).toEqual([
    ['Ada', '', ''],
    ['', '', ''],
    ['', 'Pilot', 'Ebbing'],
  ])
  expect(all.rows[2]).toMatchObject({ id: 'row-3', note: 'late' })
})

test('rows are filled once: an edit makes those anew that it changes, another card all of them', () => {
  const field = (label: string) => ({
    id: label,
    label,
    kind: 'wording' as const,
    at: ['type-1/wording'],
    variants: [],
  })
  const card = { ...withType(emptyCard(64, 64, 4), { id: 'type-1', wording: 'A' }, {}), fields: [field('Name')] }
  const roster = setCells(two(), [{ row: 'row-1', column: 'column-1', text: 'Ada' }])
  const before = new RowCards(card, roster, NOTHING_BROUGHT)
  const made = roster.rows.map((row) => before.of(row))
  const edited = setCells(roster, [{ row: 'row-2', column: 'column-1', text: 'Tam' }])
  const after = new RowCards(card, edited, NOTHING_BROUGHT, before)
  const again = edited.rows.map((row) => after.of(row))
  expect(again.map((one, i) => one === made[i])).toEqual([true, false])
  expect(again[1]!.title).toBe('Tam')
  // A row without words is called by its number.
  const moved = moveRow(edited, 'row-1', null)
  const numbered = setCells(moved, [{ row: 'row-2', column: 'column-1', text: '' }])
  expect(new RowCards(card, numbered, NOTHING_BROUGHT, after).of(numbered.rows[0]!).title).toBe('row 1')
  const renamed = renameColumn(edited, 'column-1', 'Crew')
  const unfilled = new RowCards(card, renamed, NOTHING_BROUGHT, after).of(renamed.rows[0]!)
  expect((unfilled.card.pieces[0] as TypePiece).wording).toBe('A')
  const other = new RowCards({ ...card, name: 'Other' }, edited, NOTHING_BROUGHT, after)
  expect(other.of(edited.rows[0]!).card.name).toBe('Other')
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
    fc.tuple(row, fc.option(row)).map(
      ([r, before]) =>
        (one: Roster) =>
          moveRow(one, r, before),
    ),
    fc.tuple(column, fc.constantFrom('rising' as const, 'falling' as const)).map(
      ([c, way]) =>
        (one: Roster) =>
          sortRows(one, c, way),
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
            { rows: one.rows.map(({ id }) => id), columns: one.columns.map(({ id }) => id) },
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
