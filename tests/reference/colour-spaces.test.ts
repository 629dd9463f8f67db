import { describe, expect, test } from '@jest/globals'
import { converter } from 'culori'
import fc from 'fast-check'
import { linearToOklab, oklabToLinear, toDisplay, toLinear } from '#core/values/oklab'
import { rampColours } from '#core/paint/ramp'
import { emptyCard, pixelAt, solid, withBox, coat } from '../support/engine'
import { Engine } from '#core/frame/engine'

const unit = fc.double({ min: 0, max: 1, noNaN: true })

describe('the transfer function of sRGB', () => {
  test('has the values that IEC 61966-2-1 gives', () => {
    // Linear part below 0.04045 (slope 12.92); the threshold belongs to both parts to the standard's rounding.
    expect(toLinear(0.04)).toBeCloseTo(0.04 / 12.92, 12)
    expect(toLinear(0.04045)).toBeCloseTo(0.0031308, 6)
    expect(toLinear(1)).toBeCloseTo(1, 12)
    // Mid grey 128 of 255, as in the tables that follow the standard.
    expect(toLinear(128 / 255)).toBeCloseTo(0.21586, 5)
    expect(toDisplay(0.5)).toBeCloseTo(0.7353569, 6)
  })

  test('is undone by its inverse, and is that of a colour library', () => {
    const lrgb = converter('lrgb')
    fc.assert(
      fc.property(unit, (v) => {
        expect(toDisplay(toLinear(v))).toBeCloseTo(v, 6)
        expect(toLinear(v)).toBeCloseTo(lrgb({ mode: 'rgb', r: v, g: v, b: v }).r, 9)
      }),
    )
  })
})

test('OKLab is that of a colour library to 1e-6, both ways', () => {
  const oklab = converter('oklab')
  fc.assert(
    fc.property(unit, unit, unit, (r, g, b) => {
      const ours = linearToOklab([r, g, b])
      const theirs = oklab({ mode: 'lrgb', r, g, b })
      expect(ours[0]).toBeCloseTo(theirs.l, 6)
      expect(ours[1]).toBeCloseTo(theirs.a, 6)
      expect(ours[2]).toBeCloseTo(theirs.b, 6)
      oklabToLinear(ours).forEach((v, i) => expect(v).toBeCloseTo([r, g, b][i]!, 5))
    }),
  )
})

describe('a ramp', () => {
  const stop = (at: number, colour: [number, number, number, number], middle = 0.5) => ({ at, colour, middle })
  const red = [1, 0, 0, 1] as [number, number, number, number]
  const blue = [0, 0, 1, 1] as [number, number, number, number]

  test('mixed in linear light is half of each light in the middle', () => {
    const colours = rampColours({ stops: [stop(0, red), stop(1, blue)], mix: 'linear' }, false)
    expect(colours[512 * 4]).toBeCloseTo(toDisplay(0.5), 6)
    expect(colours[512 * 4 + 2]).toBeCloseTo(toDisplay(0.5), 6)
  })

  test('is half and half at its midpoint: colour hints of CSS Images 4 §3.4.2', () => {
    const colours = rampColours({ stops: [stop(0, red, 0.25), stop(1, blue)], mix: 'srgb' }, false)
    expect(colours[256 * 4]).toBeCloseTo(0.5, 5)
    // C = P^(log ½ / log H) at P = ½, H = ¼: ½^½.
    expect(colours[512 * 4 + 2]).toBeCloseTo(Math.SQRT1_2, 5)
  })

  test('fades to clear without a stain: colours are mixed premultiplied', () => {
    const colours = rampColours({ stops: [stop(0, red), stop(1, [0, 0, 0, 0])], mix: 'srgb' }, false)
    for (let i = 0; i <= 1000; i += 100) expect(colours[i * 4]).toBeCloseTo(colours[i * 4 + 3]!, 6)
  })
})

test('in linear light half of white over black is the display value of half the light', () => {
  const card = { ...emptyCard(32, 32), blending: 'linear' as const, background: solid('#000000') }
  const boxed = withBox(
    card,
    { width: 64, height: 64 },
    { face: [coat('fill', 'f', { paint: solid('#FFFFFF'), opacity: 50 })] },
  )
  const [r, , , a] = pixelAt(new Engine().render(boxed, 0, { bits: 16 }), 16, 16)
  expect(r).toBeCloseTo(toDisplay(0.5), 4)
  expect(a).toBe(1)
})
