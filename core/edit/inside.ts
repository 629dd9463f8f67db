import type { Px, Rect } from '../units'
import { createMask, createPiece, freeId } from '../card/create'
import type { Card, Mask, Piece, PicturePiece, SequencePiece } from '../card/schema'
import { allPieces, replacePiece } from '../card/tree'

/** A picture or a sequence that was brought in, and what its piece has beside its size. */
export interface BroughtPicture {
  kind: 'picture' | 'sequence'
  name: string
  width: Px
  height: Px
  values: Partial<PicturePiece> | Partial<SequencePiece>
}

/**
 * Shows a picture, or a sequence, within the face of a piece: in front of it, so large that it covers what the piece spans in its list. A wash
 * has no face.
 */
export function showInside(card: Card, id: string, picture: BroughtPicture, around: Rect): { card: Card; id: string } {
  const piece = allPieces(card.pieces).find((one) => one.id === id)
  if (!piece || piece.kind === 'wash') return { card, id }
  const [width, height] = [around.right - around.left, around.bottom - around.top]
  const size = Math.max(width / picture.width, height / picture.height)
  const matte = { ...createMask('matte', freeId(card, 'mask')), source: id } as Mask
  const shown = {
    ...createPiece(picture.kind, card),
    ...{ ...picture.values, name: picture.name.slice(0, 200) || 'Picture', span: piece.span },
    ...{ x: Math.round((around.left + around.right) / 2), y: Math.round((around.top + around.bottom) / 2) },
    ...{ width: Math.max(1, Math.ceil(picture.width * size)), height: Math.max(1, Math.ceil(picture.height * size)) },
    masks: [matte],
  } as Piece
  return { card: { ...card, pieces: replacePiece(card.pieces, id, (own: Piece) => [shown, own]) }, id: shown.id }
}
