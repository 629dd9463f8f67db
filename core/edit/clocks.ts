import { extentOf } from '../extent'
import type { Frames } from '../units'
import type { Card, GroupPiece, Piece, SequencePiece, TwinPiece } from '../card/schema'
import { listPieceParameters } from '../card/addresses'
import { allPieces, replacePiece } from '../card/tree'
import { frameIn, insideOf, momentIn } from '../time/clock'
import type { Movable } from '../values/moving'
import { isMoving } from '../values/moving'
import { CLOCK_PARAMETERS } from '../pieces/clock'
import { shownPictures } from '../pieces/sequence'
import { valuesAt } from '../values/evaluated'
import type { Moment } from '../values/moment'
import { groupPieces } from './grouping'
import { mapped } from './mapped'
import { withPiece } from './path'
import { spanOf } from './spans'

// Edits of the time within pieces. What has no clock is put into a group, which has one.

type Clocked = GroupPiece | TwinPiece | SequencePiece
export type ClockChange = Partial<
  Pick<
    GroupPiece,
    'clock' | 'clockStart' | 'clockSpeed' | 'clockFrom' | 'clockTo' | 'clockEnd' | 'clockBackward' | 'clockFrame'
  >
>

export const hasOwnTime = (piece: Piece): piece is Clocked => 'clock' in piece

/** Whether its time is another one than that around it. */
export const runsByItself = (piece: Piece): boolean => hasOwnTime(piece) && piece.clock !== 'around'

const find = (card: Card, id: string) => allPieces(card.pieces).find((piece) => piece.id === id)

/** Whether a piece can be given a time of its own: a wash in a group would treat that alone. */
export const takesClock = (card: Card, id: string): boolean => {
  const piece = find(card, id)
  return piece !== undefined && piece.kind !== 'wash'
}

/** Whether all that moves of a piece lies in it: its clock is the time of all of it. */
const movesWithin = (piece: Piece): piece is Clocked =>
  hasOwnTime(piece) &&
  listPieceParameters(piece).every(({ address, value }) => !isMoving(value) || address.startsWith(`${piece.id}/clock`))

/**
 * Changes the time of a piece: by its clock, where all that moves lies in it, or else by that of a new group around it, which is seen
 * in the same frames. Gives the id of what has the clock.
 */
function setTime(
  card: Card,
  id: string,
  change: (piece: Clocked | null, own: Piece) => ClockChange & Partial<Pick<Piece, 'span'>>,
): { card: Card; id: string } {
  const piece = find(card, id)
  if (!piece || !takesClock(card, id)) return { card, id }
  if (movesWithin(piece))
    return { card: withPiece(card, id, (own) => ({ ...own, ...change(piece, own) }) as Piece), id }
  // It turns and grows about its own place, as the piece does.
  const still = (value: unknown, other: number) => (typeof value === 'number' ? value : other)
  const centre = { x: still(piece.x, card.frame.width / 2), y: still(piece.y, card.frame.height / 2) }
  const grouped = groupPieces(card, [id], centre)
  const values = { name: `${piece.name}, time`.slice(0, 200), span: piece.span, ...change(null, piece) }
  const pieces = replacePiece(grouped.card.pieces, grouped.id, (group) => [{ ...group, ...values } as Piece])
  return { card: { ...card, pieces }, id: grouped.id }
}

/** Holds what a piece shows at a frame of the card. */
export function freezePiece(card: Card, id: string, frame: Frames): { card: Card; id: string } {
  const at = momentIn(card, id, frame)
  return setTime(card, id, (clocked, own) => {
    const shown = clocked?.kind === 'sequence' ? shownPictures(clocked, at)[0]?.index : insideOf(own, at).frame
    return { clock: 'keyed', clockFrame: tidy(shown ?? 0) }
  })
}

/** Plays a piece the other way round within its span. */
export function reversePiece(card: Card, id: string): { card: Card; id: string } {
  return setTime(card, id, (clocked, own) => {
    if (clocked?.clock === 'own') return { clockBackward: flipped(clocked.clockBackward) }
    if (clocked?.clock === 'keyed') {
      if (!isMoving(clocked.clockFrame)) return {}
      const frames = clocked.clockFrame.keys.map(({ value }) => value as number)
      const [least, most] = extentOf(frames)
      const both = least + most
      return { clockFrame: mapped(clocked.clockFrame, (v) => both - v) }
    }
    return { ...runOf(card, own), clockEnd: 'hold', clockBackward: true }
  })
}

const flipped = (value: Movable<boolean>): Movable<boolean> =>
  isMoving(value) ? { ...value, keys: value.keys.map((key) => ({ ...key, value: !key.value })) } : !value

/** Shows what a piece is until a frame of the card again and again, to the end of the loop. */
export function repeatPiece(card: Card, id: string, frame: Frames): { card: Card; id: string } {
  return setTime(card, id, (clocked, own) => {
    if (clocked?.kind === 'sequence') return repeated(clocked, momentIn(card, id, frame))
    const span = spanOf(own, card)
    const here = Math.round(frameIn(card, id, frame))
    const to = here > span.in && here < span.out ? here : span.out
    return {
      ...runOf(card, own),
      ...{ clockTo: to === card.length ? 0 : to, clockEnd: 'again', clockBackward: false },
      span: span.in === 0 ? null : { in: span.in, out: card.length },
    }
  })
}

/** The pictures of a sequence up to the one that is shown, again and again. */
function repeated(piece: SequencePiece, at: Moment): ClockChange {
  const to = shownPictures(piece, at)[0]?.index ?? 0
  const clockTo = to > valuesAt(CLOCK_PARAMETERS, piece, at).clockFrom ? to : piece.clockTo
  return { clock: 'own', clockTo, clockEnd: 'again' }
}

/** A clock that shows a piece as it is: frame by frame through its span. */
function runOf(card: Card, piece: Piece): ClockChange {
  if (piece.kind === 'sequence')
    return { clock: 'own', clockStart: spanOf(piece, card).in, clockSpeed: 100, clockFrom: 0, clockTo: 0 }
  const span = spanOf(piece, card)
  const clockTo = span.out === card.length ? 0 : span.out
  return { clock: 'own', clockStart: span.in, clockSpeed: 100, clockFrom: span.in, clockTo }
}

/** Gives what lies in a piece, or else a new group around it, a clock that changes nothing yet. */
export function addClock(card: Card, id: string): { card: Card; id: string } {
  const start = (own: Piece): ClockChange => ({ ...runOf(card, own), clockEnd: 'again' })
  const piece = find(card, id)
  return piece && hasOwnTime(piece)
    ? { card: withPiece(card, id, (own) => ({ ...own, ...start(own) }) as Piece), id }
    : setTime(card, id, (_, own) => start(own))
}

const tidy = (value: number) => Math.round(value * 1e4) / 1e4
