import { createFinish, createPiece } from '../card/create'
import type { Card, Finish } from '../card/schema'
import type { Frames } from '../units'
import { pasteEntry } from './entries'

// Edits of finishes, and washes.

/** Adds a finish: the last to work, or at a given place of the list. */
export function addFinish(
  card: Card,
  pieceId: string,
  kind: string,
  { at = 0, values = {} }: { at?: number; values?: Partial<Finish> } = {},
): { card: Card; id: string } {
  return pasteEntry(card, pieceId, 'finish', { ...createFinish(kind, 'new'), ...values } as Finish, at)
}

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
