import type { Piece } from '../card/schema'
import type { Placement } from '../outline/outline'
import { insideOf } from '../time/clock'
import type { Moment } from '../values/moment'

// A list of pieces that is being drawn: whose it is, when it is, and where it stands. What looks at other pieces finds them
// from there, so that they are in step with it wherever and whenever it is shown.

export interface OpenList {
  /** The piece that holds it; null for the card. */
  holder: string | null
  /** The moment of what lies in it. */
  at: Moment
  /** From its space to the render grid. */
  parent: Placement
  /** Where it stands in the card, for errors. */
  path: string
  /** The list in which its holder stands; null for the card's own. */
  around: OpenList | null
}

interface Opened {
  list: OpenList
}

/** The same list at another moment, as while the shutter is open. */
export const atMoment = <T extends Opened>(drawing: T, at: Moment): T =>
  at === drawing.list.at ? drawing : { ...drawing, list: { ...drawing.list, at } }

/** Within a piece that holds others. `place` is where it stands in the card. */
export function within<T extends Opened>(
  drawing: T,
  { piece, at, placement }: { piece: Piece; at: Moment; placement: Placement },
  place: string,
): T {
  const around = { ...drawing.list, at }
  const list = { holder: piece.id, at: insideOf(piece, at), parent: placement, path: `${place}.pieces`, around }
  return { ...drawing, list }
}

/** Every list shifted by so many frames. */
export const shifted = (list: OpenList, move: (at: Moment) => Moment): OpenList => ({
  ...list,
  at: move(list.at),
  around: list.around && shifted(list.around, move),
})
