import { createStep } from '../card/create'
import type { Card, OutlineStep, Piece } from '../card/schema'
import { allPieces } from '../card/tree'
import { stepOf } from '../steps/table'
import { pasteEntry, takesEntries } from './entries'

// Edits of outline steps.

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

/**
 * Adds a step: the last to work, or at a given place of the list. One that works on lines is put where there is a line; where
 * there is none a line is added under it.
 */
export function addStep(
  card: Card,
  pieceId: string,
  kind: string,
  { at, values = {} }: { at?: number; values?: Partial<OutlineStep> } = {},
): { card: Card; id: string } {
  const piece = allPieces(card.pieces).find(({ id }) => id === pieceId)
  if (!piece || !takesEntries(piece, 'step')) return { card, id: '' }
  const made = { ...createStep(kind, 'new'), ...values } as OutlineStep
  if (at !== undefined || stepOf(kind).works !== 'lines') return pasteEntry(card, pieceId, 'step', made, at ?? 0)
  const place = lastLinePlace(piece)
  if (place !== null) return pasteEntry(card, pieceId, 'step', made, place)
  const lined = pasteEntry(card, pieceId, 'step', createStep('line', 'new'))
  return pasteEntry(lined.card, pieceId, 'step', made)
}
