import type { Fault } from '../errors'
import { isDropped, readTimecode, timecode } from '../time/timecode'
import type { Frames } from '../units'
import type { Rate } from '../values/rate'
import { perSecond } from '../values/rate'
import { timelineOf } from './otio'
import { csvOf } from './table-out'

// What became of the rows of a roster that were rendered as files: by the press room and by the command line.

export interface MadeRow {
  row: string
  /** Names of its files, the one with the picture first. */
  files: readonly string[]
  /** `done`, `failed`, or where it is on its way. */
  state: string
  frames: Frames
  rate: Rate
  /** Where it begins on the programme's clock; null for nowhere. */
  start: Frames | null
  /** The timecode that its file begins with; null for none. */
  timecode: string | null
  /** Whether the checks of its files passed; null where none were made. */
  passed: boolean | null
  /** What is wrong; empty for nothing. */
  wrong: string
}

/** A row that could not be rendered. */
export interface RowNotMade {
  title: string
  fault: Fault
}

/** The report as CSV: a line for each row, those that were left out too. */
export const rowReport = (made: readonly MadeRow[], leftOut: readonly RowNotMade[]): string =>
  csvOf([
    ['Row', 'File', 'State', 'Frames', 'Seconds', 'In', 'Checks', 'What is wrong'],
    ...made.map(({ row, files, state, frames, rate, start, timecode: own, passed, wrong }) => [
      ...[row, files.join(' + '), state, String(frames), (frames / perSecond(rate)).toFixed(2)],
      start === null ? '' : timecode(start, rate, isDropped(own ?? '')),
      passed === null ? '' : passed ? 'all passed' : 'failed',
      wrong,
    ]),
    ...leftOut.map(({ title, fault: { place, message, remedy } }) => [
      ...[title, '', 'left out', '', '', '', ''],
      `${place}: ${message} ${remedy}`,
    ]),
  ])

/** An OpenTimelineIO timeline with every finished row that has its place, by the first of its files. Null where none has. */
export function rowTimeline(name: string, made: readonly MadeRow[]): object | null {
  const placed = made
    .flatMap((row) => (row.start !== null && row.state === 'done' ? [{ ...row, start: row.start }] : []))
    .sort((a, b) => a.start - b.start)
  const [first] = placed
  if (!first) return null
  return timelineOf({
    ...{ name, rate: first.rate },
    entries: placed.map(({ row, files, start, frames, rate, timecode: own }) => ({
      ...{ name: row, file: files[0]!, note: '', start, frames },
      mediaStart: own ? readTimecode(own, rate) : 0,
    })),
  })
}
