import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { blurReach, BOX_GRID } from '#core/kernels/gauss'
import { Kernels } from '#core/kernels/kernels'
import { erf } from '../support/erf'

const kernels = new Kernels()

/** Abramowitz & Stegun, Handbook of Mathematical Functions, table 7.1. */
const ERF: [number, number][] = [
  [0, 0],
  [0.1, 0.112462916],
  [0.25, 0.2763263902],
  [0.5, 0.5204998778],
  [0.75, 0.7111556337],
  [1, 0.8427007929],
  [1.25, 0.9229001283],
  [1.5, 0.9661051465],
  [2, 0.995322265],
]

function blurredStep(sigma: number): (distance: number) => number {
  const half = Math.ceil(blurReach(sigma) / 64 + 1) * 64
  const w = half * 2
  const mark = kernels.mark()
  // As tall as wide: the edge must look endless from its middle.
  const plane = kernels.plane(w, w, 0)
  const values = kernels.floats(plane)
  for (let y = 0; y < w; y++) values.fill(1, y * w, y * w + half)
  const out = kernels.floats(kernels.blurred(plane, sigma)).slice()
  kernels.release(mark)
  // Pixel centres lie at ±0.5 px from the edge.
  return (distance) => out[half * w + half + Math.floor(distance)]!
}

test('the series stands for the table', () => {
  for (const [x, value] of ERF) expect(erf(x)).toBeCloseTo(value, 8)
})

describe.each([1.5, 3, 5, 8, 20, 40, 80])('a straight edge blurred with sigma %d', (sigma) => {
  test('is the error function to 0.2 of 255', () => {
    const step = blurredStep(sigma)
    let worst = 0
    for (let d = -3 * sigma; d < 3 * sigma; d++) {
      const centre = Math.floor(d) + 0.5
      // Samples one pixel apart stand for bins of a continuous spread whose variance is 1/12 px² less
      // (Sheppard's correction for grouping).
      const spread = Math.sqrt(2 * (sigma * sigma - 1 / 12))
      worst = Math.max(worst, Math.abs(step(centre) - 0.5 * (1 - erf(centre / spread))))
    }
    expect(worst * 255).toBeLessThan(0.2)
  })
})

/** The plain definition: a sampled Gaussian of f64 over the whole plane, along rows and columns. */
function direct(values: Float32Array, w: number, h: number, sigma: number): Float64Array {
  const radius = Math.ceil(sigma * 6)
  const taps = Array.from({ length: 2 * radius + 1 }, (_, i) => Math.exp(-((i - radius) ** 2) / (2 * sigma * sigma)))
  const sum = taps.reduce((a, b) => a + b)
  const pass = (from: ArrayLike<number>, step: number, length: number, lines: number, stride: number) => {
    const out = new Float64Array(w * h)
    for (let line = 0; line < lines; line++) {
      for (let i = 0; i < length; i++) {
        let total = 0
        for (let k = -radius; k <= radius; k++) {
          if (i + k >= 0 && i + k < length) total += taps[k + radius]! * from[line * stride + (i + k) * step]!
        }
        out[line * stride + i * step] = total / sum
      }
    }
    return out
  }
  return pass(pass(values, 1, w, h, w), w, h, w, 1)
}

test.each([0.02, 0.1, 0.25, 0.4, 0.7, 0.95])('a blur narrower than a pixel, sigma %d: has its variance', (sigma) => {
  // A sampled Gaussian falls between the pixels here; what a blur adds to every edge is its variance.
  const mark = kernels.mark()
  const plane = kernels.plane(64, 16, 0)
  kernels.floats(plane)[8 * 64 + 32] = 1
  const out = kernels.floats(kernels.blurred(plane, sigma)).slice()
  kernels.release(mark)
  let [sum, variance] = [0, 0]
  out.forEach((value, i) => {
    sum += value
    variance += value * ((i % 64) - 32) ** 2
  })
  expect(sum).toBeCloseTo(1, 6)
  expect(variance / sigma ** 2).toBeCloseTo(1, 3)
})

test.each([1, 2, 4, 7, 12])('a random picture, sigma %d: the direct sum to 0.2 of 255', (sigma) => {
  const [w, h] = [192, 160]
  const mark = kernels.mark()
  const plane = kernels.plane(w, h, 0)
  const values = kernels.floats(plane)
  const [noise] = fc.sample(fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 64, maxLength: 64 }), {
    numRuns: 1,
    seed: 7,
  })
  // Blocks of 8 × 8: corners, thin parts and flat parts in one.
  for (let y = 40; y < 104; y++)
    for (let x = 60; x < 124; x++) values[y * w + x] = noise![((y - 40) >> 3) * 8 + ((x - 60) >> 3)]!
  const expected = direct(values, w, h, sigma)
  const out = kernels.floats(kernels.blurred(plane, sigma))
  let worst = 0
  for (let i = 0; i < out.length; i++) worst = Math.max(worst, Math.abs(out[i]! - expected[i]!))
  kernels.release(mark)
  expect(worst * 255).toBeLessThan(0.2)
})

test('a box cut on the grid blurs to the same bits as the whole plane', () => {
  const [w, h] = [768, 640]
  const sigma = 20
  const mark = kernels.mark()
  const whole = kernels.plane(w, h, 0)
  const at = { x: 256 + 20, y: 192 + 9, w: 120, h: 90 }
  const paint = (values: Float32Array, stride: number, dx: number, dy: number) => {
    for (let y = at.y; y < at.y + at.h; y++)
      for (let x = at.x; x < at.x + at.w; x++) values[(y - dy) * stride + x - dx] = ((x * 31 + y * 17) % 97) / 97
  }
  paint(kernels.floats(whole), w, 0, 0)
  const large = kernels.floats(kernels.blurred(whole, sigma)).slice()
  const reach = blurReach(sigma)
  const left = Math.floor((at.x - reach) / BOX_GRID) * BOX_GRID
  const top = Math.floor((at.y - reach) / BOX_GRID) * BOX_GRID
  const box = kernels.plane((at.x + at.w + reach - left + 15) & ~15, at.y + at.h + reach - top, 0)
  paint(kernels.floats(box), box.w, left, top)
  const small = kernels.floats(kernels.blurred(box, sigma))
  let differing = 0
  for (let y = 0; y < box.h; y++)
    for (let x = 0; x < box.w; x++) if (small[y * box.w + x] !== large[(y + top) * w + x + left]) differing++
  kernels.release(mark)
  expect(differing).toBe(0)
})
