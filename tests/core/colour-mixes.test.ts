import { expect, test } from '@jest/globals'
import { mixColours, readColour, writeColour } from '#core/values/colour'
import { linearToOklab, mixInOklab, toLinear } from '#core/values/oklab'
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
