import { createFinish, createPiece, freeId } from '../card/create'
import type { Card, Finish, Piece } from '../card/schema'
import { allPieces } from '../card/tree'
import type { Frames } from '../units'
import { withPiece } from './path'

// Edits of finishes, and washes.

/** Adds a finish: the last to work, or at a given place of the list. */
export function addFinish(
  card: Card,
  pieceId: string,
  kind: string,
  { at = 0, values = {} }: { at?: number; values?: Partial<Finish> } = {},
): { card: Card; id: string } {
  return pasteFinish(card, pieceId, { ...createFinish(kind, 'new'), ...values } as Finish, at)
}

/** Lays a copied finish on a piece: the last to work, or at a given place of the list. */
export function pasteFinish(card: Card, pieceId: string, finish: Finish, at = 0): { card: Card; id: string } {
  const id = freeId(card, finish.kind)
  const inserted = (list: readonly Finish[]) => [...list.slice(0, at), { ...finish, id }, ...list.slice(at)]
  return { id, card: withFinishes(card, pieceId, inserted) }
}

/** Gives a piece the finishes of another one, in place of its own. */
export function pasteFinishes(card: Card, pieceId: string, finishes: readonly Finish[]): Card {
  const bare = withFinishes(card, pieceId, () => [])
  // The first of the list stands in front: it is laid last.
  return [...finishes].reverse().reduce((next, finish) => pasteFinish(next, pieceId, finish).card, bare)
}

export const removeFinish = (card: Card, pieceId: string, finishId: string): Card =>
  withFinishes(card, pieceId, (list) => list.filter(({ id }) => id !== finishId))

export const changeFinish = (card: Card, pieceId: string, finishId: string, change: Partial<Finish>): Card =>
  withFinishes(card, pieceId, (list) =>
    list.map((finish) => (finish.id === finishId ? ({ ...finish, ...change } as Finish) : finish)),
  )

/** Moves a finish in its list; `to` counts after it was taken out. */
export const moveFinish = (card: Card, pieceId: string, finishId: string, to: number): Card =>
  withFinishes(card, pieceId, (list) => {
    const finish = list.find(({ id }) => id === finishId)
    const rest = list.filter(({ id }) => id !== finishId)
    return finish ? [...rest.slice(0, to), finish, ...rest.slice(to)] : [...list]
  })

/** A copy right in front of the finish. */
export function duplicateFinish(card: Card, pieceId: string, finishId: string): { card: Card; id: string } {
  const piece = allPieces(card.pieces).find(({ id }) => id === pieceId)
  const at = piece?.finishes.findIndex(({ id }) => id === finishId) ?? -1
  return at < 0 ? { card, id: finishId } : pasteFinish(card, pieceId, piece!.finishes[at]!, at)
}

const withFinishes = (card: Card, pieceId: string, change: (list: readonly Finish[]) => Finish[]): Card =>
  withPiece(card, pieceId, (piece): Piece => ({ ...piece, finishes: change(piece.finishes) }))

/** Finishes that a ready-made wash begins with, front first; times are frames of its own span. */
export type WashMix = (span: { in: Frames; out: Frames }) => readonly ({ kind: string } & Partial<Finish>)[]

/** A wash in front of all others, for some frames from a frame on; over the whole loop where they reach beyond it. */
export function addWash(
  card: Card,
  from: Frames,
  frames: Frames,
  { name, finishes }: { name: string; finishes: WashMix },
): { card: Card; id: string } {
  const start = Math.min(Math.max(0, Math.round(from)), card.length - 1)
  const end = Math.min(start + Math.max(1, Math.round(frames)), card.length)
  const whole = start === 0 && end === card.length
  const wash = { ...createPiece('wash', card), name, span: whole ? null : { in: start, out: end } }
  const made = { ...card, pieces: [wash, ...card.pieces] }
  const filled = [...finishes({ in: start, out: end })]
    .reverse()
    .reduce((next, { kind, ...values }) => addFinish(next, wash.id, kind, { values }).card, made)
  return { card: filled, id: wash.id }
}
