import type { Piece } from '../card/schema'
import type { Placement } from '../outline/outline'
import { insideOf } from '../time/clock'
import type { Frames } from '../units'
import type { Moment } from '../values/moment'
import { movedTo } from '../values/moment'

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
  /** Null where its pieces are exposed at moments of its own. */
  exposed: OuterShutter | null
}

/** A shutter that is open over a whole list: its pieces are exposed by themselves, at moments of the list around their holders. */
export interface OuterShutter {
  /** The moment of that outer list. */
  at: Moment
  /** The list as it is at another moment of the outer one. */
  open(at: Moment): OpenList
  /** Whether a holder between the two moves. */
  moves: boolean
  /** Names the holders between the two, and all that they do. */
  name(): string
}

/** The moment about which the pieces of a list are exposed. */
export const exposedAt = ({ exposed, at }: OpenList): Moment => exposed?.at ?? at

interface Opened {
  list: OpenList
}

/** The same list at another moment at which its pieces are exposed; see `exposedAt`. */
export function atMoment<T extends Opened>(drawing: T, at: Moment): T {
  const { list } = drawing
  if (at === exposedAt(list)) return drawing
  return { ...drawing, list: list.exposed ? list.exposed.open(at) : { ...list, at } }
}

/** Within a piece that holds others. `place` is where it stands in the card. */
export function within<T extends Opened>(
  drawing: T,
  { piece, at, placement }: { piece: Piece; at: Moment; placement: Placement },
  place: string,
): T {
  const around = { ...drawing.list, at }
  const own = { holder: piece.id, at: insideOf(piece, at), parent: placement, path: `${place}.pieces`, around }
  return { ...drawing, list: { ...own, exposed: null } }
}

/** Every list shifted by so many frames; where they stand stays. */
export function shifted(list: OpenList, by: Frames): OpenList {
  const move = (at: Moment) => movedTo(at, at.frame + by)
  const { exposed } = list
  return {
    ...list,
    at: move(list.at),
    around: list.around && shifted(list.around, by),
    exposed: exposed && {
      ...exposed,
      at: move(exposed.at),
      open: (at) => shifted(exposed.open(movedTo(at, at.frame - by)), by),
    },
  }
}
