import type { Card } from '../../../core/card/schema'
import { WaxError } from '../../../core/errors'
import type { Fault } from '../../../core/errors'
import { fileStem } from '../../../core/formats/file-stem'
import type { RenderOptions } from '../../../core/formats/deliveries/render-options'
import { deliveryOf } from '../../../core/formats/deliveries/table'
import { broughtBy } from '../../../core/rosters/fill'
import type { KnownPicture } from '../../../core/rosters/kinds/definition'
import { cellsFor } from '../../../core/rosters/matching'
import type { Programme, ProgrammeEntry } from '../../../core/rosters/programme'
import { programmeOf } from '../../../core/rosters/programme'
import type { Roster } from '../../../core/rosters/roster'
import { isBlank, isRendered } from '../../../core/rosters/roster'
import type { RowCard } from '../../../core/rosters/rows'
import { RowCards } from '../../../core/rosters/rows'
import { programmeRun, runFrames } from '../../../core/rosters/run'
import { heldLength, zonesOf } from '../../../core/time/held'
import { isDropped, timecode } from '../../../core/time/timecode'
import type { RowLeftOut } from '../../database/schema'
import type { NewRender } from '../queue/enqueue'
import { sizeOf } from '../plan'

export interface BatchWish {
  card: { id: string; name: string; revision: number; document: Card }
  roster: { id: string; name: string; document: Roster }
  /** Ids of rows; null for all that are on. */
  rows: readonly string[] | null
  /** Each row a file, or all with timecodes in one. */
  as: 'rows' | 'programme'
  /** How each file is made; the frames follow from its row. */
  options: RenderOptions
  pictures: Readonly<Record<string, KnownPicture>>
}

/** What a batch will be: its renders, and the rows that are none. */
export interface PlannedBatch {
  renders: (NewRender & { frames: number; shown: number })[]
  leftOut: RowLeftOut[]
}

/** Plans a job of many files. Rows that cannot be rendered are left out and told; throws a WaxError where none is left. */
export function planBatch(wish: BatchWish): PlannedBatch {
  const { card, roster, rows } = wish
  const cards = new RowCards(card.document, roster.document, broughtBy(wish.pictures))
  const wanted = rows && new Set(rows)
  const asked = roster.document.rows
    .filter((row) => (wanted ? wanted.has(row.id) && !isBlank(row) : isRendered(row)))
    .map((row) => cards.of(row))
  const leftOut: RowLeftOut[] = []
  const leave = ({ row, title }: RowCard, { code, place, message, remedy }: Fault) =>
    leftOut.push({ row: row.id, title, fault: { code, place, message, remedy } })
  const whole = asked.filter((row) => {
    const [fault] = row.faults
    if (fault) leave(row, fault)
    return !fault
  })
  const programme = programmeOf(whole)
  for (const fault of programme.faults)
    leave(
      whole.find(({ row }) => row.id === fault.row)!,
      fault,
    )
  const base = { cardId: card.id, name: card.name, revision: card.revision }
  const made = wish.as === 'programme' ? asProgramme(wish, cards, programme) : asRows(wish, whole, programme, leave)
  if (made.length === 0) {
    const why = leftOut[0]?.fault
    throw new WaxError(
      'no-rows',
      'rows',
      why ? `No row can be rendered: ${why.place}: ${why.message}` : 'There is no row to render.',
      why?.remedy ?? 'Write words into a row of the roster, or switch some on.',
    )
  }
  return { renders: made.map((render) => ({ ...base, ...render })), leftOut }
}

type Planned = Omit<PlannedBatch['renders'][number], 'cardId' | 'name' | 'revision'>

/** A file for each row; one that has its place in time is held as long as that takes. */
function asRows(
  { options, card }: BatchWish,
  whole: readonly RowCard[],
  { entries, faults }: Programme,
  leave: (row: RowCard, fault: Fault) => void,
): Planned[] {
  if (!options.name.includes('{row}')) {
    throw new WaxError('one-name', 'name', 'All files would have one name.', 'Put {row} into the name.')
  }
  const misplaced = new Set(faults.map(({ row }) => row))
  const names = new UniqueNames()
  return whole.flatMap((row): Planned[] => {
    if (misplaced.has(row.row.id)) return []
    const entry = entries.find((one) => one.row.id === row.row.id)
    const { holds } = entry ?? row
    const frames = options.format === 'still' ? stillOf(row.card) : { from: 0, to: heldLength(row.card, holds), holds }
    const render = {
      ...{ cardId: card.id, name: card.name, revision: card.revision, document: row.card },
      ...{ rowId: row.row.id, rowName: row.title, rowStart: entry?.start ?? null },
      options: withTimecode({ ...options, ...frames }, row.card, entry ?? null),
    }
    try {
      const size = sizeOf({ ...render, programme: null })
      // A row that is left out takes no name.
      return [{ ...render, ...size, rowName: names.take(row.title) }]
    } catch (error) {
      if (!(error instanceof WaxError)) throw error
      leave(row, error.fault)
      return []
    }
  })
}

/** A still of a row shows it whole: the middle of its hold. */
function stillOf(card: Card) {
  const { hold, out } = zonesOf(card) ?? { hold: 0, out: card.length }
  const from = Math.floor((hold + out) / 2)
  return { from, to: from + 1, holds: 1 }
}

/** All rows with timecodes in one file. */
function asProgramme({ options, card, roster, pictures }: BatchWish, cards: RowCards, programme: Programme): Planned[] {
  const rows = new Map(roster.document.rows.map((row) => [row.id, row]))
  const used: Record<string, KnownPicture> = {}
  const cells = (id: string) => {
    const own = cellsFor(cards.matches, rows.get(id)!)
    for (const text of Object.values(own)) {
      const name = text.trim()
      const picture = pictures[name] ?? pictures[name.toLowerCase()]
      if (picture) used[name] = picture
    }
    return own
  }
  const run = programmeRun(programme, cells, used)
  if (!run) return []
  const render = {
    ...{ cardId: card.id, name: card.name, revision: card.revision, document: card.document, programme: run },
    ...{ rowId: '', rowName: roster.name, rowStart: run.start },
    options: withTimecode({ ...options, from: 0, to: runFrames(run), holds: 1 }, card.document, programme.entries[0]!),
  }
  return [{ ...render, ...sizeOf(render) }]
}

/** A file that can carry a timecode begins with that of its place, unless another one was asked for. */
function withTimecode(options: RenderOptions, { rate }: Card, placed: ProgrammeEntry | null): RenderOptions {
  if (!placed || options.timecode || !('timecode' in deliveryOf(options.format).options)) return options
  // Counted as its row is: the same frame has another number where numbers are dropped.
  return { ...options, timecode: timecode(placed.start, rate, isDropped(placed.row.in)) }
}

/** Names that differ as file names. */
class UniqueNames {
  private readonly taken = new Set<string>()

  take(title: string): string {
    let name = title
    for (let n = 2; this.taken.has(fileStem(name)); n++) name = `${title} ${n}`
    this.taken.add(fileStem(name))
    return name
  }
}
