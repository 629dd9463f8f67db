import { beforeEach, describe, expect, jest, test } from '@jest/globals'
import { nextTick, ref, shallowRef } from 'vue'
import type { Card } from '#core/card/schema'
import type { RowFlag } from '#core/judge/row/definition'
import { addColumn, addRows, setCells } from '#core/rosters/edit'
import type { Roster } from '#core/rosters/roster'
import { createRoster } from '#core/rosters/roster'
import { usePictures } from '~/stores/pictures'
import { coat, solid, withPiece, withType } from '../support/engine'
import { freshStores, threeBoxes } from './stand-in'

// What the page of a roster knows of its rows, and says at their cells.

const FLAG = {
  check: 'overflow',
  piece: 'words',
  frame: 0,
  message: 'Too long.',
  remedy: 'Fit it.',
  fits: true,
} as RowFlag
let found: Record<string, RowFlag[]>

// What the engine finds comes from a worker: here it is known at once.
jest.unstable_mockModule('~/composables/row-looks', () => ({
  useRowLooks: () => ({ flagsOf: (row: string) => found[row] ?? null }),
}))
const { useRowAbouts } = await import('~/composables/row-abouts')

/** Words, their colour, and a picture: each of them a field. */
function card(): Card {
  const fill = coat('fill', 'fill-words', { paint: solid('#102030') })
  const words = withType(threeBoxes(), { id: 'words', wording: 'Name' }, { face: [fill] })
  const pictured = withPiece(words, 'picture', { id: 'boat' } as never)
  const field = (id: string, kind: string, label: string, at: string) => ({ id, kind, label, at: [at], variants: [] })
  return {
    ...pictured,
    fields: [
      field('name', 'wording', 'Name', 'words/wording'),
      field('colour', 'colour', 'Colour', 'words/fill-words/paint/colour'),
      field('boat', 'picture', 'Boat', 'boat/picture'),
    ],
  } as unknown as Card
}

const HEADINGS = ['Name', 'Colour', 'Boat']

function rosterOf(lines: readonly (readonly string[])[]): Roster {
  const columned = HEADINGS.reduce((roster, name) => addColumn(roster, name).roster, createRoster('Crew'))
  const { roster } = addRows(columned, lines.length)
  return setCells(
    roster,
    lines.flatMap((cells, i) =>
      cells.map((text, k) => ({ row: roster.rows[i]!.id, column: roster.columns[k]!.id, text })),
    ),
  )
}

const timed = (roster: Roster, times: readonly (readonly [string, string])[]): Roster => ({
  ...roster,
  rows: roster.rows.map((row, i) => ({ ...row, in: times[i]?.[0] ?? '', out: times[i]?.[1] ?? '' })),
})

function begin(made: Roster) {
  const roster = shallowRef<Roster | null>(made)
  const known = useRowAbouts(shallowRef<Card | null>(card()), roster, ref([]))
  const about = (i: number) => known.abouts.value.get(roster.value!.rows[i]!.id)!
  const column = (name: string) => roster.value!.columns.find((one) => one.name === name)!.id
  return { roster, known, about, column }
}

beforeEach(() => {
  freshStores()
  found = {}
})

describe('a row', () => {
  test('that can be read has its card, and nothing to be said of it', () => {
    const { about, column } = begin(rosterOf([['Ada', '#FF8800', '']]))
    expect(about(0)).toMatchObject({ title: 'Ada', blank: false, faults: [] })
    expect(about(0).card.pieces.find(({ id }) => id === 'words')).toMatchObject({ wording: 'Ada' })
    expect(HEADINGS.map((name) => about(0).saidAt(column(name)))).toEqual([null, null, null])
  })

  test('with a cell that cannot be read says so there and nowhere else, with what to do', () => {
    const { about, column } = begin(
      rosterOf([
        ['Ada', 'no colour', ''],
        ['Wren', '#FF8800', ''],
      ]),
    )
    const said = about(0).saidAt(column('Colour'))!
    expect(said).toMatchObject({ bad: true })
    expect(said.text).toMatch(/\. \S.*\.$/)
    expect([about(0).saidAt(column('Name')), about(1).saidAt(column('Colour'))]).toEqual([null, null])
    expect([about(0).faults.length, about(1).faults.length]).toEqual([1, 0])
  })

  test('into which nothing was written is blank: neither wrong nor looked at', () => {
    const { about, roster } = begin(rosterOf([['', '', '']]))
    found[roster.value!.rows[0]!.id] = [FLAG]
    expect(about(0)).toMatchObject({ blank: true, faults: [], flags: [] })
  })

  test('shows what the engine found, and nothing before that is known', () => {
    const { about, roster } = begin(
      rosterOf([
        ['Ada', '', ''],
        ['Wren', '', ''],
      ]),
    )
    found[roster.value!.rows[0]!.id] = [FLAG]
    expect([about(0).flags, about(1).flags]).toEqual([[FLAG], null])
  })

  test('whose times do not go says so at its times', () => {
    const two = rosterOf([
      ['Ada', '', ''],
      ['Wren', '', ''],
    ])
    const { about } = begin(
      timed(two, [
        ['00:00:10:00', '00:00:04:00'],
        ['when', ''],
      ]),
    )
    for (const i of [0, 1]) {
      const said = [':in', ':out'].map((name) => about(i).saidAt(name)).filter(Boolean)
      expect(said).toEqual([expect.objectContaining({ bad: true })])
      expect(about(i).faults.length).toBeGreaterThan(0)
    }
  })

  test('names a picture that comes later: it is read again then', async () => {
    const { about, column } = begin(rosterOf([['Ada', '', 'boat.png']]))
    expect(about(0).saidAt(column('Boat'))).toMatchObject({ bad: true })
    usePictures().list = [{ id: 'picture-0123456789abcdef', fileName: 'Boat.PNG', width: 4, height: 4 }]
    await nextTick()
    expect(about(0).saidAt(column('Boat'))).toBeNull()
    expect(about(0).card.pieces.find(({ id }) => id === 'boat')).toMatchObject({ picture: 'picture-0123456789abcdef' })
  })
})

describe('of many rows', () => {
  test('only one that changed is made anew', () => {
    const { roster, known, column } = begin(rosterOf(Array.from({ length: 50 }, (_, i) => [`Crew ${i}`, '', ''])))
    const before = known.rows.value
    roster.value = setCells(roster.value!, [{ row: roster.value!.rows[7]!.id, column: column('Name'), text: 'Other' }])
    const changed = known.rows.value.flatMap((one, i) => (one === before[i] ? [] : [i]))
    expect(changed).toEqual([7])
    expect(known.rows.value[7]!.title).toBe('Other')
  })

  test('there are none without a card or a roster', () => {
    const { roster, known } = begin(rosterOf([['Ada', '', '']]))
    roster.value = null
    expect([known.rows.value, known.abouts.value.size]).toEqual([[], 0])
  })
})
