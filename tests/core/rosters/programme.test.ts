import { expect, test } from '@jest/globals'
import type { Card } from '#core/card/schema'
import { createPiece } from '#core/card/create'
import { setCells, addRows, addColumn } from '#core/rosters/edit'
import { timelineOf } from '#core/rosters/otio'
import { programmeOf } from '#core/rosters/programme'
import { createRoster } from '#core/rosters/roster'
import { RowCards } from '#core/rosters/rows'
import { emptyCard } from '../../support/engine'

/** In 10 frames, held for 20, out in 5. */
const still: Card = { ...emptyCard(64, 64, 35), zones: { hold: 10, out: 30 } }
const moving: Card = {
  ...still,
  pieces: [
    {
      ...createPiece('box', still),
      x: {
        keys: [
          { frame: 12, value: 0 },
          { frame: 20, value: 30 },
        ],
      },
    },
  ],
}

function placed(card: Card, times: [string, string][]) {
  const roster = setCells(
    addRows(addColumn(createRoster('Evening'), 'Name').roster, times.length).roster,
    times.flatMap(([from, to], i) => [
      { row: `row-${i + 1}`, column: ':in', text: from },
      { row: `row-${i + 1}`, column: ':out', text: to },
      { row: `row-${i + 1}`, column: 'column-1', text: `Boat ${i + 1}` },
    ]),
  )
  const cards = new RowCards(card, roster, { picture: () => null })
  const { entries, faults, notes } = programmeOf(roster.rows.map((row) => cards.of(row)))
  return {
    entries: entries.map(({ title, start, frames, holds }) => ({ title, start, frames, holds })),
    faults: faults.map(({ row, column, code, remedy }) => ({ row, column, code, remedy })),
    notes: notes.map(({ row, message }) => ({ row, message })),
  }
}

test('rows lie at their place, in the order of time, held until their out to the frame', () => {
  const { entries, faults, notes } = placed(still, [
    ['00:00:10:00', '00:00:12:03'],
    ['1:00', ''],
    ['', ''],
  ])
  expect(entries).toEqual([
    { title: 'Boat 2', start: 25, frames: 35, holds: 1 },
    { title: 'Boat 1', start: 250, frames: 53, holds: 38 / 20 },
  ])
  expect([faults, notes]).toEqual([[], []])
})

test('a hold that moves is played whole, ends before what comes next, and says so', () => {
  const { entries, notes } = placed(moving, [['0', '80']])
  expect(entries).toEqual([{ title: 'Boat 1', start: 0, frames: 75, holds: 3 }])
  expect(notes[0]!.message).toMatch(/5 frames earlier, at 00:00:03:00/)
})

test('what cannot be placed is told at its cell with the remedy, and the others are placed', () => {
  const { entries, faults } = placed(still, [
    ['0', '35'],
    ['0:20', ''],
    ['soon', ''],
    ['100', '90'],
    ['200', '210'],
    ['300', '1:99'],
  ])
  expect(entries.map(({ title }) => title)).toEqual(['Boat 1'])
  expect(faults).toEqual([
    expect.objectContaining({ row: 'row-3', column: 'in', code: 'no-timecode' }),
    expect.objectContaining({ row: 'row-4', column: 'out', code: 'ends-before' }),
    { row: 'row-5', column: 'out', code: 'too-short', remedy: 'End it at 00:00:08:16 or later.' },
    expect.objectContaining({ row: 'row-6', column: 'out', code: 'no-timecode' }),
    expect.objectContaining({ row: 'row-2', column: 'in', code: 'overlaps' }),
  ])
})

test('a timeline holds every file at its place, gaps between them, in the words of the published schema', () => {
  const timeline = timelineOf({
    ...{ name: 'Evening', rate: { numerator: 30000, denominator: 1001 } },
    entries: [
      { name: 'Boat 1', file: 'boat 1.mov', start: 50, frames: 40, note: 'twice', mediaStart: 100 },
      { name: 'Boat 2', file: 'b.mov', start: 90, frames: 10, note: '', mediaStart: 0 },
      { name: 'Boat 3', file: 'c.mov', start: 130, frames: 10, note: '', mediaStart: 0 },
    ],
  }) as { tracks: { children: { children: Record<string, unknown>[] }[] }; global_start_time: unknown }
  const rate = 30000 / 1001
  const time = (value: number) => ({ OTIO_SCHEMA: 'RationalTime.1', rate, value })
  expect(timeline).toMatchObject({ OTIO_SCHEMA: 'Timeline.1', global_start_time: time(50) })
  expect(timeline.tracks).toMatchObject({
    OTIO_SCHEMA: 'Stack.1',
    children: [{ OTIO_SCHEMA: 'Track.1', kind: 'Video' }],
  })
  const { children } = timeline.tracks.children[0]!
  expect(children.map(({ OTIO_SCHEMA }) => OTIO_SCHEMA)).toEqual(['Clip.1', 'Clip.1', 'Gap.1', 'Clip.1'])
  expect(children[0]).toMatchObject({
    source_range: { OTIO_SCHEMA: 'TimeRange.1', start_time: time(100), duration: time(40) },
    media_reference: { OTIO_SCHEMA: 'ExternalReference.1', target_url: 'boat%201.mov' },
    metadata: { note: 'twice' },
  })
  expect(children[2]).toMatchObject({ source_range: { duration: time(30) } })
})
