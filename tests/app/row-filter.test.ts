import { expect, test } from '@jest/globals'
import { shallowRef } from 'vue'
import type { RowFlag } from '#core/judge/row/definition'
import { addColumn, addRows, setCells } from '#core/rosters/edit'
import type { Roster } from '#core/rosters/roster'
import { createRoster } from '#core/rosters/roster'
import { useRowFilter } from '~/composables/row-filter'
import type { RowAbout } from '~/components/rosters/row-about'

// Which rows the grid shows.

const NAMES = ['Ada Reed', 'Tam Voss', 'Nell Tidewater']
const roster: Roster = setCells(addRows(addColumn(createRoster('Crews'), 'Name').roster, NAMES.length).roster, [
  ...NAMES.map((text, i) => ({ row: `row-${i + 1}`, column: 'column-1', text })),
  { row: 'row-2', column: ':note', text: 'Comes with Ada' },
])
const flag = { check: 'overflow', piece: null, frame: 0, message: '', remedy: '', fits: false } as RowFlag
const about = (id: string, flags: RowFlag[] | null): [string, RowAbout] => [
  id,
  { id, title: id, on: true, blank: false, card: null as never, holds: 1, faults: [], flags, saidAt: () => null },
]

test('rows that say all of the words, anywhere and in any case; without words all of them, as they are', () => {
  const filter = useRowFilter(shallowRef(roster), shallowRef(new Map()))
  const shown = () => filter.rows.value.map(({ id }) => id)
  expect(filter.rows.value).toBe(roster.rows)
  filter.words.value = 'ADA'
  expect(shown()).toEqual(['row-1', 'row-2'])
  filter.words.value = 'ada  comes '
  expect(shown()).toEqual(['row-2'])
  filter.words.value = 'nobody'
  expect(shown()).toEqual([])
})

test('only those in which something was found; what is not looked at yet is none of them', () => {
  const abouts = shallowRef<ReadonlyMap<string, RowAbout>>(new Map([about('row-1', null), about('row-2', [])]))
  const filter = useRowFilter(shallowRef(roster), abouts)
  filter.onlyFound.value = true
  expect(filter.rows.value).toEqual([])
  abouts.value = new Map([about('row-1', [flag]), about('row-2', []), about('row-3', [flag])])
  expect(filter.rows.value.map(({ id }) => id)).toEqual(['row-1', 'row-3'])
  filter.words.value = 'tide'
  expect(filter.rows.value.map(({ id }) => id)).toEqual(['row-3'])
})
