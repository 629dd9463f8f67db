import { TYPE_PARAMETERS } from '../pieces/type'
import { valueAt } from '../values/evaluated'
import type { Moment, WordsPiece } from '../values/moment'

/**
 * The piece whose words a type piece shows: itself, or the one that it is linked to, over any number of links. Itself as
 * well where a link leads nowhere or round in a circle.
 */
export function wordsFrom<T extends WordsPiece>(piece: T, find: (id: string) => T | undefined): T {
  const seen = new Set([piece.id])
  let source = piece
  while (source.linked) {
    const next = find(source.linked)
    if (!next || seen.has(next.id)) return piece
    seen.add(next.id)
    source = next
  }
  return source
}

/** The words of a type piece at a moment. */
export function wordingAt(piece: WordsPiece, at: Moment): string {
  const source = wordsFrom(piece, at.ring.typePiece ?? (() => undefined))
  return valueAt(TYPE_PARAMETERS.wording, source.wording, at) as string
}
