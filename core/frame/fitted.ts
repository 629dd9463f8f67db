import { fittedTo } from '../card/links'
import type { Piece } from '../card/schema'
import { PIECE_KINDS } from '../pieces/table'
import { valuesAt } from '../values/evaluated'
import type { Moment } from '../values/moment'

/** Some of x, y, width and height. */
export type Fitted = Readonly<Record<string, number>>

/** The values of a piece of some kind, those that follow from what it fits among them. */
export const formValuesAt = (piece: Piece, at: Moment) => ({
  ...valuesAt(PIECE_KINDS[piece.kind].parameters, piece, at),
  ...fittedOf(piece, at),
})

/** What follows from what a piece fits: some of x, y, width and height; null for none. */
export const fittedOf = (piece: Piece, at: Moment): Fitted | null =>
  fittedTo(piece).length > 0 ? (at.fitted?.(piece.id, at) ?? null) : null
