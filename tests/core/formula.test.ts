import { describe, expect, test } from '@jest/globals'
import { evaluate } from 'mathjs'
import { FORMULA_FUNCTIONS, readFormula } from '#core/values/formula'

const scope = { t: 1.5, f: 37, p: 0.3, v: -4 }
const run = (text: string) => readFormula(text).run?.(scope)

test('arithmetic, precedence and functions are those of the library', () => {
  const both = [
    'v + 20 * sin(tau * p)',
    '-v^2',
    '2 t + 3 p',
    'f > 30 ? 1 : 2',
    'mod(f, 12) % 5',
    'sqrt(abs(v)) + exp(p) - log(t)',
    'max(1, min(v, 3), p)',
    'pow(t, 3) / cos(1) + tan(0.4) + acos(p)',
    'floor(t) + ceil(p) + round(v / 3) + sign(v)',
    '(1 + 2) * (t - e)^2',
  ]
  for (const text of both) expect(run(text)).toBeCloseTo(Number(evaluate(text, { ...scope })), 9)
  expect(run('1 < t < 3')).toBe(1)
  expect(run('not (p >= 1) and v != 0')).toBe(1)
  expect(run('clamp(v, -1, 1)')).toBe(-1)
  expect(run('mix(10, 20, p)')).toBeCloseTo(13, 9)
  expect(run('smoothstep(0, 1, 0.5)')).toBe(0.5)
})

test('noise comes round with the loop', () => {
  const { run: noise } = readFormula('noise(p, 8, 3)')
  expect(noise!({ ...scope, p: 1 })).toBeCloseTo(noise!({ ...scope, p: 0 }), 9)
  expect(Math.abs(noise!(scope))).toBeLessThanOrEqual(1)
})

describe('nothing but arithmetic is let in', () => {
  const hostile: [string, RegExp][] = [
    ['', /empty/],
    ['sin(', /cannot be read at character/],
    ['f(x) = f(x)', /arithmetic/],
    ['x = 3', /arithmetic/],
    ['1:1000000000', /arithmetic/],
    ['[1, 2, 3]', /arithmetic/],
    ['{a: 1}', /arithmetic/],
    ['t.constructor', /arithmetic/],
    ['"text"', /numbers only/],
    ['true', /numbers only/],
    ['constructor', /does not know constructor/],
    ['import(1)', /does not know the function import/],
    ['evaluate("1")', /numbers only|does not know the function/],
    ['toString(1)', /does not know the function toString/],
    ['hasOwnProperty(v)', /does not know the function/],
    ['1000!', /operator/],
    ['3 cm', /does not know cm/],
    ['sin(1, 2)', /takes 1/],
    ['min()', /takes 1 to 8/],
    [`1${'+1'.repeat(249)}`, /300 parts/],
    ['1'.repeat(501), /longer than 500/],
    ['1; 2', /arithmetic/],
  ]
  test.each(hostile)('%s', (text, fault) => {
    const reading = readFormula(text)
    expect(reading.run).toBeNull()
    expect(reading.fault).toMatch(fault)
  })

  test('what is let in always gives a number, be it none that can be used', () => {
    expect(run('1 / 0')).toBe(Infinity)
    expect(run('0 / 0')).toBeNaN()
    expect(Object.keys(FORMULA_FUNCTIONS)).toContain('noise')
  })
})
