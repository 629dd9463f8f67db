import type { Card } from '../../card/schema'
import { fontsNamed, picturesOf } from '../../card/tree'
import type { Fault } from '../../errors'
import { WaxError } from '../../errors'
import type { Engine } from '../../frame/engine'
import type { Frames } from '../../units'
import type { Flashes } from '../measures/flashes'
import type { RingDifference } from '../ring-difference'
import type { RowFlag } from '../row/definition'
import { refusal, refusedRow } from '../row/definition'
import { fitOfRow } from '../row/fit'
import { holdOf, roomsOf } from '../row/rooms'
import type { WithEngine } from '../with-engine'
import type { CourseFrame } from './course'
import type { Ground } from './grounds'
import { PLAIN_GROUNDS } from './grounds'
import type { LookedMoment } from './moment'
import { lasting, momentAt } from './moment'
import { isUnread } from './legibility'
import { perSecond } from '../../values/rate'
import { momentsOf } from './moments'
import { wholeRing } from './whole-ring'

// What the checks of the proof are judged by: the card is rendered once for all of them.

export interface Looked {
  card: Card
  /** PLAIN_GROUNDS, then what was brought to be looked at against. */
  grounds: readonly Ground[]
  /** What the card needs and has not; nothing else is looked at then. */
  missing: Fault[]
  /** Frames of the hold, [from, to): the whole loop without zones. */
  hold: { from: Frames; to: Frames }
  /** Where everything stands, in every frame of the loop. */
  course: CourseFrame[]
  /** Frames of the hold in full size, those that differ most. */
  moments: LookedMoment[]
  flashes: Flashes
  ring: RingDifference | null
  /** Rows in which words have no room, or no letters; none where the card has no rows. */
  rows: LookedRow[]
  /** How many rows were looked at. */
  rowCount: number
}

/** A row of a roster, filled into the card. */
export interface ProofRow {
  id: string
  title: string
  card: Card
  /** Cells that cannot be read: the card stands there as it was designed. */
  faults: readonly Fault[]
}

export interface LookedRow extends Pick<ProofRow, 'id' | 'title'> {
  /** What is wrong with its cells, and whether its words fit: see row/fit.ts. */
  flags: RowFlag[]
}

/** What a card is held against. */
export interface HeldAgainst {
  /** What it is for: footage, a colour. */
  own?: readonly Ground[]
  /** Rows that fill it. */
  rows?: readonly ProofRow[]
}

/** How many rows take as long as the card itself. */
const ROWS_OF_A_CARD = 60

/** Seconds for which the eye rests on a word: common knowledge of reading (K. Rayner, 1998: 200 to 250 ms), from memory. */
const FIXATION = 0.25

export interface LookOptions extends HeldAgainst {
  /** Told how far it is, 0–1. */
  onFrame?: (share: number) => void
}

export async function lookAt(
  card: Card,
  withEngine: WithEngine,
  { own = [], rows = [], onFrame = () => {} }: LookOptions = {},
): Promise<Looked> {
  const hold = holdOf(card)
  const flashes = { general: 0, red: 0, from: 0, luminance: [], changes: [] }
  const grounds = [...PLAIN_GROUNDS, ...own]
  const looked: Looked = {
    ...{ card, grounds, hold, missing: [], course: [], moments: [], flashes, ring: null },
    ...{ rows: [], rowCount: rows.length },
  }
  // Rows take their share of the time, as far as it can be known.
  const forCard = 1 / (1 + rows.length / ROWS_OF_A_CARD)
  looked.missing = await withEngine((engine) => missingIn(card, engine))
  if (looked.missing.length > 0) return looked
  try {
    const { pictures, ...ring } = await wholeRing(card, withEngine, (share) => onFrame((forCard * share) / 2))
    Object.assign(looked, ring)
    const frames = momentsOf(pictures.slice(hold.from, hold.to), hold.from)
    const look = { card, grounds, withEngine }
    for (const [i, frame] of frames.entries()) {
      const moment = await momentAt(look, frame)
      // What is unread at rest lasts.
      if (i > 0 && isUnreadBeside(moment, looked.moments[0]!))
        moment.types = await lasting(look, moment, hold, Math.ceil(FIXATION * perSecond(card.rate)))
      looked.moments.push(moment)
      onFrame(forCard * (0.5 + (i + 1) / frames.length / 2))
    }
    looked.rows = await rowsOf(card, rows, withEngine, (share) => onFrame(forCard + (1 - forCard) * share))
  } catch (error) {
    if (!(error instanceof WaxError)) throw error
    looked.missing.push(error.fault)
  }
  return looked
}

/** Whether letters are unread at a moment that are read at another one. */
const isUnreadBeside = ({ types }: LookedMoment, first: LookedMoment): boolean =>
  types.some(({ piece, contrast }) => {
    const before = first.types.find((one) => one.piece.id === piece.id)?.contrast
    return contrast.some((one, i) => isUnread(one) && !isUnread(before?.[i] ?? null))
  })

async function rowsOf(
  design: Card,
  rows: readonly ProofRow[],
  withEngine: WithEngine,
  onShare: (share: number) => void,
): Promise<LookedRow[]> {
  if (rows.length === 0) return []
  const rooms = await roomsOf(design, withEngine)
  const found: LookedRow[] = []
  for (const [i, { id, title, card, faults }] of rows.entries()) {
    const fit = await fitOfRow({ card, rooms }, withEngine).catch((error) => [refusedRow(error)])
    const flags = [...faults.map(refusal), ...fit]
    if (flags.length > 0) found.push({ id, title, flags })
    onShare((i + 1) / rows.length)
  }
  return found
}

function missingIn(card: Card, engine: Engine): Fault[] {
  const fault = (what: string, id: string): Fault => ({
    code: `missing-${what}`,
    place: id,
    message: `The ${what} “${id}” is not here.`,
    remedy: `Bring it in, or choose another ${what}.`,
  })
  return [
    ...fontsNamed(card)
      .filter((id) => !engine.fonts.has(id))
      .map((id) => fault('font', id)),
    ...picturesOf(card)
      .filter((id) => !engine.pictures.has(id))
      .map((id) => fault('picture', id)),
  ]
}
