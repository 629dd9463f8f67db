import type { Frames, Px } from '../units'
import { createPiece } from '../card/create'
import type { Card, Piece, TwinPiece } from '../card/schema'
import { allPieces, replacePiece } from '../card/tree'
import { PLACE_PARAMETERS } from '../pieces/place'
import { momentIn } from '../time/clock'
import { numberValue } from '../values/evaluated'

/** A twin stands so far from the piece that it shows, so that it is seen. */
const APART: Px = 32

/** A twin of a piece, in front of it and a little aside; none of a wash. */
export function addTwin(card: Card, id: string, frame: Frames): { card: Card; id: string } {
  const piece = allPieces(card.pieces).find((one) => one.id === id)
  if (!piece || piece.kind === 'wash') return { card, id }
  const at = { ...momentIn(card, id, frame), bare: true }
  const place = (axis: 'x' | 'y') => Math.round(numberValue(piece[axis], at, PLACE_PARAMETERS[axis])) + APART
  const twin = {
    ...(createPiece('twin', card) as TwinPiece),
    ...{ name: `${piece.name}, twin`.slice(0, 200), source: id, x: place('x'), y: place('y') },
  }
  return { card: { ...card, pieces: replacePiece(card.pieces, id, (own: Piece) => [twin, own]) }, id: twin.id }
}
