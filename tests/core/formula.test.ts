import { describe, expect, jest, test } from '@jest/globals'
import { evaluate } from 'mathjs'
import { motionFaults } from '#core/judge/motion-faults'
import { evaluateCard } from '#core/time/evaluate'
import { FORMULA_FUNCTIONS, MOST_CHANGING_POINTS, readFormula } from '#core/values/formula'
import { coat, emptyCard, withBox } from '../support/engine'

const imulOf = Math.imul.bind(Math)

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

describe('noise has a budget', () => {
  test.each([
    'noise(p, 10000, 7)',
    'noise(p * 2, 5000 + 20 * tau, 3)',
    'noise(p, 8, floor(f / 12))',
    'noise(p, 4 + f)',
  ])('%s is within it', (text) => {
    expect(Number.isFinite(run(text))).toBe(true)
  })

  test.each(['noise(p, 10000, f)', 'noise(p, 400, f) + noise(p, 101, v)', 'noise(p, f) + noise(p, v) + noise(p, t)'])(
    '%s is refused, with what to do',
    (text) => {
      expect(readFormula(text)).toMatchObject({
        run: null,
        fault: expect.stringMatching(/random points.*plain numbers/),
      })
    },
  )

  test('points that change with time are held at the most', () => {
    expect(run('noise(p, 1000 * v * v)')).toBe(run(`noise(p, ${MOST_CHANGING_POINTS})`))
    expect(run('noise(p, 20 + 0 * f)')).toBe(run('noise(p, 20)'))
  })

  test('twenty noises on six motors: the card is judged and evaluated with few points thrown', () => {
    const many = (seed: string) => Array.from({ length: 20 }, () => `noise(p,9999,${seed})`).join('+')
    const text = many('f')
    expect(text.length).toBeLessThanOrEqual(500)
    const motors = Array.from({ length: 6 }, () => ({ kind: 'formula', on: true, text }))
    const card = withBox(
      emptyCard(64, 64, 250),
      { x: { keys: [{ frame: 0, value: 32 }], motors } as never, width: 20, height: 20 },
      { face: [coat('fill', 'f')] },
    )
    let thrown = 0
    const imul = jest.spyOn(Math, 'imul').mockImplementation((a, b) => {
      thrown++
      return imulOf(a, b)
    })
    try {
      expect(motionFaults(card).map(({ message }) => message)).toEqual(
        Array.from({ length: 6 }, () => expect.stringContaining('random points')),
      )
      for (let frame = 0; frame < 250; frame++) evaluateCard(card, frame)
    } finally {
      imul.mockRestore()
    }
    // Without the budget: 20 × 9999 points, for each motor, 500 frames tried and 250 evaluated.
    expect(thrown).toBeLessThan(100_000)
  })
})
