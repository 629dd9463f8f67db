import { changeCoat } from '#core/edit/stack'
import type { Card, Piece } from '#core/card/schema'
import { allPieces, replacePiece } from '#core/card/tree'
import { alone } from '#core/frame/pick'

/** The card with one piece, or one coat of it, left alone; the others keep their places for what is measured by them. */
export function aloneCard(card: Card, what: { piece: string; coat: string | null } | null): Card {
  const piece = what && allPieces(card.pieces).find(({ id }) => id === what.piece)
  if (!what || !piece) return card
  const only = alone(card, piece)
  if (what.coat === null) return only
  const keep = (coats: Piece['coats']['face']) =>
    coats.map((coat) => (coat.id === what.coat ? coat : { ...coat, opacity: 0 }))
  const coats = { face: keep(piece.coats.face), behind: keep(piece.coats.behind) }
  return { ...only, pieces: replacePiece(only.pieces, piece.id, (old) => [{ ...old, coats }]) }
}

export const withoutCoat = (card: Card, piece: string, coat: string): Card =>
  changeCoat(card, piece, coat, { on: false })
