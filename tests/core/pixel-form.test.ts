import { describe, expect, test } from '@jest/globals'
import type { Card } from '#core/card/schema'
import { Engine } from '#core/frame/engine'
import type { PixelForm } from '#core/kernels/pixel-form'
import { toLinear } from '#core/values/oklab'
import { softCard, fonts } from '../support/delivered'
import { coat, emptyCard, solid, withBox } from '../support/engine'

// How frames leave the engine: eight forms of integers and numbers, straight and premultiplied, for the display and linear.

const engine = new Engine()
for (const [id, bytes] of fonts) engine.fonts.add(id, bytes)

const card: Card = softCard()

function channels(form: Partial<PixelForm>, of: Card = card, frame = 2): { values: ArrayLike<number>; top: number } {
  const { pixels, bits } = engine.render(of, frame, form)
  if (bits === 8) return { values: pixels, top: 255 }
  if (bits === 16) return { values: new Uint16Array(pixels.buffer), top: 65_535 }
  if (bits === 'float') return { values: new Float32Array(pixels.buffer), top: 1 }
  return { values: Float64Array.from(new Uint16Array(pixels.buffer), halfToNumber), top: 1 }
}

/** IEEE 754-2008, binary16. */
function halfToNumber(bits: number): number {
  const exponent = (bits >> 10) & 31
  const fraction = bits & 1023
  return exponent === 0 ? fraction * 2 ** -24 : (1 + fraction / 1024) * 2 ** (exponent - 15)
}

/** The engine's own numbers: straight, for the display. */
const exact = channels({ bits: 'float' }).values

function compare(form: Partial<PixelForm>, expected: (r: number, alpha: number) => number, most: number) {
  const { values, top } = channels(form)
  let largest = 0
  for (let i = 0; i < values.length; i += 4) {
    const alpha = exact[i + 3]!
    for (let c = i; c < i + 3; c++) largest = Math.max(largest, Math.abs(values[c]! / top - expected(exact[c]!, alpha)))
    largest = Math.max(largest, Math.abs(values[i + 3]! / top - alpha))
  }
  expect(largest).toBeLessThanOrEqual(most)
}

describe('a form of frames', () => {
  test('of soft type has half-clear pixels to look at', () => {
    const alphas = Array.from(exact).filter((_, i) => i % 4 === 3)
    expect(alphas.filter((alpha) => alpha > 0 && alpha < 1).length).toBeGreaterThan(1000)
    expect(Math.max(...alphas)).toBe(1)
  })

  // Rounding and its dithering move a value by less than one step; 32-bit numbers add a four-hundredth of one of 16 bits.
  test.each([
    [8, 1 / 255],
    [16, 1.0025 / 65_535],
  ] as const)('of %d bits, premultiplied, is colour times alpha', (bits, step) => {
    compare({ bits, alpha: 'premultiplied' }, (colour, alpha) => colour * alpha, step)
    compare({ bits }, (colour) => colour, step)
  })

  test('a premultiplied colour is never more than its alpha, and an empty pixel is empty', () => {
    for (const bits of [8, 16, 'half', 'float'] as const) {
      const { values } = channels({ bits, alpha: 'premultiplied' })
      for (let i = 0; i < values.length; i += 4) {
        const alpha = values[i + 3]!
        if (values[i]! > alpha || values[i + 1]! > alpha || values[i + 2]! > alpha) throw new Error(`${bits} at ${i}`)
      }
    }
  })

  test('linear is IEC 61966-2-1 of the display’s colours, premultiplied after it', () => {
    compare({ bits: 'float', light: 'linear' }, (colour) => toLinear(colour), 1e-6)
    compare(
      { bits: 'float', light: 'linear', alpha: 'premultiplied' },
      (colour, alpha) => toLinear(colour) * alpha,
      1e-6,
    )
  })

  test('half is float rounded to 11 bits: by at most 2⁻¹¹ of the value', () => {
    const float = channels({ bits: 'float', light: 'linear', alpha: 'premultiplied' }).values
    const half = channels({ bits: 'half', light: 'linear', alpha: 'premultiplied' }).values
    for (let i = 0; i < float.length; i++) {
      const off = Math.abs(half[i]! - float[i]!)
      // Below 2⁻¹⁴ halves have a step of 2⁻²⁴.
      if (off > Math.max(float[i]! * 2 ** -11, 2 ** -25)) throw new Error(`${i}: ${half[i]} for ${float[i]}`)
    }
  })

  test('a card that blends in linear light gives its own numbers, and the same for the display', () => {
    const linear: Card = { ...card, blending: 'linear' }
    const own = channels({ bits: 'float', light: 'linear' }, linear).values
    const shown = channels({ bits: 'float' }, linear).values
    for (let i = 0; i < own.length; i++) {
      if (i % 4 === 3) continue
      if (Math.abs(toLinear(shown[i]!) - own[i]!) > 1e-5) throw new Error(`${i}: ${own[i]} against ${shown[i]}`)
    }
  })

  test('a known colour is known numbers', () => {
    const face = [coat('fill', 'f', { paint: solid('#80402080') })]
    const box = withBox(emptyCard(64, 64, 1), { x: 32, y: 32, width: 60, height: 60 }, { face })
    const at = (32 * 64 + 32) * 4
    const { values } = channels({ bits: 'float', alpha: 'premultiplied', light: 'linear' }, box, 0)
    // 128, 64 and 32 of 255 are 0.215861, 0.051269 and 0.014444 in linear light (IEC 61966-2-1); alpha is 128 of 255.
    const alpha = 128 / 255
    ;[0.2158605, 0.0512695, 0.0144438].forEach((light, c) => expect(values[at + c]).toBeCloseTo(light * alpha, 5))
    expect(values[at + 3]).toBeCloseTo(alpha, 6)
  })

  test('what was kept for one form is not given for another', () => {
    const one = engine.render(card, 2, { bits: 16 })
    const again = engine.render(card, 2, { bits: 16, alpha: 'premultiplied', reuse: one.pixels })
    const fresh = new Engine()
    for (const [id, bytes] of fonts) fresh.fonts.add(id, bytes)
    const plain = fresh.render(card, 2, { bits: 16, alpha: 'premultiplied' })
    expect(Buffer.compare(again.pixels, plain.pixels)).toBe(0)
  })
})
