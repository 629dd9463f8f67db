import { expect, test } from '@jest/globals'
import { frameInPlay, heldFrame, heldLength, holdsFor, zonesOf } from '#core/time/held'

const card = { length: 10, zones: { hold: 3, out: 7 } }
const run = (holds: number) =>
  Array.from({ length: heldLength(card, holds) }, (_, frame) => heldFrame(card, frame, holds))

test('the hold is played as often as wished, between what comes in and what goes out', () => {
  expect(run(1)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9])
  expect(run(3)).toEqual([0, 1, 2, 3, 4, 5, 6, 3, 4, 5, 6, 3, 4, 5, 6, 7, 8, 9])
})

test('a wished length is filled with whole holds, as near as they come', () => {
  expect([1, 10, 11, 12.1, 18, 100].map((wished) => holdsFor(card, wished))).toEqual([1, 1, 1, 2, 3, 24])
  expect(holdsFor({ length: 10, zones: null }, 100)).toBe(1)
  expect(heldLength({ length: 10, zones: null }, 5)).toBe(10)
})

test('zones count as far as they lie in a loop that was made shorter', () => {
  expect(zonesOf({ length: 6, zones: { hold: 3, out: 7 } })).toEqual({ hold: 3, out: 6 })
  expect(heldLength({ length: 6, zones: { hold: 3, out: 7 } }, 2)).toBe(9)
  expect(zonesOf({ length: 3, zones: { hold: 3, out: 7 } })).toBeNull()
  expect(holdsFor({ length: 3, zones: { hold: 3, out: 7 } }, 100)).toBe(1)
})

test('playing goes round the loop; holding, it comes in and stays in the hold', () => {
  const played = (from: number, holding: boolean) =>
    Array.from({ length: 14 }, (_, after) => frameInPlay(card, from, after, holding))
  expect(played(8, false)).toEqual([8, 9, 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 0, 1])
  expect(played(8, true)).toEqual([8, 9, 0, 1, 2, 3, 4, 5, 6, 3, 4, 5, 6, 3])
  expect(played(5, true).slice(0, 6)).toEqual([5, 6, 3, 4, 5, 6])
  expect(frameInPlay({ length: 10, zones: null }, 8, 5, true)).toBe(3)
})
