import type { Card, Piece } from '../card/schema'
import { holdersOf } from '../card/tree'
import type { Placement } from '../outline/outline'
import type { Moment } from '../values/moment'
import { standingOf } from './piece'

// Where pieces stand on the card, in px of the card, whoever holds them.

const ROOT: Placement = { scale: 1, rotation: 0, x: 0, y: 0 }

/** Where the list lies that a piece stands in: from its space to the card. */
export function parentOf(card: Card, id: string, at: Moment): Placement | null {
  return holdersOf(card.pieces, id).reduce<Placement | null>(
    (parent, holder) => parent && (standingOf(shown(holder), parent, at)?.placement ?? null),
    ROOT,
  )
}

/** Its size counts whether it is seen or not. */
export const shown = (piece: Piece): Piece => ({ ...piece, on: true, opacity: 100, span: null })
