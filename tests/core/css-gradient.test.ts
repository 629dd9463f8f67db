import { swapColours, turnAround } from '#core/edit/stops'
import { STANDSTILL } from '#core/values/moment'
import type { StoredStop } from '#core/values/moving'
import { describe, expect, test } from '@jest/globals'
import { paintValue } from '#core/values/evaluated'
import { readCssGradient, writeCssGradient } from '#core/formats/css-gradient'

const evaluated = (text: string) => {
  const paint = paintValue(readCssGradient(text), STANDSTILL)
  if (!('stops' in paint)) throw new Error('no gradient')
  return paint
}

describe('CSS gradient text', () => {
  test.each([
    ['linear-gradient(red, blue)', { type: 'linear', angle: -90 }],
    ['linear-gradient(to right, red, blue)', { type: 'linear', angle: 0 }],
    ['linear-gradient(0.25turn, red, blue)', { type: 'linear', angle: 0 }],
    ['repeating-linear-gradient(45deg, red, blue 20%)', { spread: 'repeat', angle: 45 }],
    ['radial-gradient(circle farthest-side at 30% 40%, red, blue)', { type: 'radial', form: 'circle', x: 0.3, y: 0.4 }],
    ['conic-gradient(from 90deg at 50% 50%, red, blue 180deg, red)', { type: 'conic', angle: 0 }],
    ['linear-gradient(in oklab, red, blue)', { mix: 'oklab' }],
    ['background: linear-gradient(90deg, hsl(20 80% 50%), #12345678);', { type: 'linear' }],
  ])('%s is read', (text, expected) => {
    const found = evaluated(text)
    const turned = { ...found, angle: found.angle > 180 ? found.angle - 360 : found.angle }
    expect(turned).toMatchObject(expected)
  })

  test('places are filled in as CSS Images 3 §3.4.3 says', () => {
    const at = (text: string) => evaluated(text).stops.map((stop) => Math.round(stop.at * 1000) / 10)
    expect(at('linear-gradient(red, lime, blue)')).toEqual([0, 50, 100])
    expect(at('linear-gradient(red 40%, white, black, blue)')).toEqual([40, 60, 80, 100])
    expect(at('linear-gradient(red 60%, lime 20%, blue)')).toEqual([60, 60, 100])
    expect(at('linear-gradient(red 10% 30%, blue)')).toEqual([10, 30, 100])
    expect(evaluated('linear-gradient(red, 25%, blue)').stops[0]!.middle).toBeCloseTo(0.25, 6)
  })

  test('what is written is read as the same gradient', () => {
    for (const text of [
      'linear-gradient(120deg, #b8324a 0%, #e2683c 38%, #ffe9b8 100%)',
      'radial-gradient(ellipse farthest-side at 20% 70%, #b8324a 0%, #1e6b6a80 100%)',
      'repeating-linear-gradient(10deg in oklab, #b8324a 10%, #1e6b6a 30%)',
      'conic-gradient(from 30deg at 40% 60%, #b8324a 0%, #1e6b6a 70%, #b8324a 100%)',
    ]) {
      expect(evaluated(writeCssGradient(evaluated(text)))).toEqual(evaluated(text))
    }
  })

  test.each([
    ['url(boat.png)', /no CSS gradient/],
    ['linear-gradient(red)', /two colours/],
    ['linear-gradient(45deg, red, wobble)', /wobble/],
    ['linear-gradient(to top left, red, blue)', /corner/],
    ['linear-gradient(red 10px, blue)', /10px/],
    ['radial-gradient(circle closest-side, red, blue)', /closest/],
  ])('%s is refused with its reason', (text, words) => {
    expect(() => readCssGradient(text)).toThrow(words)
  })
})

describe('colours of a gradient', () => {
  const stops: StoredStop[] = [
    { at: 0, colour: '#FF0000', middle: 30 },
    {
      at: {
        keys: [
          { frame: 0, value: 40 },
          { frame: 10, value: 60 },
        ],
      },
      colour: '#00FF00',
    },
    { at: 90, colour: '#0000FF' },
  ]

  test('turned around twice it is as it was; places, keys and midpoints are mirrored', () => {
    const turned = turnAround(stops)
    expect(turned).toEqual([
      { at: 10, colour: '#0000FF' },
      {
        at: {
          keys: [
            { frame: 0, value: 60 },
            { frame: 10, value: 40 },
          ],
        },
        colour: '#00FF00',
        middle: 70,
      },
      { at: 100, colour: '#FF0000' },
    ])
    expect(turnAround(turned)).toEqual(stops)
  })

  test('neighbours swap colours and nothing else; the last one with the one before it', () => {
    expect(swapColours(stops, 0).map(({ colour }) => colour)).toEqual(['#00FF00', '#FF0000', '#0000FF'])
    expect(swapColours(stops, 2).map(({ colour }) => colour)).toEqual(['#FF0000', '#0000FF', '#00FF00'])
    expect(swapColours(swapColours(stops, 1), 1)).toEqual(stops)
  })
})
