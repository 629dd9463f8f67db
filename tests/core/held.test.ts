import { expect, test } from '@jest/globals'
import { frameInPlay, heldFrame, heldLength, zonesOf } from '#core/time/held'
import { holdsFor, holdsForHold, holdsStill } from '#core/time/hold-still'
import type { Piece } from '#core/card/schema'
import { createPiece } from '#core/card/create'
import { emptyCard } from '../support/engine'

const card = { ...emptyCard(64, 64, 10), zones: { hold: 3, out: 7 } }
/** The same with something that moves in its hold. */
const box = { ...createPiece('box', card), x: { keys: [3, 5].map((frame) => ({ frame, value: frame })) } }
const moving = { ...card, pieces: [box] }
const run = (holds: number) =>
  Array.from({ length: heldLength(card, holds) }, (_, frame) => heldFrame(card, frame, holds))

test('the hold is played as often as wished, between what comes in and what goes out', () => {
  expect(run(1)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9])
  expect(run(3)).toEqual([0, 1, 2, 3, 4, 5, 6, 3, 4, 5, 6, 3, 4, 5, 6, 7, 8, 9])
})

test('a wished length is filled with whole holds where they move, as near as they come, and exactly where they stand', () => {
  expect([1, 10, 11, 12.1, 18, 100].map((wished) => holdsFor(moving, wished))).toEqual([1, 1, 1, 2, 3, 24])
  const lengths = [7, 8, 10, 11, 18, 100]
  expect(lengths.map((wished) => heldLength(card, holdsFor(card, wished)))).toEqual(lengths)
  expect(run(holdsFor(card, 8))).toEqual([0, 1, 2, 3, 4, 7, 8, 9])
  expect(run(holdsFor(card, 13))).toEqual([0, 1, 2, 3, 4, 5, 6, 3, 4, 5, 7, 8, 9])
  expect(holdsFor({ ...card, zones: null }, 100)).toBe(1)
  expect(heldLength({ length: 10, zones: null }, 5)).toBe(10)
})

test('zones count as far as they lie in a loop that was made shorter', () => {
  expect(zonesOf({ length: 6, zones: { hold: 3, out: 7 } })).toEqual({ hold: 3, out: 6 })
  expect(heldLength({ length: 6, zones: { hold: 3, out: 7 } }, 2)).toBe(9)
  expect(zonesOf({ length: 3, zones: { hold: 3, out: 7 } })).toBeNull()
  expect(holdsFor({ ...card, length: 3 }, 100)).toBe(1)
})

test('playing goes round the loop; holding, it comes in and stays in the hold', () => {
  const played = (from: number, holding: boolean) =>
    Array.from({ length: 14 }, (_, after) => frameInPlay(card, from, after, holding))
  expect(played(8, false)).toEqual([8, 9, 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 0, 1])
  expect(played(8, true)).toEqual([8, 9, 0, 1, 2, 3, 4, 5, 6, 3, 4, 5, 6, 3])
  expect(played(5, true).slice(0, 6)).toEqual([5, 6, 3, 4, 5, 6])
  expect(frameInPlay({ length: 10, zones: null }, 8, 5, true)).toBe(3)
})

test('a hold stands still where nothing moves, comes, goes or runs by its own time in it', () => {
  const still = (values: object) => holdsStill({ ...card, pieces: [{ ...box, x: 5, ...values } as Piece] })
  expect([still({}), holdsStill(moving)]).toEqual([true, false])
  // Moved before and after the hold only.
  expect(still({ x: { keys: [0, 3].map((frame) => ({ frame, value: frame })), loop: false } })).toBe(true)
  expect([still({ span: { in: 0, out: 5 } }), still({ span: { in: 3, out: 7 } })]).toEqual([false, true])
  expect(still({ kind: 'group', pieces: [], clock: 'own' })).toBe(false)
})

test('a piece by its own time moves in a hold, whatever its values are', () => {
  const still = (kind: Piece['kind'], values: object = {}) =>
    holdsStill({ ...card, pieces: [{ ...createPiece(kind, card), ...values } as Piece] })
  const sequence = { id: 'sequence-0123456789abcdef', frames: 4 }
  expect([still('sequence', { sequence: null }), still('sequence', { sequence })]).toEqual([true, false])
  expect([still('group'), still('group', { clock: 'keyed' })]).toEqual([true, false])
  const twin = (values: object) => still('twin', { clock: 'around', delay: 0, ...values })
  const keyed = { keys: [0, 9].map((frame) => ({ frame, value: 0 })) }
  expect([twin({}), twin({ delay: 2 }), twin({ delay: keyed }), twin({ clock: 'own' })]).toEqual([
    true,
    false,
    false,
    false,
  ])
  // Beyond the hold's last frame it may move: that one is not held.
  const late = { keys: [6, 7, 8].map((frame) => ({ frame, value: Math.max(6, frame) })), loop: false }
  expect([still('box', { x: late }), still('box', { x: { ...late, keys: late.keys.slice(1) } })]).toEqual([true, true])
  expect(holdsStill({ ...card, zones: null, pieces: [box] })).toBe(true)
})

test('a hold is as many holds as it is long; without zones there is none', () => {
  expect([holdsForHold(card, 6), holdsForHold(moving, 6), holdsForHold(moving, 1)]).toEqual([1.5, 2, 1])
  expect(holdsForHold({ ...card, zones: null }, 6)).toBeNull()
})
