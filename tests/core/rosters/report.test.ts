import { expect, test } from '@jest/globals'
import type { MadeRow } from '#core/rosters/report'
import { rowReport, rowTimeline } from '#core/rosters/report'
import { readTable } from '#core/rosters/table-in'

// What became of rows that were rendered: as a table, and as a timeline.

const RATE = { numerator: 25, denominator: 1 }
const made = (values: Partial<MadeRow>): MadeRow => ({
  ...{ row: 'Ada Reed', files: ['ada-reed.mov'], state: 'done', frames: 150, rate: RATE },
  ...{ start: null, timecode: null, passed: true, wrong: '' },
  ...values,
})

test('the report has a line for each row, those that were left out too, and is read again as it was written', () => {
  const fault = { code: 'unreadable-cell', place: 'Colour', message: '“sunny” is no colour.', remedy: 'Write #RRGGBB.' }
  const csv = rowReport(
    [
      made({ files: ['ada-reed.mov', 'ada-reed.key.mov'], start: 90_000 }),
      made({ row: 'Tam “T, V” Voss', state: 'failed', passed: false, wrong: 'The disk is full.', frames: 76 }),
      made({ row: 'Nell', state: 'waiting', passed: null }),
    ],
    [{ title: 'Bo\nLind', fault }],
  )
  const { headings, rows } = readTable(new TextEncoder().encode(csv))
  expect(headings).toEqual(['Row', 'File', 'State', 'Frames', 'Seconds', 'In', 'Checks', 'What is wrong'])
  expect(rows).toEqual([
    ['Ada Reed', 'ada-reed.mov + ada-reed.key.mov', 'done', '150', '6.00', '01:00:00:00', 'all passed', ''],
    ['Tam “T, V” Voss', 'ada-reed.mov', 'failed', '76', '3.04', '', 'failed', 'The disk is full.'],
    ['Nell', 'ada-reed.mov', 'waiting', '150', '6.00', '', '', ''],
    ['Bo\nLind', '', 'left out', '', '', '', '', 'Colour: “sunny” is no colour. Write #RRGGBB.'],
  ])
})

interface Clip {
  OTIO_SCHEMA: string
  name: string
  source_range: { start_time: { value: number; rate: number }; duration: { value: number } }
}

test('the timeline has what is done and placed, in the order of time, with gaps between', () => {
  const timeline = rowTimeline('Evening', [
    made({ row: 'Second', files: ['second.mov'], start: 400, frames: 100, timecode: '10:00:00:00' }),
    made({ row: 'First', files: ['first.mov', 'first.key.mov'], start: 100, frames: 150 }),
    made({ row: 'Lost', start: 700, state: 'failed' }),
    made({ row: 'Nowhere' }),
  ]) as { tracks: { children: { children: Clip[] }[] } }
  const clips = timeline.tracks.children[0]!.children
  expect(
    clips.map(({ OTIO_SCHEMA, name, source_range: { start_time: from, duration } }) => [
      ...[OTIO_SCHEMA, name, from.value, duration.value],
    ]),
  ).toEqual([
    ['Clip.1', 'First', 0, 150],
    ['Gap.1', '', 0, 150],
    // Its file begins with ten hours on its own clock.
    ['Clip.1', 'Second', 10 * 3600 * 25, 100],
  ])
  expect(JSON.stringify(clips[0])).toContain('first.mov')
  expect(rowTimeline('Evening', [made({}), made({ start: 4, state: 'waiting' })])).toBeNull()
})
