import { zonesOf } from '../time/held'
import { perSecond } from '../values/rate'
import type { LetterRange } from '../type/ranges'
import { MOST_RANGES, RANGE_PARAMETERS } from '../type/ranges'
import type { RangeStart } from '../type/range-starts'
import { freeId } from '../card/create'
import type { Key, Movable } from '../values/moving'
import { defaultsOf } from '../values/parameters'
import type { Card, TypePiece } from '../card/schema'
import { withPiece } from './path'

// Edits of letter motion.

/** Seconds that an entrance takes where the card has no zones that say so. */
const ENTRANCE = 1.2

/** Puts a ready-made motion behind the ranges that a type piece has, its sweep timed to the card. */
export function addRanges(card: Card, pieceId: string, start: RangeStart): Card {
  return start.ranges.reduce((next, { name, values }) => {
    const range = {
      ...{ id: freeId(next, 'range'), name, on: true },
      ...defaultsOf(RANGE_PARAMETERS),
      ...values,
      sweep: sweepFor(card, values.form),
    } as LetterRange
    return withRanges(next, pieceId, (ranges) => (ranges.length < MOST_RANGES ? [...ranges, range] : ranges))
  }, card)
}

/**
 * A sweep that has no seam. A wave passes once in the loop. What arrives has come when the hold begins, and goes the same
 * way from where it ends; what leaves goes then and comes back before the loop begins again.
 */
function sweepFor(card: Card, form: LetterRange['form']): Movable<number> {
  const { length, rate } = card
  const zones = zonesOf(card)
  const second = Math.round(ENTRANCE * perSecond(rate))
  const way = Math.max(1, Math.min(second, Math.floor(length / 3)))
  const [hold, out] = zones ? [zones.hold, zones.out] : [way, length - way]
  if (length < 4) return 0
  if (form === 'pass') {
    return keyed([
      { frame: 0, value: 0, easing: 'linear' },
      { frame: Math.max(1, length - way), value: 100, easing: 'hold' },
    ])
  }
  const [before, after] = form === 'arrive' ? [0, 100] : [100, 0]
  return keyed([
    { frame: 0, value: before, easing: 'linear' },
    { frame: hold, value: after, easing: 'hold' },
    { frame: out, value: after, easing: 'linear' },
  ])
}

/** Keys at rising frames within the loop: of two at the same frame the later one counts. */
function keyed(keys: Key<number>[]): Movable<number> {
  const last = new Map(keys.map((key) => [key.frame, key]))
  return { keys: [...last.values()].sort((a, b) => a.frame - b.frame) }
}

/** Changes one range; null takes it out. */
export function changeRange(card: Card, pieceId: string, id: string, change: Partial<LetterRange> | null): Card {
  return withRanges(card, pieceId, (ranges) =>
    ranges.flatMap((range) => (range.id !== id ? [range] : change ? [{ ...range, ...change }] : [])),
  )
}

/** Moves a range among its neighbours: it acts on what those before it give. */
export function moveRange(card: Card, pieceId: string, id: string, by: number): Card {
  return withRanges(card, pieceId, (ranges) => {
    const from = ranges.findIndex((range) => range.id === id)
    const to = Math.min(ranges.length - 1, Math.max(0, from + by))
    if (from < 0 || to === from) return ranges
    const rest = ranges.filter((range) => range.id !== id)
    return [...rest.slice(0, to), ranges[from]!, ...rest.slice(to)]
  })
}

function withRanges(card: Card, pieceId: string, change: (ranges: LetterRange[]) => LetterRange[]): Card {
  return withPiece(card, pieceId, (piece) =>
    piece.kind === 'type' ? ({ ...piece, ranges: change(piece.ranges) } satisfies TypePiece) : piece,
  )
}
