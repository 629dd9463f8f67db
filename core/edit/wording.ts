import type { Card, Piece, TypePiece } from '../card/schema'
import { PIECE_KINDS } from '../pieces/table'
import { typePieces } from '../time/ring'
import { changePiece } from './stack'
import { writeValue } from './values'

/** Letters of a name that was made of words. */
const LONGEST = 40
const LABEL = PIECE_KINDS.type.label

/** Writes the words of a type piece, at the playhead where they change over time. */
export const writeWording = (card: Card, id: string, frame: number, words: string): Card =>
  namedByWords(card, writeValue(card, `${id}/wording`, frame, words), [id])

/**
 * A card whose words are others than before. Type pieces of these that nobody named are called by their first line: in a stack
 * of seven they are found by that.
 */
export function namedByWords(before: Card, after: Card, ids: readonly string[]): Card {
  const [then, now] = [typePieces(before), typePieces(after)]
  return ids.reduce((card, id) => {
    const [old, words] = [then.get(id), now.get(id)?.wording]
    if (!old || typeof old.wording !== 'string' || typeof words !== 'string' || !isUnnamed(old)) return card
    return changePiece(card, id, { name: nameFrom(words) || LABEL } as Partial<Piece>)
  }, after)
}

/** Named by the application: by its kind, or by the words that it said until now; as a copy as well. */
const isUnnamed = (piece: TypePiece) =>
  isCalledByItsWords(piece) || new RegExp(`^(${LABEL}( \\d+)?)?$`).test(ownName(piece))

/** Whether the name of a piece is no more than what it says, and says nothing of what it is for. */
export const isCalledByItsWords = (piece: TypePiece): boolean =>
  typeof piece.wording === 'string' && ownName(piece) !== '' && ownName(piece) === nameFrom(piece.wording)

const ownName = ({ name }: TypePiece) => name.replace(/(, copy)+$/, '')

const nameFrom = (words: string) => [...(words.trim().split('\n')[0] ?? '')].slice(0, LONGEST).join('').trim()
