import type { Card, Piece, TypePiece } from '../../card/schema'
import { allPieces } from '../../card/tree'
import { wordingAt } from '../../card/wording'
import type { PieceOutlook } from '../../frame/outlook'
import { momentOf } from '../../time/ring'
import type { Frames, Rect } from '../../units'

// What pieces do in every frame of the loop, as far as their outlines tell: without a pixel, so that nothing is between two looks.

/** A piece in a frame in which it is there. */
export interface CoursePiece {
  piece: Piece
  /** Its ink on the card. */
  bounds: Rect
  /** Its opacity times that of its groups, 0–1. */
  opacity: number
  /** Of type. */
  type?: CourseType
}

export interface CourseType {
  piece: TypePiece
  wording: string
  overflows: boolean
  /** Letters that no font of it has. */
  missing: string[]
}

export interface CourseFrame {
  frame: Frames
  pieces: CoursePiece[]
}

/** The pieces that are there at a frame; `outlook`: all of that frame. */
export function courseAt(card: Card, frame: Frames, outlook: readonly PieceOutlook[]): CourseFrame {
  const now = momentOf(card, frame)
  const known = new Map(allPieces(card.pieces).map((piece) => [piece.id, piece]))
  const pieces = outlook.flatMap(({ id, bounds, opacity, type }): CoursePiece[] => {
    const piece = known.get(id)!
    if (opacity === 0) return []
    const own = type && piece.kind === 'type' ? { piece, wording: wordingAt(piece, now), ...type } : null
    return [{ piece, bounds, opacity, ...(own ? { type: own } : {}) }]
  })
  return { frame, pieces }
}

/** Share of its own most at which a piece stands, and neither comes nor goes. */
const STANDS = 0.8

/** Of what is seen, in some frames or some moments, what stands there to be looked at: faint things have their own most. */
export function standing<T>(all: readonly T[], id: (one: T) => string, of: (one: T) => number): T[] {
  const most = new Map<string, number>()
  for (const one of all) most.set(id(one), Math.max(most.get(id(one)) ?? 0, of(one)))
  return all.filter((one) => of(one) > 0 && of(one) >= STANDS * most.get(id(one))!)
}
