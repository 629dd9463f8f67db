import type { Card, Piece } from './schema'

/** A card for one who knows an earlier one: pieces that are the same are named by their place there. */
export interface CardPatch {
  head: Omit<Card, 'pieces'>
  pieces: (Piece | number)[]
}

/** What is other in `after`; without `before` all of it. Pieces are the same where they are one object. */
export function patchFrom(before: Card | null, { pieces, ...head }: Card): CardPatch {
  const places = new Map(before?.pieces.map((piece, i) => [piece, i]))
  return { head, pieces: pieces.map((piece) => places.get(piece) ?? piece) }
}

/** The card that a patch makes of the earlier one; pieces that are the same stay the same objects, with what is kept for them. */
export function patched(before: Card | null, { head, pieces }: CardPatch): Card {
  return { ...head, pieces: pieces.map((piece) => (typeof piece === 'number' ? before!.pieces[piece]! : piece)) }
}
