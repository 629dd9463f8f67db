import type { Frames } from '../units'
import { copyOf } from './stack'
import type { Card, Piece } from '../card/schema'
import { allPieces, replacePiece } from '../card/tree'
import { shiftMotion } from './keys'
import { withPiece } from './path'

export interface Span {
  in: Frames
  out: Frames
}

/** The frames in which a piece is seen. */
export const spanOf = ({ span }: Piece, { length }: Card): Span => span ?? { in: 0, out: length }

/** Gives a piece a span within the loop; the whole loop is none. */
export function setSpan(card: Card, id: string, span: Span): Card {
  const start = Math.min(Math.max(0, Math.round(span.in)), card.length - 1)
  const end = Math.min(Math.max(start + 1, Math.round(span.out)), card.length)
  const whole = start === 0 && end === card.length
  return withPiece(card, id, (piece) => ({ ...piece, span: whole ? null : { in: start, out: end } }))
}

/** Moves a piece in time, its span and its motion together. The span stays within the loop. */
export function moveSpan(card: Card, id: string, by: Frames): Card {
  const piece = allPieces(card.pieces).find((one) => one.id === id)
  if (!piece) return card
  const span = spanOf(piece, card)
  const shift = piece.span ? Math.min(Math.max(by, -span.in), card.length - span.out) : by
  const moved = shiftMotion(card, id, shift)
  return piece.span ? setSpan(moved, id, { in: span.in + shift, out: span.out + shift }) : moved
}

/** Cuts a piece in two at a frame: one is seen until then, a copy right behind it from then on. Null where it cannot. */
export function splitPiece(card: Card, id: string, at: Frames): { card: Card; id: string } | null {
  const piece = allPieces(card.pieces).find((one) => one.id === id)
  if (!piece) return null
  const span = spanOf(piece, card)
  if (at <= span.in || at >= span.out) return null
  const copy = copyOf(card, piece)
  const pieces = replacePiece(card.pieces, id, (own) => [
    { ...own, span: { in: span.in, out: at } },
    { ...copy, name: `${own.name}, second part`.slice(0, 200), span: { in: at, out: span.out } },
  ])
  return { card: { ...card, pieces }, id: copy.id }
}
