import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { readPathData } from '#core/outline/svg-path'
import { flatten } from '#core/outline/contour'
import type { PathContour } from '#core/outline/path-points'
import {
  insertPoint,
  isSmooth,
  moveHandle,
  movePoint,
  nearestOn,
  pointsOf,
  removePoint,
  toggleSmooth,
  writePoints,
} from '#core/outline/path-points'
import { gradientBetween, gradientEnds } from '#core/paint/gradient'
import { placed } from '#core/outline/outline'

const read = (text: string) => pointsOf(readPathData(text, 'path'))

/** Shoelace over the flattened path: the same form has the same area. */
function areaOf(contours: readonly PathContour[]): number {
  return flatten(readPathData(writePoints(contours), 'path'), 0.001).reduce((sum, { points }) => {
    let area = 0
    for (let i = 0; i < points.length; i += 2) {
      const j = (i + 2) % points.length
      area += points[i]! * points[j + 1]! - points[j]! * points[i + 1]!
    }
    return sum + area / 2
  }, 0)
}

const coordinate = fc.integer({ min: -200, max: 200 })
const spot = fc.record({ x: coordinate, y: coordinate })
const pathPoint = fc.record({ x: coordinate, y: coordinate, before: fc.option(spot), after: fc.option(spot) })
const contour = fc.record({ closed: fc.boolean(), points: fc.array(pathPoint, { minLength: 2, maxLength: 7 }) })

describe('points of a path', () => {
  test('a path written from its points and read again is the same path', () => {
    fc.assert(
      fc.property(fc.array(contour, { minLength: 1, maxLength: 3 }), (contours) => {
        const text = writePoints(contours)
        expect(writePoints(read(text))).toBe(text)
      }),
    )
  })

  test('a curve that is straight stays a curve', () => {
    const text = 'M 0 0 C -5 5 -5 5 -5 5 L 0 0 C 1 0 2 0 3 0'
    expect(readPathData(text, 'path').map(({ type }) => type)).toEqual(['M', 'C', 'L', 'C'])
    expect(writePoints(read(text))).toBe(text)
  })

  test('a quadratic curve is the same curve as a cubic one', () => {
    // The area under a quadratic arc: 2/3 of base times height of its curve, here 2/3 · 100 · 50.
    expect(Math.abs(areaOf(read('M 0 0 Q 50 -100 100 0 Z')))).toBeCloseTo((2 / 3) * 100 * 50, 0)
  })

  test('a contour that comes home before it is closed has no double point', () => {
    expect(read('M 0 0 L 10 0 L 10 10 L 0 0 Z')[0]!.points).toHaveLength(3)
  })

  test('a new point changes nothing of the form', () => {
    fc.assert(
      fc.property(contour, fc.double({ min: 0.05, max: 0.95, noNaN: true }), (made, t) => {
        const contours = [{ ...made, closed: true }]
        const more = insertPoint(contours, { contour: 0, point: 0 }, t)
        expect(more[0]!.points).toHaveLength(made.points.length + 1)
        // Coordinates are written to hundredths, on a form up to 400 px across.
        expect(Math.abs(areaOf(more) - areaOf(contours))).toBeLessThan(12)
      }),
    )
  })

  test('a moved point takes its handles along; a smooth one keeps its handles on one line', () => {
    const start = read('M 0 0 C 10 0 40 -20 50 0 C 60 20 90 0 100 0')
    const moved = movePoint(start, { contour: 0, point: 1 }, { x: 55, y: 5 })[0]!.points[1]!
    expect(moved).toEqual({ x: 55, y: 5, before: { x: 45, y: -15 }, after: { x: 65, y: 25 } })
    const turned = moveHandle(start, { contour: 0, point: 1 }, 'after', { x: 80, y: 0 }, true)[0]!.points[1]!
    expect(isSmooth(turned)).toBe(true)
    expect(Math.hypot(turned.before!.x - 50, turned.before!.y)).toBeCloseTo(Math.hypot(10, 20), 9)
    expect(isSmooth(moveHandle(start, { contour: 0, point: 1 }, 'after', { x: 80, y: 0 }, false)[0]!.points[1]!)).toBe(
      false,
    )
  })

  test('corner and smooth are each other’s way back; an end has one handle', () => {
    const start = read('M 0 0 L 50 -40 L 100 0')
    const bent = toggleSmooth(start, { contour: 0, point: 1 })
    expect(isSmooth(bent[0]!.points[1]!)).toBe(true)
    expect(writePoints(toggleSmooth(bent, { contour: 0, point: 1 }))).toBe(writePoints(start))
    const end = toggleSmooth(start, { contour: 0, point: 0 })[0]!.points[0]!
    expect([end.before, end.after !== null]).toEqual([null, true])
  })

  test('points are taken away down to two; the nearest edge is found', () => {
    const square = read('M 0 0 L 100 0 L 100 100 L 0 100 Z')
    expect(removePoint(square, { contour: 0, point: 0 })[0]!.points).toHaveLength(3)
    expect(removePoint(read('M 0 0 L 10 0'), { contour: 0, point: 0 })).toEqual([])
    const found = nearestOn(square, { x: 104, y: 50 })!
    expect([found.at.point, found.t, Math.round(found.distance)]).toEqual([1, 0.5, 4])
  })
})

describe('the ends of a gradient on the stage', () => {
  const BOUNDS = { left: -120, top: -30, right: 200, bottom: 90 }

  test('0° runs from left to right, 90° upward, over the whole of the bounds', () => {
    const [left, right] = gradientEnds({ angle: 0, scale: 1, shift: 0 }, BOUNDS)
    expect([left, right].map(({ x, y }) => [Math.round(x), Math.round(y)])).toEqual([
      [-120, 30],
      [200, 30],
    ])
    const [low, high] = gradientEnds({ angle: 90, scale: 1, shift: 0 }, BOUNDS)
    expect([low.y, high.y].map(Math.round)).toEqual([90, -30])
  })

  test('dragged ends give the values back', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -179, max: 179 }),
        fc.double({ min: 0.1, max: 3, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (angle, scale, shift) => {
          const values = gradientBetween(...gradientEnds({ angle, scale, shift }, BOUNDS), BOUNDS)
          expect(values.scale).toBeCloseTo(scale, 6)
          expect(values.shift).toBeCloseTo(shift, 6)
          expect(Math.abs(values.angle - angle)).toBeLessThan(1e-4)
        },
      ),
    )
  })
})

test('placing keeps what is straight straight', () => {
  // Guards the helper that both the stage and the engine place points with.
  const outline = { segments: Float64Array.of(0, 0, 10, 0, 10, 0, 20, 0) }
  const { segments } = placed(outline as never, { scale: 2, rotation: 90, x: 5, y: 7 })
  expect([...segments].map((v) => Math.round(v))).toEqual([5, 7, 5, -13, 5, -13, 5, -33])
})
