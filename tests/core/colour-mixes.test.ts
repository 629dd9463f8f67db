import { expect, test } from '@jest/globals'
import { mixColours, readColour, writeColour } from '#core/values/colour'
import { linearToOklab, mixInOklab, oklabToLinear, toDisplay, toLinear } from '#core/values/oklab'
import type { Rgba } from '#core/units'

const close = (got: readonly number[], wanted: readonly number[], digits = 6) => {
  expect(got).toHaveLength(wanted.length)
  wanted.forEach((value, i) => expect(got[i]!).toBeCloseTo(value, digits))
}

test('hex colours are read and written to the nearest byte', () => {
  close(readColour('#FF8000'), [1, 128 / 255, 0, 1], 12)
  close(readColour('#01020380'), [1 / 255, 2 / 255, 3 / 255, 128 / 255], 12)
  expect(writeColour([1, 0.5, 0, 1])).toBe('#FF8000')
  expect(writeColour([2, -1, 0.0019, 0.5])).toBe('#FF000080')
  // Alpha is left out only where it is whole.
  expect([writeColour([0, 0, 0, 0.999]), writeColour([0, 0, 0, 1.2]), writeColour([0, 0, 0, 0])]).toEqual([
    '#000000FF',
    '#000000',
    '#00000000',
  ])
})

test('colours are mixed premultiplied: what is clear does not stain (CSS Color 4 §12.3)', () => {
  const red: Rgba = [1, 0, 0, 1]
  close(mixColours(red, [0, 0, 1, 0], 0.5), [1, 0, 0, 0.5])
  close(mixColours(red, [0, 1, 0, 0.5], 0.5), [2 / 3, 1 / 3, 0, 0.75])
  close(mixColours(red, [0, 1, 0, 1], 0.25), [0.75, 0.25, 0, 1])
  expect(mixColours([1, 0, 0, 0], [0.1, 0.2, 0.3, 0], 0.4)).toEqual([0.1, 0.2, 0.3, 0])
})

test('the transfer of sRGB is that of IEC 61966-2-1, with its straight foot', () => {
  // 0.04045 / 12.92; ((0.5 + 0.055) / 1.055)^2.4 by a pocket calculator.
  close([toLinear(0.04045), toLinear(0.5), toLinear(1)], [0.0031308, 0.2140411, 1])
  close([toLinear(0.02), toDisplay(0.002)], [0.02 / 12.92, 0.002 * 12.92], 12)
  for (let v = 0; v <= 1; v += 1 / 64) expect(toDisplay(toLinear(v))).toBeCloseTo(v, 6)
})

test('the primaries of sRGB lie where CSS Color 4 has them in OKLab', () => {
  // Sample values of its test suite (web-platform-tests, css-color, oklab), to five digits.
  close(linearToOklab([1, 0, 0]), [0.62796, 0.22486, 0.12585], 4)
  close(linearToOklab([0, 1, 0]), [0.86644, -0.23389, 0.1795], 4)
  close(linearToOklab([0, 0, 1]), [0.45201, -0.03246, -0.31153], 4)
  close(linearToOklab([1, 1, 1]), [1, 0, 0], 5)
  for (const colour of [
    [0.2, 0.5, 0.9],
    [1, 0, 0.3],
  ] as [number, number, number][])
    close(oklabToLinear(linearToOklab(colour)), colour, 5)
})

test('a mix in OKLab keeps its ends, is premultiplied, and stays within sRGB', () => {
  // Both and what lies between them are within sRGB.
  const [dusk, sand]: [Rgba, Rgba] = [
    [0.2, 0.4, 0.6, 1],
    [0.8, 0.7, 0.3, 1],
  ]
  const labOf = ([r, g, b]: Rgba) => linearToOklab([toLinear(r), toLinear(g), toLinear(b)])
  const [p, q] = [labOf(dusk), labOf(sand)]
  close(mixInOklab(dusk, sand, 0), dusk, 5)
  close(mixInOklab(dusk, sand, 1), sand, 5)
  close(
    labOf(mixInOklab(dusk, sand, 0.25)),
    p.map((v, i) => 0.75 * v + 0.25 * q[i]!),
    5,
  )
  close(mixInOklab(dusk, [0.8, 0.7, 0.3, 0], 0.5), [0.2, 0.4, 0.6, 0.5], 5)
  // Two thirds of the ink that is left are of the whole one.
  const tinted = mixInOklab(dusk, [0.8, 0.7, 0.3, 0.5], 0.5)
  expect(tinted[3]).toBe(0.75)
  close(
    labOf(tinted),
    p.map((v, i) => (2 * v + q[i]!) / 3),
    5,
  )
  expect(mixInOklab([1, 0, 0, 0], [0.1, 0.2, 0.3, 0], 0.7)).toEqual([0.1, 0.2, 0.3, 0])
  // Between green and magenta the way leaves sRGB.
  for (let t = 0; t <= 1; t += 0.05)
    for (const v of mixInOklab([0, 1, 0, 1], [1, 0, 1, 1], t)) expect(v >= 0 && v <= 1).toBe(true)
})
