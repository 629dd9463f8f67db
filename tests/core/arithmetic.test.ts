import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { arithmetic } from '#core/formats/arithmetic'

test.each([
  ['12', 12],
  ['240/2', 120],
  ['2 + 3 * 4', 14],
  ['(2 + 3) * 4', 20],
  ['-5 - -3', -2],
  ['1,5 × 2', 3],
  ['10 ÷ 4 − 1', 1.5],
  ['2*(3+(4-1))', 12],
])('%s is %d', (text, value) => expect(arithmetic(text)).toBe(value))

test.each(['', 'abc', '1+', '(2', '2)', '1/0', '3 px', 'alert(1)', '1 2', '--'])('“%s” is no arithmetic', (text) =>
  expect(arithmetic(text)).toBeNull(),
)

test('sums and products agree with the language’s own', () => {
  const number = fc.integer({ min: 1, max: 999 })
  fc.assert(
    fc.property(number, number, number, fc.constantFrom('+', '-', '*', '/'), (a, b, c, sign) => {
      const text = `${a} ${sign} (${b} - ${c} / 2)`
      const inner = b - c / 2
      const wanted = { '+': a + inner, '-': a - inner, '*': a * inner, '/': a / inner }[sign]!
      const value = arithmetic(text)
      if (Number.isFinite(wanted)) expect(value).toBeCloseTo(wanted, 9)
      else expect(value).toBeNull()
    }),
  )
})
