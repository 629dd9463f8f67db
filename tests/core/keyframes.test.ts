import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { Moving } from '#core/values/moving'
import { colourAt, numberAt } from '#core/values/moved'

const moving = (...keys: [number, number, string?][]): Moving<number> => ({
  keys: keys.map(([frame, value, easing]) => ({ frame, value, ...(easing ? { easing } : {}) })),
})

describe('on the ring', () => {
  test('the segment after the last key leads to the first, across the seam', () => {
    const swing = moving([10, 0], [60, 100])
    // 50 frames up, then 50 frames from frame 60 to frame 110 = frame 10 of the next turn.
    expect(numberAt(swing, { ring: { length: 100 }, frame: 35 })).toBeCloseTo(50, 10)
    expect(numberAt(swing, { ring: { length: 100 }, frame: 85 })).toBeCloseTo(50, 10)
    expect(numberAt(swing, { ring: { length: 100 }, frame: 0 })).toBeCloseTo(20, 10)
  })

  test('neighbouring frames across the seam differ no more than elsewhere', () => {
    const frames = fc.uniqueArray(fc.integer({ min: 0, max: 99 }), { minLength: 1, maxLength: 8 })
    fc.assert(
      fc.property(
        frames,
        fc.array(fc.integer({ min: -500, max: 500 }), { minLength: 8, maxLength: 8 }),
        (at, values) => {
          const keys = [...at].sort((a, b) => a - b).map((frame, i) => [frame, values[i]!] as [number, number])
          const value = (frame: number) => numberAt(moving(...keys), { ring: { length: 100 }, frame: frame })
          const rates = keys.map(([frame, v], i) => {
            const [next, w] = keys[(i + 1) % keys.length]!
            const span = i + 1 < keys.length ? next - frame : next + 100 - frame
            return Math.abs((w - v) / span)
          })
          expect(Math.abs(value(99.999) - value(0))).toBeLessThanOrEqual(Math.max(...rates) * 0.001 + 1e-6)
        },
      ),
    )
  })

  test('keys beyond the loop do not act, and are not lost', () => {
    const long = moving([0, 0], [50, 10], [200, 999])
    expect(numberAt(long, { ring: { length: 100 }, frame: 50 })).toBe(10)
    expect(numberAt(long, { ring: { length: 100 }, frame: 75 })).toBeCloseTo(5, 10)
    expect(long.keys).toHaveLength(3)
  })

  test('a key at the length of the loop lies beyond it: the first frame of the next turn is the first key’s', () => {
    const whole = moving([0, 0], [20, 10], [40, 999])
    expect(numberAt(whole, { ring: { length: 40 }, frame: 30 })).toBeCloseTo(5, 10)
    expect(numberAt(whole, { ring: { length: 41 }, frame: 30 })).toBeCloseTo(504.5, 10)
    // On an open line it acts.
    expect(numberAt({ ...whole, loop: false }, { ring: { length: 40 }, frame: 30 })).toBeCloseTo(504.5, 10)
  })

  test('one key is a constant', () => {
    for (const frame of [0, 30, 99]) expect(numberAt(moving([40, 7]), { ring: { length: 100 }, frame: frame })).toBe(7)
  })
})

test('without the ring the first and last value are held', () => {
  const open = { ...moving([10, 1], [20, 2]), loop: false }
  expect(numberAt(open, { ring: { length: 100 }, frame: 0 })).toBe(1)
  expect(numberAt(open, { ring: { length: 100 }, frame: 15 })).toBeCloseTo(1.5, 10)
  expect(numberAt(open, { ring: { length: 100 }, frame: 90 })).toBe(2)
})

test('a colour fades premultiplied: a clear end does not stain (CSS Color 4 §12.3)', () => {
  const fade: Moving<string> = {
    keys: [
      { frame: 0, value: '#FF000000' },
      { frame: 50, value: '#0000FF' },
    ],
  }
  const [r, g, b, a] = colourAt(fade, { ring: { length: 100 }, frame: 25 })
  expect([r, g]).toEqual([0, 0])
  expect(b).toBeCloseTo(1, 10)
  expect(a).toBeCloseTo(0.5, 10)
})
