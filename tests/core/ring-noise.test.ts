import { describe, expect, test } from '@jest/globals'
import { hashed, ringNoise } from '#core/values/ring-noise'

const around = (count: number) => Array.from({ length: count }, (_, i) => i / count)

describe.each([2, 3, 7, 40])('noise with %p points round the ring', (points) => {
  const { smooth, jumps } = ringNoise(points, 11)

  test('has no seam, in value, slope or curvature, at any of its points', () => {
    const h = 1e-3 / points
    for (let i = 0; i < points; i++) {
      const at = (k: number) => smooth(i / points + k * h)
      const curvature = (from: number) => (at(from) - 2 * at(from + 1) + at(from + 2)) / (h * points) ** 2
      expect(at(-1) - at(0)).toBeCloseTo(at(0) - at(1), 4)
      expect(curvature(-2)).toBeCloseTo(curvature(0), 1)
    }
    expect([smooth(0), smooth(-0.3), smooth(5.2)].map((v, i) => v - smooth([1, 0.7, 0.2][i]!))).toEqual([
      expect.closeTo(0, 12),
      expect.closeTo(0, 12),
      expect.closeTo(0, 12),
    ])
  })

  test('is held from point to point, at any turn', () => {
    for (let i = 0; i < points; i++) {
      const level = jumps(i / points)
      for (const t of [0.2, 0.5, 0.99]) expect(jumps((i + t) / points)).toBe(level)
      expect([jumps(i / points + 3), jumps(i / points - 1)]).toEqual([level, level])
    }
  })
})

test('another seed is other noise, the same seed the same', () => {
  const [one, other] = [ringNoise(20, 1), ringNoise(20, 2)]
  expect(around(20).map(one.jumps)).toEqual(around(20).map(ringNoise(20, 1).jumps))
  expect(around(20).map(one.jumps)).not.toEqual(around(20).map(other.jumps))
  // So many points that nobody tells them apart are cut to as many as can be kept.
  expect(ringNoise(600_000, 1).points).toBe(500_000)
})

test('chance is even: a thousand in each tenth of ten thousand, whatever the seed', () => {
  for (const seed of [0, 1, 77]) {
    const tenths = new Array<number>(10).fill(0)
    for (let i = 0; i < 10_000; i++) {
      const chance = hashed(i, seed)
      expect(chance >= 0 && chance < 1).toBe(true)
      tenths[Math.floor(chance * 10)]!++
    }
    // Six standard deviations of a binomial count: √(10,000 · 0.1 · 0.9) = 30.
    for (const count of tenths) expect(Math.abs(count - 1000)).toBeLessThan(180)
  }
})
