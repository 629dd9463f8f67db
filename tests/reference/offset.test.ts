import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { Kernels } from '#core/kernels/kernels'
import { SEGMENT_GRID } from '#core/kernels/memory'
import { flatten, flattenStretches, polygon } from '#core/outline/contour'
import type { PathCommand, Ring } from '#core/outline/contour'
import type { Join } from '#core/outline/corners'
import { cornersOf } from '#core/outline/corners'
import { ellipsePath } from '#core/outline/ellipse'
import { boxPath } from '#core/outline/box'
import { outlineOf, placed } from '#core/outline/outline'
import { strokeRings } from '#core/outline/stroked'
import { sweep } from '#core/outline/sweep'
import { unite, uniteShapes } from '#core/outline/unite'
import { cubicLine, toLine } from '../support/brute'

// Offset edges, stroked lines and swept bodies against closed formulas.

const kernels = new Kernels()
const [W, H] = [256, 224]
const onGrid = (v: number) => Math.round(v * SEGMENT_GRID) / SEGMENT_GRID

/** Area in px² of an outline moved outward by `edge`. */
function grownArea(rings: readonly Ring[], edge: number, join: Join = 'round', limit = 100): number {
  const outline = outlineOf('t', rings, 1)
  const { segments } = placed(outline, { scale: 1, rotation: 0, x: 0, y: 0 })
  const mark = kernels.mark()
  const local = kernels.segments(segments, 0, 0)
  const reach = Math.abs(edge) + 3
  const corners = cornersOf(outline, segments, { join, limit }, reach)
  let plane
  if (corners.length > 0) {
    const joins = kernels.joins(corners, local.count, 0, 0)
    plane = kernels.grown(kernels.joinedField(local, joins, W, H, reach), local, edge, joins)
  } else plane = kernels.grown(kernels.distanceField(local, W, H, reach), local, edge)
  const sum = kernels.floats(plane).reduce((a, b) => a + b, 0)
  kernels.release(mark)
  return sum
}

/** A convex polygon: points on an ellipse in the order of their angle. */
const convex = fc
  .array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 3, maxLength: 9 })
  .map((shares) => [...new Set(shares.map((share) => Math.round(share * 23)))].sort((a, b) => a - b))
  .filter((angles) => angles.length >= 3 && angles[angles.length - 1]! - angles[0]! > 12)
  .map((angles) =>
    polygon(
      angles.flatMap((angle) => {
        const a = (angle / 24) * 2 * Math.PI
        return [onGrid(128 + 62 * Math.cos(a)), onGrid(112 + 48 * Math.sin(a))]
      }),
    ),
  )

function measure({ points }: Ring) {
  const n = points.length / 2
  const at = (i: number) => [points[(i % n) * 2]!, points[(i % n) * 2 + 1]!] as const
  let [area, perimeter] = [0, 0]
  const turns: number[] = []
  for (let i = 0; i < n; i++) {
    const [[ax, ay], [bx, by], [cx, cy]] = [at(i), at(i + 1), at(i + 2)]
    area += (ax * by - bx * ay) / 2
    perimeter += Math.hypot(bx - ax, by - ay)
    const turn = Math.atan2(by - ay, bx - ax) - Math.atan2(cy - by, cx - bx)
    turns.push(Math.abs(((turn + 3 * Math.PI) % (2 * Math.PI)) - Math.PI))
  }
  return { area: Math.abs(area), perimeter, turns }
}

/** Points spread evenly enough that no mitre is long. */
const blunt = fc.array(fc.double({ min: 0, max: 0.6, noNaN: true }), { minLength: 5, maxLength: 9 }).map((shifts) =>
  polygon(
    shifts.flatMap((shift, i) => {
      const a = ((i + shift) / shifts.length) * 2 * Math.PI
      return [onGrid(128 + 62 * Math.cos(a)), onGrid(112 + 48 * Math.sin(a))]
    }),
  ),
)

describe('a convex polygon moved outward by w', () => {
  test('has the area A + P·w + π·w² with round joins (J. Steiner 1840)', () => {
    fc.assert(
      fc.property(convex, fc.constantFrom(1.5, 4, 11.25), (ring, w) => {
        const { area, perimeter } = measure(ring)
        const expected = area + perimeter * w + Math.PI * w * w
        expect(Math.abs(grownArea([ring], w) - expected)).toBeLessThan(expected * 0.002 + 0.5)
      }),
      { numRuns: 40 },
    )
  })

  test('has A + P·w + w²·Σ tan(turn / 2) with mitres, as long as none is cut', () => {
    fc.assert(
      fc.property(blunt, fc.constantFrom(2, 5), (ring, w) => {
        const { area, perimeter, turns } = measure(ring)
        const expected = area + perimeter * w + turns.reduce((sum, turn) => sum + w * w * Math.tan(turn / 2), 0)
        expect(Math.abs(grownArea([ring], w, 'mitre') - expected)).toBeLessThan(expected * 0.003 + 1)
      }),
      { numRuns: 40 },
    )
  })

  test('has A + P·w + w²·Σ sin(turn) / 2 with bevels', () => {
    fc.assert(
      fc.property(convex, fc.constantFrom(2, 5, 9), (ring, w) => {
        const { area, perimeter, turns } = measure(ring)
        const expected = area + perimeter * w + turns.reduce((sum, turn) => sum + (w * w * Math.sin(turn)) / 2, 0)
        expect(Math.abs(grownArea([ring], w, 'bevel') - expected)).toBeLessThan(expected * 0.003 + 1)
      }),
      { numRuns: 40 },
    )
  })

  test('a mitre beyond its limit is the bevel of that corner, and only of that one', () => {
    // A right triangle with one sharp corner: 1 / sin(θ/2) is 1.41, 1.85 and 3.86.
    const ring = polygon([60, 60, 160, 60, 60, 110])
    const turns = measure(ring).turns
    const { area, perimeter } = measure(ring)
    const mitred = (limit: number) =>
      turns.reduce((sum, turn) => {
        const sharp = 1 / Math.cos(turn / 2) > limit
        return sum + (sharp ? Math.sin(turn) / 2 : Math.tan(turn / 2))
      }, 0)
    for (const limit of [1.2, 1.6, 3, 6]) {
      const expected = area + perimeter * 6 + 36 * mitred(limit)
      expect(Math.abs(grownArea([ring], 6, 'mitre', limit) - expected)).toBeLessThan(2)
    }
  })

  test('moved inward loses P·w and gains w²·Σ tan(turn / 2), whatever the join', () => {
    const ring = polygon([40, 40, 200, 40, 200, 160, 40, 160])
    for (const join of ['round', 'mitre', 'bevel'] as const) {
      expect(grownArea([ring], -7, join)).toBeCloseTo((160 - 14) * (120 - 14), -1)
    }
  })
})

test('a circle moved by w is a circle of radius r + w', () => {
  const moved = flatten(ellipsePath(100, 100), 0.005).map(({ points, smooth }) => ({
    points: points.map((v, i) => v + (i % 2 ? 112 : 128)),
    smooth,
  }))
  for (const w of [-20, -3.5, 2, 12]) {
    const expected = Math.PI * (50 + w) ** 2
    expect(Math.abs(grownArea(moved, w) / expected - 1)).toBeLessThan(0.001)
  }
})

describe('flattening keeps corners apart from curves', () => {
  const cornersIn = (rings: readonly Ring[]) => rings.map(({ smooth }) => smooth.filter((flag) => !flag).length)

  test('a box has four, a rounded box and an ellipse none', () => {
    expect(cornersIn(flatten(boxPath(100, 60, [0, 0, 0, 0]), 0.01))).toEqual([4])
    expect(cornersIn(flatten(boxPath(100, 60, [20, 20, 20, 20]), 0.01))).toEqual([0])
    expect(cornersIn(flatten(ellipsePath(100, 60), 0.01))).toEqual([0])
  })

  test('uniting two circles makes two where they cross', () => {
    const circle = (x: number) =>
      flatten(ellipsePath(60, 60), 0.01).map(({ points, smooth }) => ({
        points: points.map((v, i) => (i % 2 ? v : v + x)),
        smooth,
      }))
    expect(cornersIn(unite([...circle(0), ...circle(40)], 4096))).toEqual([2])
  })

  test('letters that do not touch are left as they are, those that do are united', () => {
    const square = (x: number) => [polygon([x, 0, x + 10, 0, x + 10, 10, x, 10])]
    expect(uniteShapes([square(0), square(20)], 1024)).toHaveLength(2)
    expect(uniteShapes([square(0), square(5), square(30)], 1024)).toHaveLength(2)
    // Bounds that meet without a touch: a corner piece around a small square.
    const hook = [polygon([0, 0, 30, 0, 30, 4, 4, 4, 4, 30, 0, 30])]
    const inner = [polygon([12, 12, 20, 12, 20, 20, 12, 20])]
    const apart = uniteShapes([hook, inner], 1024)
    expect(apart).toHaveLength(2)
    expect(apart).toEqual(expect.arrayContaining([...hook, ...inner]))
    // One within the other is swallowed.
    expect(uniteShapes([square(0), [polygon([2, 2, 5, 2, 5, 5, 2, 5])]], 1024)).toHaveLength(1)
  })
})

describe('a line along a path', () => {
  const area = (rings: readonly Ring[]) =>
    Math.abs(
      rings.reduce((sum, { points }) => {
        for (let i = 0; i < points.length; i += 2) {
          const j = (i + 2) % points.length
          sum += (points[i]! * points[j + 1]! - points[j]! * points[i + 1]!) / 2
        }
        return sum
      }, 0),
    )
  const style = { thickness: 10, cap: 'butt', join: 'round', limit: 4 } as const
  const lineArea = (path: Parameters<typeof flattenStretches>[0], own: object = {}) =>
    area(
      unite(
        flattenStretches(path, 0.01).flatMap((s) => strokeRings(s, { ...style, ...own }, 0.01)),
        4096,
      ),
    )
  const bent = [
    { type: 'M', x: 0, y: 0 },
    { type: 'L', x: 80, y: 0 },
    { type: 'L', x: 80, y: 60 },
  ] as const

  test('has the area of its joints and caps', () => {
    const plain = 80 * 10 + 60 * 10 - 25
    expect(lineArea(bent, { join: 'mitre' })).toBeCloseTo(plain + 25, 1)
    expect(lineArea(bent, { join: 'bevel' })).toBeCloseTo(plain + 12.5, 1)
    expect(lineArea(bent, { join: 'round' })).toBeCloseTo(plain + (Math.PI * 25) / 4, 0)
    expect(lineArea(bent, { join: 'mitre', cap: 'square' })).toBeCloseTo(plain + 25 + 100, 1)
    expect(lineArea(bent, { join: 'mitre', cap: 'round' })).toBeCloseTo(plain + 25 + Math.PI * 25, 0)
  })

  test('around a circle is a ring', () => {
    expect(lineArea(ellipsePath(100, 100))).toBeCloseTo(Math.PI * (55 ** 2 - 45 ** 2), -1)
  })

  test('back on itself, and with points that repeat, stays whole', () => {
    const turn = [...bent.slice(0, 2), { type: 'L', x: 20, y: 0 }] as Parameters<typeof flattenStretches>[0]
    expect(lineArea(turn)).toBeCloseTo(800 + (Math.PI * 25) / 2, 0)
    const repeated = [bent[0], bent[1], bent[1], bent[2]]
    expect(lineArea(repeated, { join: 'mitre' })).toBeCloseTo(lineArea(bent, { join: 'mitre' }), 6)
  })
})

describe('a swept body', () => {
  const outline = outlineOf('b', [polygon([60, 60, 160, 60, 160, 120, 60, 120])], 60)
  const swept = (dx: number, dy: number, taper = 1) => {
    const body = sweep(outline, outline.segments, { dx, dy, taper, middle: { x: 110, y: 90 } }, [0.5, -0.5])
    const mark = kernels.mark()
    const plane = kernels.coverage(kernels.segments(body.silhouette, 0, 0), W, H)
    const sum = kernels.floats(plane).reduce((a, b) => a + b, 0)
    kernels.release(mark)
    return { body, sum }
  }

  test('of a box covers the box and what its two seen sides sweep', () => {
    // Each side sweeps the parallelogram of its length and the way across it.
    expect(swept(30, 20).sum).toBeCloseTo(100 * 60 + 100 * 20 + 60 * 30, 0)
    expect(swept(-15, 0).sum).toBeCloseTo(100 * 60 + 60 * 15, 0)
  })

  test('shows only sides that face the way it goes', () => {
    expect([...swept(30, 20).body.lights].map((light) => light >= 0)).toEqual([false, true, true, false])
    expect([...swept(-30, -20).body.lights].map((light) => light >= 0)).toEqual([true, false, false, true])
  })

  test('tapered to a point covers the box and the cone beyond it', () => {
    const { sum } = swept(0, 90, 0)
    // From the lower edge (y = 120) a triangle to the middle moved down by 90: (110, 180).
    expect(sum).toBeCloseTo(100 * 60 + (100 * 60) / 2, 0)
  })
})

describe('the outline of a curved line', () => {
  const spot = fc.tuple(fc.integer({ min: -80, max: 80 }), fc.integer({ min: -80, max: 80 }))
  const points = fc.tuple(spot, spot, spot, spot).filter(([a, , , d]) => a[0] !== d[0] || a[1] !== d[1])

  test('lies half the thickness from the curve everywhere, however sharply it bends', () => {
    fc.assert(
      fc.property(points, fc.double({ min: 1, max: 30, noNaN: true }), ([a, b, c, d], r) => {
        const path: PathCommand[] = [
          { type: 'M', x: a[0], y: a[1] },
          { type: 'C', x1: b[0], y1: b[1], x2: c[0], y2: c[1], x: d[0], y: d[1] },
        ]
        const style = { thickness: r * 2, cap: 'round', join: 'round', limit: 4 } as const
        const rings = unite(
          flattenStretches(path, 0.005).flatMap((s) => strokeRings(s, style, 0.005)),
          4096,
        )
        const away = toLine(cubicLine([a, b, c, d], 600))
        for (const { points: ring } of rings) {
          for (let i = 0; i < ring.length; i += 2) {
            const j = (i + 2) % ring.length
            const off = away((ring[i]! + ring[j]!) / 2, (ring[i + 1]! + ring[j + 1]!) / 2) - r
            // An edge inside the line would lie nearer. The reference's own pieces are up to 0.03 px off.
            if (Math.abs(off) > 0.05) return false
          }
        }
        return rings.length > 0
      }),
      { numRuns: 100 },
    )
  })
})
