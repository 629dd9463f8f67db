import { describe, expect, test } from '@jest/globals'
import { z } from 'zod'
import { between, isBent, splitBend } from '#core/values/bend'
import { bend, keysOf } from '#core/values/keys'
import { actingKeys, lastBefore, segmentAt } from '#core/values/keyframes'
import { COMMON_RATES, perSecond, rateLabel, rateSchema, ribbonTime, seconds } from '#core/values/rate'

// What lies between keys, by hand.

describe('rates', () => {
  test('are told as people write them', () => {
    expect(COMMON_RATES.map(rateLabel)).toEqual(['23.98', '24', '25', '29.97', '30', '50', '59.94', '60'])
    expect(rateLabel({ numerator: 12_345, denominator: 1000 })).toBe('12.345')
    expect(COMMON_RATES.every((rate) => rateSchema.safeParse(rate).success)).toBe(true)
  })

  test('are exact: 30,000 frames of 29.97 a second last 1,001 seconds', () => {
    const rate = { numerator: 30_000, denominator: 1001 }
    expect(seconds(30_000, rate)).toBe(1001)
    expect(perSecond({ numerator: 25, denominator: 2 })).toBe(12.5)
  })

  test('are whole numbers within limits and nothing more', () => {
    const taken = (numerator: number, denominator: number, more = {}) =>
      rateSchema.safeParse({ numerator, denominator, ...more }).success
    expect([taken(1, 1), taken(240_000, 1001)]).toEqual([true, true])
    expect([taken(0, 1), taken(1, 0), taken(240_001, 1), taken(1, 1002), taken(2.5, 1), taken(1, 1.5)]).toEqual(
      Array(6).fill(false),
    )
    expect(taken(25, 1, { drop: true })).toBe(false)
  })

  test('count seconds and frames on the ribbon at their nominal number', () => {
    const pal = { numerator: 25, denominator: 1 }
    expect([0, 7.9, 24, 25, 82].map((frame) => ribbonTime(frame, pal))).toEqual([
      '0:00',
      '0:07',
      '0:24',
      '1:00',
      '3:07',
    ])
    expect(ribbonTime(30, { numerator: 30_000, denominator: 1001 })).toBe('1:00')
  })
})

describe('the segment that a frame lies in', () => {
  const [first, last] = [
    { frame: 10, value: 1 },
    { frame: 30, value: 2 },
  ]
  const at = (frame: number, values: object = {}) => {
    const { from, to, progress } = segmentAt({ keys: [first, last], ...values }, frame, 40)
    return [from.value, to.value, progress]
  }

  test('goes round a ring, over its seam', () => {
    expect([5, 10, 20, 30, 35].map((frame) => at(frame))).toEqual([
      [2, 1, 0.75],
      [1, 2, 0],
      [1, 2, 0.5],
      [2, 1, 0],
      [2, 1, 0.25],
    ])
  })

  test('stands before the first and after the last key of an open one', () => {
    expect([5, 10, 20, 30, 35].map((frame) => at(frame, { loop: false }))).toEqual([
      [1, 1, 0],
      [1, 2, 0],
      [1, 2, 0.5],
      [2, 2, 0],
      [2, 2, 0],
    ])
    expect(at(20, { keys: [last] })).toEqual([2, 2, 0])
  })

  test('is eased by the key that it begins with, and even where that is no easing', () => {
    const eased = (easing: string) =>
      at(15, {
        keys: [
          { ...first, easing },
          { ...last, easing: 'hold' },
        ],
      })[2]
    expect([eased('hold'), eased('steps(2)'), eased('linear'), eased('swift')]).toEqual([0, 0, 0.25, 0.25])
  })

  test('is between keys that lie in the loop; one of them is left in any case', () => {
    const keys = [first, last, { frame: 40, value: 3 }]
    const acting = (length: number, loop?: boolean) => actingKeys({ keys, loop }, length).map(({ value }) => value)
    expect([acting(41), acting(40), acting(30), acting(10), acting(5)]).toEqual([[1, 2, 3], [1, 2], [1], [1], [1]])
    expect(acting(5, false)).toEqual([1, 2, 3])
  })

  test('is found by halving', () => {
    const keys = Array.from({ length: 9 }, (_, i) => ({ frame: i * 2 }))
    for (let frame = -1; frame < 20; frame++)
      expect(lastBefore(keys, frame)).toBe(Math.max(-1, Math.min(8, Math.floor(frame / 2))))
    expect(lastBefore([], 3)).toBe(-1)
  })
})

describe('a bent way between two keys', () => {
  const from = { value: 0, bend: { out: 6 } }
  const to = { value: 9, bend: { in: -3 } }

  test('is a cubic Bézier curve of its control points, straight on where progress overshoots', () => {
    // 0, 6, 6, 9: at the middle (0 + 3 · 6 + 3 · 6 + 9) / 8; its ends lead on by 3 · 6 and 3 · 3 for 1.
    const values = [-0.5, 0, 0.5, 1, 1.5].map((progress) => between(from, to, progress))
    expect(values).toEqual([-9, 0, 5.625, 9, 13.5])
    // A quarter of the way: (27 · 0 + 27 · 6 + 9 · 6 + 1 · 9) / 64.
    expect(between(from, to, 0.25)).toBeCloseTo((27 * 6 + 9 * 6 + 9) / 64, 12)
  })

  test('has a third of the way for a bend that is left out', () => {
    expect(between(from, { value: 9 }, 0.5)).toBe((3 * 6 + 3 * 6 + 9) / 8)
    expect(between({ value: 0 }, { value: 9, bend: { in: 3 } }, 0.5)).toBe((3 * 3 + 3 * 12 + 9) / 8)
    expect(between({ value: 2, bend: { in: 50 } }, { value: 4, bend: { out: 50 } }, 1.5)).toBe(5)
    expect([isBent({ value: 0 }, to), isBent(from, { value: 0 }), isBent({ value: 0 }, { value: 1 })]).toEqual([
      true,
      true,
      false,
    ])
  })

  test('is split within its ends: beyond them there is nothing to split', () => {
    expect(splitBend(from, to, -1)).toEqual(splitBend(from, to, 0))
    expect(splitBend(from, to, 2)).toEqual(splitBend(from, to, 1))
  })
})

describe('keys in a file', () => {
  const schema = keysOf(z.number(), { bend })
  const places = (keys: unknown) => {
    const { success, error } = schema.safeParse(keys)
    return success ? null : error!.issues.map(({ path }) => path.join('/'))
  }

  test('lie in the order of their frames, none at the place of another', () => {
    const keys = (...frames: number[]) => frames.map((frame) => ({ frame, value: 0 }))
    expect(places(keys(0, 1.5, 1_000_000))).toBeNull()
    expect(places(keys(0, 4, 4))).toEqual(['2/frame'])
    expect(places(keys(5, 4, 3))).toEqual(['1/frame', '2/frame'])
    expect([places(keys(-1)), places(keys(1_000_001)), places([])]).toEqual([['0/frame'], ['0/frame'], ['']])
    const many = (count: number) => places(Array.from({ length: count }, (_, frame) => ({ frame, value: 0 })))
    expect([many(10_000), many(10_001)]).toEqual([null, ['']])
  })

  test('have easings and bends that can be', () => {
    const one = (values: object) => places([{ frame: 0, value: 0, ...values }])
    expect([one({ easing: 'ease' }), one({ bend: { in: -1e6, out: 1e6 } }), one({ bend: {} })]).toEqual([
      null,
      null,
      null,
    ])
    expect(one({ easing: 'swift' })).toEqual(['0/easing'])
    expect(one({ easing: `linear(0, 1${' '.repeat(2000)})` })).toEqual(['0/easing'])
    expect([one({ bend: { in: 1_000_001 } }), one({ bend: { out: -1_000_001 } })]).toEqual([
      ['0/bend/in'],
      ['0/bend/out'],
    ])
    expect([one({ bend: { up: 1 } }), one({ colour: 'red' })]).toEqual([['0/bend'], ['0']])
  })
})
