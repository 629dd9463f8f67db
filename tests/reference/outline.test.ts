import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { Kernels } from '#core/kernels/kernels'
import { SEGMENT_GRID } from '#core/kernels/memory'
import { boxPath } from '#core/outline/box'
import type { Ring } from '#core/outline/contour'
import { flatten, polygon } from '#core/outline/contour'
import { outlineOf, placed } from '#core/outline/outline'
import { unite } from '#core/outline/unite'

const kernels = new Kernels()
const [W, H] = [96, 80]

function planes(rings: Ring[], reach: number): { coverage: Float32Array; distance: Float32Array } {
  const mark = kernels.mark()
  const segments = kernels.segments(outlineOf('test', rings, 1).segments, 0, 0)
  const coverage = kernels.floats(kernels.coverage(segments, W, H)).slice()
  const distance = kernels.floats(kernels.distance(segments, W, H, reach)).slice()
  kernels.release(mark)
  return { coverage, distance }
}

/** Segments are snapped to this grid: polygons on it are measured as they are. */
const onGrid = (v: number) => Math.round(v * SEGMENT_GRID) / SEGMENT_GRID

/** A simple polygon: random radii around a middle. */
const star = fc
  .record({
    x: fc.double({ min: 30, max: 60, noNaN: true }),
    y: fc.double({ min: 30, max: 50, noNaN: true }),
    radii: fc.array(fc.double({ min: 4, max: 26, noNaN: true }), { minLength: 3, maxLength: 14 }),
  })
  .map(({ x, y, radii }): Ring =>
    polygon(
      radii.flatMap((r, i) => {
        const angle = (i / radii.length) * 2 * Math.PI
        return [onGrid(x + r * Math.cos(angle)), onGrid(y + r * Math.sin(angle))]
      }),
    ),
  )

const edges = ({ points }: Ring) =>
  Array.from({ length: points.length / 2 }, (_, i) => {
    const j = ((i + 1) * 2) % points.length
    return [points[i * 2]!, points[i * 2 + 1]!, points[j]!, points[j + 1]!] as const
  })

/** Signed area by the shoelace formula. */
const area = (ring: Ring) => edges(ring).reduce((sum, [x0, y0, x1, y1]) => sum + (x0 * y1 - x1 * y0) / 2, 0)

function holds(ring: Ring, x: number, y: number): boolean {
  let inside = false
  for (const [x0, y0, x1, y1] of edges(ring)) {
    if (y0 > y !== y1 > y && x < ((x1 - x0) * (y - y0)) / (y1 - y0) + x0) inside = !inside
  }
  return inside
}

/** The part of a polygon that lies in a pixel: cut by its four sides in turn (I. Sutherland, G. Hodgman 1974). */
function inPixel(points: number[][], column: number, row: number): number[] {
  const sides: [number, number, number][] = [
    [0, 1, column],
    [0, -1, -(column + 1)],
    [1, 1, row],
    [1, -1, -(row + 1)],
  ]
  const cut = sides.reduce((left, [axis, way, limit]) => {
    const beyond = (point: number[]) => way * point[axis]! - limit
    return left.flatMap((point, i) => {
      const before = left.at(i - 1)!
      const [a, b] = [beyond(before), beyond(point)]
      const crossing = a < 0 !== b < 0 ? [before.map((v, k) => v + ((point[k]! - v) * a) / (a - b))] : []
      return b < 0 ? crossing : [...crossing, point]
    })
  }, points)
  return cut.flat()
}

describe('coverage', () => {
  test('adds up to the area of the polygon (shoelace formula)', () => {
    fc.assert(
      fc.property(star, (ring) => {
        const sum = planes([ring], 1).coverage.reduce((a, b) => a + b, 0)
        expect(Math.abs(sum - Math.abs(area(ring)))).toBeLessThan(0.02)
      }),
      { numRuns: 100 },
    )
  })

  test('of every pixel is the share of 24 × 24 sample points within', () => {
    fc.assert(
      fc.property(star, (ring) => {
        const { coverage } = planes([ring], 1)
        let worst = 0
        for (let y = 0; y < H; y += 5) {
          for (let x = 0; x < W; x += 4) {
            let hits = 0
            for (let i = 0; i < 576; i++)
              if (holds(ring, x + ((i % 24) + 0.5) / 24, y + (Math.floor(i / 24) + 0.5) / 24)) hits++
            worst = Math.max(worst, Math.abs(coverage[y * W + x]! - hits / 576))
          }
        }
        // 24 × 24 samples miss the area along an edge by up to about one row of 24.
        expect(worst).toBeLessThan(0.05)
      }),
      { numRuns: 10 },
    )
  })

  test('of a hairline is exact in every pixel that it crosses, at any slope: what lies in each, cut out by hand', () => {
    const hairline = fc.record({
      x: fc.double({ min: 8, max: 40, noNaN: true }),
      y: fc.double({ min: 8, max: 60, noNaN: true }),
      along: fc.double({ min: 5, max: 50, noNaN: true }),
      turn: fc.oneof(
        fc.double({ min: -3.2, max: 3.2, noNaN: true }),
        fc.double({ min: -0.05, max: 0.05, noNaN: true }),
      ),
      thick: fc.double({ min: 0.02, max: 0.6, noNaN: true }),
    })
    fc.assert(
      fc.property(hairline, ({ x, y, along, turn, thick }) => {
        const [c, s] = [Math.cos(turn), Math.sin(turn)]
        const corners = [0, 0, along, 0, along, thick, 0, thick]
        const points = Array.from({ length: 4 }, (_, i) => {
          const [u, v] = [corners[i * 2]!, corners[i * 2 + 1]!]
          return [onGrid(x + u * c - v * s), onGrid(y + u * s + v * c)]
        })
        const { coverage } = planes([polygon(points.flat())], 1)
        for (let row = 0; row < H; row++) {
          for (let column = 0; column < W; column++) {
            const off = Math.abs(coverage[row * W + column]! - Math.abs(area(polygon(inPixel(points, column, row)))))
            if (off > 2e-5) expect([column, row, off]).toEqual([column, row, 0])
          }
        }
      }),
      { numRuns: 60 },
    )
  })

  test('a shape cut by the left side keeps its full share; beyond the right side nothing is left', () => {
    const ring = polygon([-40, 10, 20.5, 10, 20.5, 30.25, -40, 30.25])
    const { coverage } = planes([ring], 1)
    expect(coverage[20 * W]).toBe(1)
    expect(coverage[20 * W + 20]).toBeCloseTo(0.5, 5)
    expect(coverage[30 * W + 5]).toBeCloseTo(0.25, 5)
    expect(coverage[20 * W + 21]).toBe(0)
    const right = polygon([80.5, 10, 300, 10, 300, 30, 80.5, 30])
    const cut = planes([right], 1).coverage
    expect(cut[20 * W + 80]).toBeCloseTo(0.5, 5)
    expect(cut[20 * W + W - 1]).toBe(1)
    expect(cut[21 * W]).toBe(0)
  })
})

test('distance is the nearest point of any edge, by brute force, negative inside; beyond its reach never less', () => {
  const moved = fc.record({ x: fc.integer({ min: -70, max: 70 }), y: fc.integer({ min: -60, max: 60 }) })
  fc.assert(
    fc.property(star, moved, fc.constantFrom(3, 11.5, 200), (still, by, reach) => {
      const ring = { ...still, points: still.points.map((v, i) => v + (i % 2 ? by.y : by.x)) }
      const { distance } = planes([ring], reach)
      for (let i = 0; i < W * H; i += 37) {
        const [px, py] = [(i % W) + 0.5, Math.floor(i / W) + 0.5]
        const nearest = Math.min(
          ...edges(ring).map(([x0, y0, x1, y1]) => {
            const [dx, dy] = [x1 - x0, y1 - y0]
            const t = Math.min(1, Math.max(0, ((px - x0) * dx + (py - y0) * dy) / (dx * dx + dy * dy || 1)))
            return Math.hypot(px - x0 - t * dx, py - y0 - t * dy)
          }),
        )
        const far = Math.abs(distance[i]!) - nearest
        if (nearest < reach) expect(Math.abs(far)).toBeLessThan(2e-3)
        else expect(far).toBeGreaterThan(-2e-3)
        if (nearest > 0.01) expect(distance[i]! < 0).toBe(holds(ring, px, py))
      }
    }),
    { numRuns: 200 },
  )
})

test('a short reach gives the same distances within it', () => {
  const ring = polygon([20, 20, 70, 25, 60, 60, 25, 55])
  const far = planes([ring], 200).distance
  const near = planes([ring], 6).distance
  for (let i = 0; i < far.length; i++) if (Math.abs(far[i]!) < 6) expect(near[i]).toBe(far[i])
})

describe('overlapping rings', () => {
  const square = (x: number, y: number, s: number) => polygon([x, y, x + s, y, x + s, y + s, x, y + s])

  test('are united: the area is that of the union, and no edge is left inside', () => {
    const united = unite([square(10, 10, 30), square(25, 20, 30)], 1024)
    expect(Math.abs(united.reduce((sum, ring) => sum + area(ring), 0))).toBeCloseTo(900 + 900 - 15 * 20, 3)
    // In the middle of the overlap the next true edge is farther off than the ones that were united away.
    expect(planes(united, 50).distance[30 * W + 32]!).toBeLessThan(-9)
  })

  test('a hole that runs the other way stays a hole', () => {
    const hole = polygon([20, 20, 20, 30, 30, 30, 30, 20])
    const united = unite([square(10, 10, 30), hole], 1024)
    expect(planes(united, 5).coverage[25 * W + 25]).toBe(0)
  })
})

test('a round corner is a circle to 0.03 % of its radius', () => {
  const [ring] = flatten(boxPath(200, 200, [100, 100, 100, 100]), 0.001)
  const { points } = ring!
  for (let i = 0; i < points.length; i += 2)
    expect(Math.abs(Math.hypot(points[i]!, points[i + 1]!) - 100)).toBeLessThan(0.03)
})

test('a quarter turn leaves no rounding: the outline lies where it should to the last bit', () => {
  const outline = outlineOf('box', [polygon([-10, -5, 10, -5, 10, 5, -10, 5])], 10)
  const { bounds } = placed(outline, { scale: 2, rotation: 90, x: 50, y: 40 })
  expect(bounds).toEqual({ left: 40, top: 20, right: 60, bottom: 60 })
})
