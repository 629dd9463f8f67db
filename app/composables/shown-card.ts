import { changeEntry } from '#core/edit/entries'
import type { Card, Piece } from '#core/card/schema'
import { allPieces, replacePiece } from '#core/card/tree'
import { alone } from '#core/frame/pick'

/**
 * The card with one piece, or one coat, finish, step or mask of it, left alone; the others keep their places for what is measured by them. A wash
 * keeps what it treats.
 */
export function aloneCard(card: Card, what: { piece: string; part: string | null } | null): Card {
  const piece = what && allPieces(card.pieces).find(({ id }) => id === what.piece)
  if (!what || !piece) return card
  const only = piece.kind === 'wash' ? card : alone(card, piece)
  if (what.part === null) return only
  const put = (change: Partial<Piece>) => ({
    ...only,
    pieces: replacePiece(only.pieces, piece.id, (old) => [{ ...old, ...change } as Piece]),
  })
  for (const name of ['finishes', 'outlineSteps', 'masks'] as const) {
    if (!piece[name].some(({ id }) => id === what.part)) continue
    return put({ [name]: piece[name].map((entry) => (entry.id === what.part ? entry : { ...entry, on: false })) })
  }
  const keep = (coats: Piece['coats']['face']) =>
    coats.map((coat) => (coat.id === what.part ? coat : { ...coat, opacity: 0 }))
  return put({ coats: { face: keep(piece.coats.face), behind: keep(piece.coats.behind) } })
}

/** The card without a coat, a finish, a step or a mask, to look at what it does. */
export const withoutPart = (card: Card, piece: string, part: string): Card =>
  changeEntry(card, piece, part, { on: false })
