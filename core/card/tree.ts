import { isOwnTip } from '../brushes/own-tip'
import { strokesOf } from '../brushes/stroke'
import { partsOf } from './parts'
import { PIECE_KINDS } from '../pieces/table'
import type { Card, GroupPiece, Piece } from './schema'

// Pieces may stand in groups; these walk the whole tree.

/** Groups may lie in groups this deep. */
export const DEEPEST_GROUP = 8

/** Whether other pieces stand in a piece; in none they do not. */
export const holdsPieces = (piece: Piece | null | undefined): piece is GroupPiece =>
  !!piece && PIECE_KINDS[piece.kind].holds === 'pieces'

/** What a piece holds, front first; none where it is no group. */
export const piecesIn = (piece: Piece): readonly Piece[] => ('pieces' in piece ? piece.pieces : [])

/** All pieces, front first; a group before what it holds. */
export const allPieces = (pieces: readonly Piece[]): Piece[] =>
  pieces.flatMap((piece) => [piece, ...allPieces(piecesIn(piece))])

/** The tree with one piece replaced; an empty answer takes it out, several put more in its place. */
export function replacePiece(pieces: readonly Piece[], id: string, change: (piece: Piece) => Piece[]): Piece[] {
  return pieces.flatMap((piece) => {
    if (piece.id === id) return change(piece)
    const held = piecesIn(piece)
    const inner = replacePiece(held, id, change)
    const same = inner.length === held.length && inner.every((other, i) => other === held[i])
    return [same ? piece : ({ ...piece, pieces: inner } as Piece)]
  })
}

/** The indices that lead to a piece: of the outermost group first, of the piece last; null where it is not there. */
export function pathTo(pieces: readonly Piece[], id: string): number[] | null {
  for (const [i, piece] of pieces.entries()) {
    if (piece.id === id) return [i]
    const inner = pathTo(piecesIn(piece), id)
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
    list = piecesIn(here)
    return here
  })
}

/** The pictures that the strokes of a painting or of a painted mask are painted with. */
const tipsOf = (painted: object): string[] => strokesOf(painted).flatMap(({ tip }) => (isOwnTip(tip) ? [tip] : []))

/** Ids of the pictures that a card's paints, pieces and brushes name. */
export function picturesOf(card: Pick<Card, 'pieces' | 'background'>): string[] {
  const parts = allPieces(card.pieces).flatMap(partsOf)
  const values: unknown[] = [card.background, ...parts.flatMap(({ entry }) => Object.values(entry))]
  const ids = values.flatMap((value) =>
    typeof value === 'object' && value !== null && 'picture' in value && value.picture ? [String(value.picture)] : [],
  )
  const own = allPieces(card.pieces).flatMap((piece) =>
    piece.kind === 'picture' && piece.picture ? [piece.picture] : [],
  )
  const tips = allPieces(card.pieces).flatMap((piece) => [piece, ...piece.masks].flatMap(tipsOf))
  return [...new Set([...ids, ...own, ...tips])]
}

/** Ids of the sequences that a card shows. */
export const sequencesOf = (card: Pick<Card, 'pieces'>): string[] => [
  ...new Set(
    allPieces(card.pieces).flatMap((piece) => (piece.kind === 'sequence' && piece.sequence ? [piece.sequence.id] : [])),
  ),
]

/** Ids of the fonts that a card's type is set in, runs and fallbacks included. */
export const fontsNamed = (card: Pick<Card, 'pieces'>): string[] => [
  ...new Set(
    allPieces(card.pieces).flatMap((piece) =>
      piece.kind === 'type'
        ? [piece.font, ...piece.fallbacks, ...piece.runs.flatMap(({ font }) => (font ? [font] : []))]
        : [],
    ),
  ),
]
