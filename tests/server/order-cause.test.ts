import { describe, expect, test } from '@jest/globals'
import { orderCause } from '#server/renders/cause/order-cause'

// A frame is a number here; two are as far apart as the numbers.

const causeOf = (found: readonly number[], made: readonly number[]) =>
  orderCause((at, place) => Math.abs(found[at]! - made[place]!), found.length, made.length)
const LOOP = [0, 10, 20, 30, 40, 50, 60, 70]

describe('what was done to the order of frames', () => {
  test.each([
    ['nothing', LOOP, null],
    ['one lost', [0, 10, 20, 40, 50, 60, 70], 'frame 3 is missing'],
    ['one twice', [0, 10, 10, 20, 30, 40, 50, 60, 70], 'frame 1 stands there twice'],
    [
      'one in place of the next',
      [0, 10, 20, 30, 30, 50, 60, 70],
      'frame 4 is missing, frame 3 stands in its place once more',
    ],
    ['two exchanged', [0, 10, 30, 20, 40, 50, 60, 70], 'frames 2 and 3 have changed places'],
    ['all late', [0, 0, 10, 20, 30, 40, 50, 60], 'all frames are late by one'],
    ['all early', [10, 20, 30, 40, 50, 60, 70, 70], 'all frames are early by one'],
    ['the same, rounded by a codec', LOOP.map((value) => value + 0.4), null],
    ['all other pictures', LOOP.map((value) => value + 500), null],
    ['the last one lost', LOOP.slice(0, -1), null],
  ])('%s', (_, found, cause) => {
    expect(causeOf(found, LOOP)).toBe(cause)
  })

  test('where frames stand still, nothing is told of which of them it is', () => {
    expect(causeOf([5, 5, 5, 5], [5, 5, 5, 5])).toBeNull()
    // One of three that are the same is lost: only from the next one on is it seen.
    expect(causeOf([5, 5, 10, 20, 30], [5, 5, 5, 10, 20, 30])).toBe('frame 2 is missing')
  })
})
