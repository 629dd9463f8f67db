import type { Card, TypePiece } from '../../card/schema'
import type { FramePicture } from '../../frame/engine'
import type { PieceOutlook } from '../../frame/outlook'
import { alone } from '../../frame/pick'
import { boundsOf } from '../../extent'
import { place } from '../../outline/outline'
import type { Frames, Rect } from '../../units'
import type { WithEngine } from '../with-engine'

/** A letter of a wording and the box that it fills at rest, in card px. */
export interface LetterSpot {
  text: string
  bounds: Rect
}

/** Where the letters of a wording stand on the card: those that are seen, in their order. */
export const letterSpots = ({ type, placement }: PieceOutlook, wording: string): LetterSpot[] =>
  (type?.letters ?? []).flatMap(({ from, to, blank, corners }) =>
    blank
      ? []
      : [{ text: wording.slice(from, to), bounds: boundsOf(corners.map((corner) => place(placement, corner))) }],
  )

/** The letters of a type piece alone. Its strokes, shadows and bars are what is around them. */
export function lettersOf(card: Card, piece: TypePiece, frame: Frames, withEngine: WithEngine): Promise<FramePicture> {
  const fills = piece.coats.face.filter(({ kind }) => kind === 'fill')
  const own = fills.length > 0 ? fills : piece.coats.face
  const only = alone(card, piece)
  const bare = { ...only, pieces: replaced(only.pieces, { ...piece, coats: { face: own, behind: [] } }) }
  return withEngine((engine) => engine.render(bare, frame))
}

function replaced(pieces: readonly Card['pieces'][number][], by: TypePiece): Card['pieces'] {
  return pieces.map((piece) => {
    if (piece.id === by.id) return { ...by, on: piece.on }
    return piece.kind === 'group' ? { ...piece, pieces: replaced(piece.pieces, by) } : piece
  })
}

/** The largest alpha there is, 0–255. */
export function strongestOf({ pixels }: FramePicture): number {
  let strongest = 0
  for (let at = 3; at < pixels.length && strongest < 255; at += 4) if (pixels[at]! > strongest) strongest = pixels[at]!
  return strongest
}
