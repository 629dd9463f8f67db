import { freeId } from '../card/create'
import type { Card, Piece, TypePiece } from '../card/schema'
import type { TypeAxis } from '../type/axes'
import { AXIS_PARAMETERS, MOST_AXES } from '../type/axes'
import type { FontAxis } from '../type/font'
import { numbersIn } from '../type/ranges'
import type { TypeRun } from '../type/runs'
import { MOST_RUNS, RUN_PARAMETERS } from '../type/runs'
import { MOST_FALLBACKS, MOST_PAIRS } from '../pieces/type'
import { momentIn } from '../time/clock'
import type { Frames } from '../units'
import { PLACE_PARAMETERS } from '../pieces/place'
import { valueAt } from '../values/evaluated'
import { defaultsOf } from '../values/parameters'
import { allPieces } from '../card/tree'
import { withPiece } from './path'
import { writeValue } from './values'

// Edits of what type has beside its values: axes, runs, pairs, fallback fonts, and the letters that others pass behind.

const withType = (card: Card, id: string, change: (piece: TypePiece) => Partial<TypePiece>): Card =>
  withPiece(card, id, (piece) => (piece.kind === 'type' ? ({ ...piece, ...change(piece) } satisfies TypePiece) : piece))

/** Sets an axis of a variable font; it begins where the font has its standard. */
export function addAxis(card: Card, id: string, { tag, standard }: FontAxis): Card {
  const axis = { id: freeId(card, 'axis'), tag, ...defaultsOf(AXIS_PARAMETERS), value: standard } as unknown as TypeAxis
  return withType(card, id, ({ axes }) => ({
    axes: axes.length < MOST_AXES && !axes.some((one) => one.tag === tag) ? [...axes, axis] : axes,
  }))
}

/** A run over some characters of what was typed, [from, to) from 0. */
export function addRun(card: Card, id: string, from: number, to: number): { card: Card; id: string } {
  const run = freeId(card, 'run')
  const made = { id: run, font: null, ...defaultsOf(RUN_PARAMETERS), from: from + 1, to } as unknown as TypeRun
  return {
    id: run,
    card: withType(card, id, ({ runs }) => ({ runs: runs.length < MOST_RUNS ? [...runs, made] : runs })),
  }
}

/** Changes a run; null takes it out. */
export const changeRun = (card: Card, id: string, run: string, change: Partial<TypeRun> | null): Card =>
  withType(card, id, ({ runs }) => ({
    runs: runs.flatMap((one) => (one.id !== run ? [one] : change ? [{ ...one, ...change }] : [])),
  }))

export const removeAxis = (card: Card, id: string, axis: string): Card =>
  withType(card, id, ({ axes }) => ({ axes: axes.filter((one) => one.id !== axis) }))

/** Kerns two characters by hand: so many thousandths of the size more than now; a pair without any goes. */
export const kernPair = (card: Card, id: string, pair: string, by: number): Card =>
  withType(card, id, ({ pairs }) => {
    const found = pairs.find((one) => one.pair === pair)
    const value = Math.min(2000, Math.max(-2000, (found?.by ?? 0) + by))
    const rest = pairs.filter((one) => one.pair !== pair)
    return { pairs: value === 0 || rest.length >= MOST_PAIRS ? rest : [...rest, { pair, by: value }] }
  })

/** The fonts that are asked for what the piece's own has no glyph for. */
export const setFallbacks = (card: Card, id: string, fonts: readonly string[]): Card =>
  withType(card, id, () => ({ fallbacks: [...new Set(fonts)].slice(0, MOST_FALLBACKS) }))

/** Lets a woven piece pass behind a letter, counted from 0, or in front of it again. */
export function toggleWoven(card: Card, piece: Piece, letter: number, frame: Frames): Card {
  const own = allPieces(card.pieces).find(({ id }) => id === piece.id)
  if (!own) return card
  const at = { ...momentIn(card, piece.id, frame), bare: true }
  const behind = new Set(numbersIn(valueAt(PLACE_PARAMETERS.weaveLetters, own.weaveLetters, at) as string) ?? [])
  if (!behind.delete(letter)) behind.add(letter)
  const words = [...behind].sort((a, b) => a - b).map((one) => one + 1)
  return writeValue(card, `${piece.id}/weaveLetters`, frame, words.join(' '))
}
