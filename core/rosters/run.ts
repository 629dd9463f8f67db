import type { Card } from '../card/schema'
import { heldFrame } from '../time/held'
import type { Frames } from '../units'
import type { FieldCells } from './fill'
import { fillCard } from './fill'
import type { KnownPicture } from './kinds/definition'
import type { Programme } from './programme'

// A programme as one long run of frames: each row's card at its place, nothing between them.

/** What is kept of a programme to make its frames from the card, wherever that is done. */
export interface ProgrammeRun {
  /** The frame of the programme's clock that is the first of the run. */
  start: Frames
  /** In the order of time; `start` counts from the run's beginning. */
  entries: readonly { start: Frames; frames: Frames; holds: number; cells: FieldCells }[]
  /** Pictures that cells name. */
  pictures: Readonly<Record<string, KnownPicture>>
}

/** A picture to be made. */
export interface Take {
  card: Card
  frame: Frames
}

export interface ProgrammeTakes {
  /** The take at each frame of the run. */
  order: number[]
  /** Every picture once, by its number; the first is clear where there is a gap. */
  takes: Take[]
}

/** A placed programme as it is kept; null where it has no rows. `cells` are those of each row. */
export function programmeRun(
  { entries }: Programme,
  cells: (row: string) => FieldCells,
  pictures: Readonly<Record<string, KnownPicture>>,
): ProgrammeRun | null {
  const [first] = entries
  if (!first) return null
  return {
    start: first.start,
    entries: entries.map(({ row, start, frames, holds }) => ({
      ...{ start: start - first.start, frames, holds },
      cells: cells(row.id),
    })),
    pictures,
  }
}

/** Frames of the whole run: it ends with its last row. */
export const runFrames = ({ entries }: ProgrammeRun): Frames => {
  const last = entries.at(-1)
  return last ? last.start + last.frames : 0
}

/** The cards of a run, filled. */
export const cardsOf = (card: Card, { entries, pictures }: ProgrammeRun): Card[] =>
  entries.map(({ cells }) => fillCard(card, cells, { picture: (name) => pictures[name] ?? null }).card)

/** What is to be made for a run. The same card and run give the same numbers everywhere. */
export function takesOf(card: Card, run: ProgrammeRun): ProgrammeTakes {
  const cards = cardsOf(card, run)
  const takes: Take[] = []
  const known = new Map<string, number>()
  const numberOf = (entry: number, frame: Frames): number => {
    const key = `${entry} ${frame}`
    const number = known.get(key) ?? takes.length
    if (number === takes.length) {
      known.set(key, number)
      takes.push(
        entry < 0 ? { card: { ...card, pieces: [], background: null }, frame } : { card: cards[entry]!, frame },
      )
    }
    return number
  }
  const order: number[] = []
  run.entries.forEach(({ start, frames, holds }, i) => {
    while (order.length < start) order.push(numberOf(-1, 0))
    for (let at = 0; at < frames; at++) order.push(numberOf(i, heldFrame(cards[i]!, at, holds)))
  })
  return { order, takes }
}
