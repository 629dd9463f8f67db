import { describe, expect, test } from '@jest/globals'
import { Font } from '#core/type/font'
import { moveLetters } from '#core/type/letter-motion'
import { setText } from '#core/type/layout'
import type { RangeValues } from '#core/type/ranges'
import { placesIn, weightsOf } from '#core/type/sweep'
import { fontBytes } from '../support/engine'
import { evaluatedRange as evaluated } from '../support/ranges'

const font = new Font(fontBytes('archivo-black'), 'test')
const lettersOf = (wording: string) => setText(font, { wording, tracking: 0, leading: 110, align: 'centre' }).letters
const weigh = (wording: string, values: Partial<RangeValues>) =>
  weightsOf(lettersOf(wording), evaluated({ ease: 'even', ...values })).map((w) => Math.round(w * 1e6) / 1e6)

describe('a sweep', () => {
  test('arrives: all weight before it, none after it, one letter after another between', () => {
    expect(weigh('ABCDE', { sweep: 0 })).toEqual([1, 1, 1, 1, 1])
    expect(weigh('ABCDE', { sweep: 100 })).toEqual([0, 0, 0, 0, 0])
    // Spread 20 % of the sweep for each of five: exactly one is on its way.
    expect(weigh('ABCDE', { sweep: 50, spread: 20 })).toEqual([0, 0, 0.5, 1, 1])
    expect(weigh('ABCDE', { sweep: 30, spread: 100 })).toEqual([0.7, 0.7, 0.7, 0.7, 0.7])
  })

  test('leaves as it arrives, turned round; passes there and back', () => {
    const arrive = weigh('LANTERN', { sweep: 37 })
    expect(weigh('LANTERN', { sweep: 37, form: 'leave' })).toEqual(arrive.map((w) => Math.round((1 - w) * 1e6) / 1e6))
    expect(weigh('A', { form: 'pass', sweep: 25 })).toEqual([0.5])
    expect(weigh('A', { form: 'pass', sweep: 50 })).toEqual([1])
    for (const sweep of [0, 100]) expect(weigh('LANTERN', { form: 'pass', sweep })).toEqual(new Array(7).fill(0))
  })

  test('goes through words and lines; spaces are no letters', () => {
    expect(weigh('AB CD', { units: 'words', sweep: 50, spread: 50 })).toEqual([0, 0, 0, 1, 1])
    expect(weigh('AB\nCD EF', { units: 'lines', sweep: 50, spread: 50 })).toEqual([0, 0, 1, 1, 1, 1, 1])
    expect(weigh('A B', { sweep: 50, spread: 50 })).toEqual([0, 0, 1])
  })

  test('covers the part of the text between from and to, letters that it cuts by their share', () => {
    expect(weigh('ABCD', { sweep: 0, from: 50 })).toEqual([0, 0, 1, 1])
    expect(weigh('ABCD', { sweep: 0, to: 25 })).toEqual([1, 0, 0, 0])
    expect(weigh('ABCD', { sweep: 0, from: 12.5, to: 50 })).toEqual([0.5, 1, 0, 0])
    expect(weigh('ABCD', { sweep: 0, from: 50, to: 50 })).toEqual([0, 0, 0, 0])
  })

  test('orders: who goes first', () => {
    expect(placesIn('forward', 3, 1)).toEqual([0, 0.5, 1])
    expect(placesIn('backward', 3, 1)).toEqual([1, 0.5, 0])
    expect(placesIn('centre', 5, 1)).toEqual([1, 0.5, 0, 0.5, 1])
    expect(placesIn('centre', 4, 1)).toEqual([1, 0, 0, 1])
    expect(placesIn('edges', 5, 1)).toEqual([0, 0.5, 1, 0.5, 0])
    for (const order of ['forward', 'backward', 'centre', 'edges', 'shuffle'] as const) {
      for (const place of placesIn(order, 1, 1)) expect(Number.isFinite(place)).toBe(true)
      expect(placesIn(order, 0, 1)).toEqual([])
    }
  })

  test('a shuffled order is a permutation, the same for a seed, another for another', () => {
    const places = placesIn('shuffle', 12, 7)
    expect([...places].sort((a, b) => a - b)).toEqual(placesIn('forward', 12, 0))
    expect(placesIn('shuffle', 12, 7)).toEqual(places)
    expect(placesIn('shuffle', 12, 8)).not.toEqual(places)
  })

  test.each(['even', 'soft', 'early', 'late', 'past', 'swing'] as const)(
    'the ease %s begins and ends at rest',
    (ease) => {
      expect(weigh('A', { ease, sweep: 0 })[0]).toBeCloseTo(1, 6)
      expect(weigh('A', { ease, sweep: 100 })[0]).toBeCloseTo(0, 6)
      const least = Math.min(...Array.from({ length: 100 }, (_, i) => weigh('A', { ease, sweep: i })[0]!))
      if (ease === 'past' || ease === 'swing') expect(least).toBeLessThan(-0.05)
      else expect(least).toBeGreaterThanOrEqual(0)
    },
  )
})

describe('letters', () => {
  const setting = { wording: 'To the\nQuay', tracking: 20, leading: 110, align: 'centre' as const }

  test('at rest stand where type is set', () => {
    const moved = moveLetters(font, {
      ...setting,
      size: 100,
      ranges: [evaluated({ sweep: 100, y: 50 })],
      spaced: false,
    })
    const set = setText(font, setting).glyphs.filter(({ letter }) => !setText(font, setting).letters[letter]!.blank)
    expect(moved.map(({ origin }) => origin)).toEqual(set.map(({ x, y }) => ({ x, y })))
    for (const { moved: way, opacity } of moved)
      expect({ way, opacity }).toEqual({ way: { scale: 1, rotation: 0, x: 0, y: 0 }, opacity: 1 })
  })

  test('go together as the finest of the ranges goes: words as one outline, letters each', () => {
    const sets = (...units: RangeValues['units'][]) =>
      moveLetters(font, {
        ...setting,
        ...{ size: 100, spaced: false },
        ranges: units.map((unit) => evaluated({ units: unit, y: 10 })),
      }).length
    expect(sets('letters')).toBe(9)
    expect(sets('words')).toBe(3)
    expect(sets('lines')).toBe(2)
    expect(sets('lines', 'words')).toBe(3)
  })

  test('tracking spreads a line about its middle', () => {
    const at = (tracking: number) =>
      moveLetters(font, {
        ...{ wording: 'HHH', tracking: 0, leading: 100, align: 'centre', size: 100, spaced: true },
        ranges: [evaluated({ tracking, spread: 100 })],
      }).map(({ origin }) => origin.x)
    const [plain, wide] = [at(0), at(300)]
    expect(wide[1]).toBeCloseTo(plain[1]!, 9)
    expect(wide[2]! - plain[2]!).toBeCloseTo(0.3, 9)
    expect(wide[0]! - plain[0]!).toBeCloseTo(-0.3, 9)
  })
})
