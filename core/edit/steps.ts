import { createStep } from '../card/create'
import { lastLinePlace } from '../card/line-form'
import type { Card, OutlineStep } from '../card/schema'
import { allPieces } from '../card/tree'
import { stepOf } from '../steps/table'
import { pasteEntry, takesEntries } from './entries'

// Edits of outline steps.

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
