import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { CURVE_SHAPES, curveSchema, pointsOf, readCurve } from '#core/curves/curve'

const unit = fc.double({ min: 0, max: 1, noNaN: true })

describe.each(CURVE_SHAPES.map((shape) => [shape.name, shape] as const))('the shape %s', (name, { curve }) => {
  test('stays within 0..1, starts at 0 and ends at 1, or at 0 for a bead', () => {
    for (let i = 0; i <= 1000; i++) {
      const y = curve(i / 1000)
      expect(y).toBeGreaterThanOrEqual(0)
      expect(y).toBeLessThanOrEqual(1)
    }
    expect(curve(0)).toBeCloseTo(0, 6)
    expect(curve(1)).toBeCloseTo(name === 'bead' ? 0 : 1, 6)
  })

  test('can be drawn on as points that the file takes', () => {
    expect(curveSchema.safeParse({ points: pointsOf(name) }).success).toBe(true)
  })
})

test('quarter rounds are circles: x² + y² = 1 from their centres', () => {
  for (const x of [0.1, 0.37, 0.8]) {
    expect((1 - x) ** 2 + readCurve('ovolo')(x) ** 2).toBeCloseTo(1, 9)
    expect(x ** 2 + (1 - readCurve('cavetto')(x)) ** 2).toBeCloseTo(1, 9)
  }
})

describe('a curve through points', () => {
  const curves = fc
    .array(fc.tuple(unit, unit, fc.constantFrom('smooth', 'corner')), { minLength: 2, maxLength: 8 })
    .map((points) =>
      points
        .map(([x, y, joint]) => ({ x: Math.round(x * 1000) / 1000, y, joint: joint as 'smooth' }))
        .sort((a, b) => a.x - b.x)
        .filter(({ x }, i, all) => i === 0 || x > all[i - 1]!.x + 0.002),
    )
    .filter((points) => points.length >= 2)

  test('goes through them, and monotone never leaves the range of its neighbours (Fritsch and Carlson 1980)', () => {
    fc.assert(
      fc.property(curves, unit, (points, t) => {
        const curve = readCurve({ points })
        for (const { x, y } of points) expect(curve(x)).toBeCloseTo(y, 6)
        for (let i = 1; i < points.length; i++) {
          const [p, q] = [points[i - 1]!, points[i]!]
          const y = curve(p.x + (q.x - p.x) * t)
          expect(y).toBeGreaterThanOrEqual(Math.min(p.y, q.y) - 1e-9)
          expect(y).toBeLessThanOrEqual(Math.max(p.y, q.y) + 1e-9)
        }
      }),
    )
  })

  test('points out of order, out of range or alone are refused', () => {
    const bad = [
      [{ x: 0.5, y: 0 }],
      [
        { x: 0.5, y: 0 },
        { x: 0.5, y: 1 },
      ],
      [
        { x: 0, y: 0 },
        { x: 1, y: 1.2 },
      ],
    ]
    for (const points of bad) expect(curveSchema.safeParse({ points }).success).toBe(false)
  })
})
