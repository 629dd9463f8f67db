import type { Px, Rect } from '../units'
import { parentOf, shown } from './holders'
import type { FormedPiece } from './outlines'
import type { Drawing } from './piece'
import { standingOf } from './piece'
import { pieceOf } from './section'

/** What comes into an outline step, in px of the piece before its place: hands on the stage count by it. */
export interface BeforeStep {
  /** What the piece spans before all its steps. */
  whole: Rect
  /** What 100 % stands for. */
  reference: Px
  /** Points x, y, x, y …; none where areas come in. */
  lines: { points: number[]; closed: boolean; thickness: Px }[]
}

/** Null where the piece has no outline now. Throws a WaxError for a piece that is not there. */
export function beforeStep(drawing: Drawing, id: string, step: string): BeforeStep | null {
  const piece = pieceOf(drawing.card, id)
  const parent = parentOf(drawing.card, id, drawing.at)
  const standing = parent && standingOf(shown(piece), parent, drawing.at)
  return standing && drawing.outlines.beforeStep(piece as FormedPiece, standing.at, step, id)
}
