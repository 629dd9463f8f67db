import type { Fault } from '../errors'
import { WaxError } from '../errors'
import { heldLength } from '../time/held'
import { holdsForHold, holdsStill } from '../time/hold-still'
import { zonesOf } from '../time/held'
import { readTimecode, timecode } from '../time/timecode'
import type { Frames } from '../units'
import type { OwnColumn } from './edit'
import type { RowCard } from './rows'

// A programme: rows that have timecodes, each at its place in the edit.

export interface ProgrammeEntry extends RowCard {
  /** The frame of the programme's own clock at which it begins. */
  start: Frames
  /** Frames that it lasts. */
  frames: Frames
}

/** What is wrong with the time of a row. */
export interface TimeFault extends Fault {
  row: string
  column: OwnColumn
}

export interface Programme {
  /** In the order of time; none overlap. */
  entries: ProgrammeEntry[]
  /** Rows that cannot be placed are left out of it. */
  faults: TimeFault[]
  /** Rows that end earlier than they say, because their hold moves and is played whole. */
  notes: TimeFault[]
}

/** Places rows by their timecodes. A row without a time of its end lasts as long as its card, one without an in is not in the programme. */
export function programmeOf(rows: readonly RowCard[]): Programme {
  const faults: TimeFault[] = []
  const notes: TimeFault[] = []
  const placed = rows.flatMap((row): ProgrammeEntry[] => {
    if (row.row.in.trim() === '') return []
    try {
      const entry = placeRow(row)
      const wanted = row.row.out.trim() === '' ? null : readTimecode(row.row.out, row.card.rate) - entry.start
      if (wanted !== null && wanted > entry.frames) notes.push(endsEarly(entry, wanted - entry.frames))
      return [entry]
    } catch (error) {
      if (!(error instanceof WaxError)) throw error
      const column = error.fault.place === 'out' ? 'out' : 'in'
      faults.push({ ...error.fault, row: row.row.id, column })
      return []
    }
  })
  placed.sort((a, b) => a.start - b.start)
  const entries: ProgrammeEntry[] = []
  for (const entry of placed) {
    const before = entries.at(-1)
    if (before && entry.start < before.start + before.frames) faults.push(overlaps(entry, before))
    else entries.push(entry)
  }
  return { entries, faults, notes }
}

function placeRow(row: RowCard): ProgrammeEntry {
  const { card } = row
  const start = frameOf(row, 'in')
  if (row.row.out.trim() === '') return { ...row, start, frames: heldLength(card, row.holds) }
  const wished = frameOf(row, 'out') - start
  if (wished <= 0) {
    throw new WaxError(
      'ends-before',
      'out',
      'It ends before it begins.',
      'The time of its end comes after its beginning.',
    )
  }
  const zones = zonesOf(card)
  const moving = zones ? card.length - (zones.out - zones.hold) : card.length
  const least = zones ? moving + (holdsStill(card) ? 1 : zones.out - zones.hold) : moving
  if (wished < least) {
    const why = zones ? 'To come in and go out it takes' : 'The card lasts'
    throw new WaxError(
      'too-short',
      'out',
      `${why} ${least} frames, and there are ${wished}.`,
      `End it at ${timecode(start + least, card.rate)} or later.`,
    )
  }
  if (!zones) return { ...row, start, frames: card.length }
  const wanted = holdsForHold(card, wished - moving)!
  // A hold that moves ends with its last whole round, so that nothing overlaps what comes next.
  const holds = holdsStill(card) ? wanted : Math.max(1, Math.floor((wished - moving) / (zones.out - zones.hold)))
  return { ...row, holds, start, frames: heldLength(card, holds) }
}

function frameOf({ row, card }: RowCard, which: 'in' | 'out'): Frames {
  try {
    return readTimecode(row[which], card.rate)
  } catch (error) {
    if (!(error instanceof WaxError)) throw error
    const { code, message, remedy } = error.fault
    throw new WaxError(code, which, `“${row[which]}”: ${message}`, remedy)
  }
}

const overlaps = ({ row, card }: ProgrammeEntry, before: ProgrammeEntry): TimeFault => ({
  ...{ row: row.id, column: 'in', code: 'overlaps', place: 'in' },
  message: `It begins while “${before.title}” is still there, until ${timecode(before.start + before.frames, card.rate)}.`,
  remedy: 'Let it begin later, or the other one end earlier.',
})

const endsEarly = ({ row, start, frames, card }: ProgrammeEntry, by: Frames): TimeFault => ({
  ...{ row: row.id, column: 'out', code: 'ends-early', place: 'out' },
  message: `Its hold moves and is played whole, so it ends ${by} frames earlier, at ${timecode(start + frames, card.rate)}.`,
  remedy: 'Let nothing move in the hold, if it must end at that frame.',
})
