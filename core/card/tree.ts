import { partsOf } from './parts'
import type { Card, Piece } from './schema'

// Pieces may stand in groups; these walk the whole tree.

/** Groups may lie in groups this deep. */
export const DEEPEST_GROUP = 8

/** All pieces, front first; a group before what it holds. */
export function allPieces(pieces: readonly Piece[]): Piece[] {
  return pieces.flatMap((piece) => (piece.kind === 'group' ? [piece, ...allPieces(piece.pieces)] : [piece]))
}

/** The tree with one piece replaced; an empty answer takes it out, several put more in its place. */
export function replacePiece(pieces: readonly Piece[], id: string, change: (piece: Piece) => Piece[]): Piece[] {
  return pieces.flatMap((piece) => {
    if (piece.id === id) return change(piece)
    if (piece.kind !== 'group') return [piece]
    const inner = replacePiece(piece.pieces, id, change)
    const same = inner.length === piece.pieces.length && inner.every((other, i) => other === piece.pieces[i])
    return [same ? piece : { ...piece, pieces: inner }]
  })
}

/** The indices that lead to a piece: of the outermost group first, of the piece last; null where it is not there. */
export function pathTo(pieces: readonly Piece[], id: string): number[] | null {
  for (const [i, piece] of pieces.entries()) {
    if (piece.id === id) return [i]
    const inner = piece.kind === 'group' ? pathTo(piece.pieces, id) : null
    if (inner) return [i, ...inner]
  }
  return null
}

/** The groups that a piece lies in, the outermost first. */
export function holdersOf(pieces: readonly Piece[], id: string): Piece[] {
  const way = pathTo(pieces, id) ?? []
  let list = pieces
  return way.slice(0, -1).map((index) => {
    const here = list[index]!
    list = here.kind === 'group' ? here.pieces : []
    return here
  })
}

/** Ids of the pictures that a card's paints and pieces name. */
export function picturesOf(card: Pick<Card, 'pieces' | 'background'>): string[] {
  const parts = allPieces(card.pieces).flatMap(partsOf)
  const values: unknown[] = [card.background, ...parts.flatMap(({ entry }) => Object.values(entry))]
  const ids = values.flatMap((value) =>
    typeof value === 'object' && value !== null && 'picture' in value && value.picture ? [String(value.picture)] : [],
  )
  const own = allPieces(card.pieces).flatMap((piece) =>
    piece.kind === 'picture' && piece.picture ? [piece.picture] : [],
  )
  return [...new Set([...ids, ...own])]
}

/** Ids of the fonts that a card's type is set in. */
export const fontsNamed = (card: Pick<Card, 'pieces'>): string[] => [
  ...new Set(allPieces(card.pieces).flatMap((piece) => (piece.kind === 'type' ? [piece.font] : []))),
]
