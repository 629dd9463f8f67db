import { stepOf } from '../steps/table'
import type { Piece } from './schema'

// Where a piece's outline is a line, on which some steps work alone.

/** Whether a piece's outline begins as a line. */
export const beginsAsLine = (piece: Piece): boolean =>
  piece.kind === 'line' || (piece.kind === 'path' && piece.thickness !== 0)

/**
 * How many of the steps, counted from the one that works last, stand in front of the last place at which the outline is a line;
 * null where it never is.
 */
export function lastLinePlace(piece: Piece): number | null {
  const { outlineSteps } = piece
  let isLine = beginsAsLine(piece)
  let place = isLine ? outlineSteps.length : null
  for (let i = outlineSteps.length - 1; i >= 0; i--) {
    const { kind, on } = outlineSteps[i]!
    if (on === false) continue
    if (kind === 'line') isLine = true
    else if (stepOf(kind).works === 'areas') isLine = false
    if (isLine) place = i
  }
  return place
}
