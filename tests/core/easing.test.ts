import { describe, expect, test } from '@jest/globals'
import bezierEasing from 'bezier-easing'
import fc from 'fast-check'
import { isEasing, readEasing, STANDARD_EASINGS } from '#core/values/easing'
import { bezierOf, bezierText, PEAKS, reversedEasing } from '#core/values/easing-shapes'

const ease = (text: string) => readEasing(text)!

describe('cubic-bezier', () => {
  test('agrees with a second implementation (npm bezier-easing) to 1e-6', () => {
    const unit = fc.double({ min: 0, max: 1, noNaN: true })
    const free = fc.double({ min: -1, max: 2, noNaN: true })
    fc.assert(
      fc.property(unit, free, unit, free, unit, (x1, y1, x2, y2, progress) => {
        // Where the curve stands upright in time the value is not defined to any precision.
        fc.pre(Math.abs(x1) > 0.02 || Math.abs(x2) < 0.98)
        const other = bezierEasing(x1, y1, x2, y2)(progress)
        const steep = Math.abs(bezierEasing(x1, y1, x2, y2)(Math.min(1, progress + 1e-6)) - other)
        expect(Math.abs(ease(`cubic-bezier(${x1}, ${y1}, ${x2}, ${y2})`)(progress) - other)).toBeLessThan(
          2e-6 + steep * 2,
        )
      }),
      { numRuns: 400 },
    )
  })

  test('the named easings are the curves of CSS Easing 2 §2.2.1', () => {
    const curves = {
      ease: 'cubic-bezier(0.25, 0.1, 0.25, 1)',
      'ease-in': 'cubic-bezier(0.42, 0, 1, 1)',
      'ease-out': 'cubic-bezier(0, 0, 0.58, 1)',
      'ease-in-out': 'cubic-bezier(0.42, 0, 0.58, 1)',
    }
    for (const [name, text] of Object.entries(curves)) {
      for (let p = 0; p <= 1; p += 0.05) expect(ease(name)(p)).toBeCloseTo(ease(text)(p), 12)
    }
  })

  test('begins at 0 and ends at 1', () => {
    for (const name of STANDARD_EASINGS) {
      expect(ease(name)(0)).toBe(0)
      expect(ease(name)(1)).toBe(1)
    }
  })
})

describe('steps', () => {
  // CSS Easing 2 §2.3.1, the figures of each jump position at the middle of each of three steps.
  test.each([
    ['steps(3, jump-end)', [0, 1 / 3, 2 / 3]],
    ['steps(3, jump-start)', [1 / 3, 2 / 3, 1]],
    ['steps(3, jump-none)', [0, 1 / 2, 1]],
    ['steps(3, jump-both)', [1 / 4, 2 / 4, 3 / 4]],
    ['steps(3)', [0, 1 / 3, 2 / 3]],
  ])('%s', (text, values) => {
    values.forEach((value, i) => expect(ease(text)((i + 0.5) / 3)).toBeCloseTo(value, 12))
  })

  test('hold keeps the first value up to the end', () => {
    expect([0, 0.999, 1].map(ease('hold'))).toEqual([0, 0, 1])
    expect([0, 0.999, 1].map(ease('step-end'))).toEqual([0, 0, 1])
    expect([0, 0.001, 1].map(ease('step-start'))).toEqual([1, 1, 1])
  })

  // §2.3: the step before is never shown within 0 and 1, and beyond them steps go on.
  test.each([
    ['steps(2, start)', [-0.1, 0, 0.5, 1], [0, 0.5, 1, 1]],
    ['steps(2, end)', [-0.1, 0, 0.5, 1, 1.6], [-0.5, 0, 0.5, 1, 1.5]],
    ['steps(2, jump-both)', [-0.6, 0, 0.5, 1, 1.6], [-1 / 3, 1 / 3, 2 / 3, 1, 4 / 3]],
    ['steps(3, jump-none)', [0, 0.34, 0.67, 1], [0, 0.5, 1, 1]],
    ['steps(1, jump-both)', [0, 1], [0.5, 1]],
    ['steps( 2 ,jump-start )', [0, 0.5], [0.5, 1]],
    ['STEPS(1)', [0, 0.5, 1], [0, 0, 1]],
  ])('%s at its ends', (text, at, values) => {
    at.forEach((progress, i) => expect(ease(text)(progress)).toBeCloseTo(values[i]!, 12))
  })
})

describe('linear()', () => {
  test('spreads missing inputs evenly and holds doubled ones (CSS Easing 2 §2.1)', () => {
    const bounce = ease('linear(0, 0.5, 1)')
    expect(bounce(0.25)).toBeCloseTo(0.25, 12)
    const flat = ease('linear(0, 0.25 25% 75%, 1)')
    expect(flat(0.25)).toBeCloseTo(0.25, 12)
    expect(flat(0.6)).toBeCloseTo(0.25, 12)
    expect(flat(0.875)).toBeCloseTo(0.625, 12)
  })

  // By hand from §2.1: inputs never go back, those in between are spread over what is left, ends may lie anywhere.
  test.each([
    ['linear(0, 1 40%, 0, 0.5, 1)', [0.2, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9], [0.5, 1, 0.5, 0, 0.25, 0.5, 0.75]],
    ['linear(0 20%, 1 80%)', [0.2, 0.35, 0.5, 0.8], [0, 0.25, 0.5, 1]],
    ['linear(0 20%, 1 80%)', [0.05, 0.95], [-0.25, 1.25]],
    ['linear(0, 1 60%, 0 40%, 1)', [0.3, 0.59999999, 0.6, 0.8], [0.5, 1, 0, 0.5]],
    ['linear(0, 1 150%)', [0.75], [0.5]],
    ['linear(0, 2, 1 200%, 4)', [0.5, 1, 1.5], [1, 2, 1.5]],
    ['linear(0 50% 50%, 1)', [0.25, 0.75], [0, 0.5]],
    ['linear(25% 1, 3)', [0.25, 0.625, 1], [1, 2, 3]],
    ['linear(-.5, +1.5e0, 10.)', [0, 0.5, 1], [-0.5, 1.5, 10]],
    ['linear(0.3)', [0, 0.5, 1], [0.3, 0.3, 0.3]],
  ])('%s', (text, at, values) => {
    at.forEach((progress, i) => expect(ease(text)(progress)).toBeCloseTo(values[i]!, 6))
  })
})

test.each([
  'cubic-bezier(0, 1000000, 1, -1000000)',
  'steps(1000000)',
  'steps(2, jump-none)',
  ' Ease-In ',
  'linear(1e+2, 0)',
])('%j is an easing', (text) => expect(isEasing(text)).toBe(true))

describe('what is no easing', () => {
  test.each([
    '',
    'swift',
    'cubic-bezier(2, 0, 0, 1)',
    'cubic-bezier(0, 0, 1)',
    'steps(0)',
    'steps(1, jump-none)',
    'steps(2.5)',
    'linear(a)',
    'linear()',
    'linear(1 10% 20%, a)',
    'linear(0, 1 2)',
    'linear(0, 25%)',
    'linear(0 1% 2% 3%, 1)',
    'linear(0 a%, 1)',
    'linear(0, 1000001)',
    'linear(0, 1) 2',
    'a linear(0, 1)',
    'linear(0, (1))',
    'cubic-bezier(-0.1, 0, 0, 1)',
    'cubic-bezier(0, 0, 1.1, 1)',
    'cubic-bezier(0, 0, -0.1, 1)',
    'cubic-bezier(0, 0, 1, 1, 1)',
    'cubic-bezier(0, 0, 1, 1e)',
    'cubic-bezier(0, 0, 1, .)',
    'cubic-bezier(0, 0, 1, 1 1)',
    'steps()',
    'steps(-1)',
    'steps(2, up)',
    'steps(2, end, end)',
    'steps(1000001)',
  ])('%j', (text) => expect(isEasing(text)).toBe(false))
})

describe('easings as shapes', () => {
  test.each([
    ['linear', [0, 0, 1, 1]],
    [' ease-in ', [0.42, 0, 1, 1]],
    [' cubic-bezier(0.1,-2, .3, 4) ', [0.1, -2, 0.3, 4]],
    ['cubic-bezier(2, 0, 0, 1)', null],
    ['cubic-bezier(0, 0, 1, 1) x', null],
    ['x cubic-bezier(0, 0, 1, 1)', null],
    ['steps(2)', null],
    ['hold', null],
  ])('%j has the points %j', (text, points) => expect(bezierOf(text)).toEqual(points))

  test('curves are written by name where they have one, else to three digits', () => {
    expect(bezierText([0, 0, 0.58, 1])).toBe('ease-out')
    expect(bezierText([0.0004, 0, 0.5796, 1.0004])).toBe('ease-out')
    expect(bezierText([0.25, 0.1, 0.25, 0.9])).toBe('cubic-bezier(0.25, 0.1, 0.25, 0.9)')
    expect(bezierText([0.12345, -0.0001, 1, 1.6667])).toBe('cubic-bezier(0.123, 0, 1, 1.667)')
  })

  test.each([
    ['ease-in', 'ease-out'],
    ['ease', 'cubic-bezier(0.75, 0, 0.75, 0.9)'],
    ['hold', 'step-start'],
    ['step-end', 'step-start'],
    ['step-start', 'hold'],
    ['steps(3)', 'steps(3, start)'],
    ['steps(3, start)', 'steps(3, end)'],
    ['steps( 12 , jump-start )', 'steps(12, end)'],
    ['steps(3, jump-end)', 'steps(3, start)'],
    ['steps(3, jump-both)', 'steps(3, jump-both)'],
    ['steps(3, jump-none)', 'steps(3, jump-none)'],
    ['swift', 'linear'],
  ])('%j backward is %j', (text, backward) => expect(reversedEasing(text)).toBe(backward))

  test('backward, each goes 1 − e(1 − p), and twice is as before', () => {
    for (const text of [
      ...STANDARD_EASINGS,
      ...PEAKS.map(({ easing }) => easing),
      'steps(5)',
      'linear(0, 0.9 25%, 1)',
    ]) {
      const [there, back] = [ease(text), ease(reversedEasing(text))]
      // A drawn one is sampled.
      const digits = text.startsWith('linear(') ? 2 : 6
      // Off the points at which steps jump.
      for (let p = 0.013; p < 1; p += 0.05) expect(back(p)).toBeCloseTo(1 - there(1 - p), digits)
      const again = ease(reversedEasing(reversedEasing(text)))
      for (let p = 0.013; p < 1; p += 0.05) expect(again(p)).toBeCloseTo(there(p), digits)
    }
  })

  test('a peak lies where it says: early, in the middle, late', () => {
    const peak = (text: string) => {
      const speeds = Array.from({ length: 100 }, (_, i) => ease(text)((i + 1) / 100) - ease(text)(i / 100))
      return speeds.indexOf(Math.max(...speeds)) / 100
    }
    const [early, middle, late] = PEAKS.map(({ easing }) => peak(easing))
    expect([early! < 0.2, Math.abs(middle! - 0.495) < 0.02, late! > 0.8]).toEqual([true, true, true])
  })
})
