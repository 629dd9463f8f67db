import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { filletedRings } from '#core/outline/fillet'
import { grownRings } from '#core/outline/grown'
import type { Ring } from '#core/outline/contour'
import { polygon } from '#core/outline/contour'
import type { Mould } from '#core/outline/mould'
import { isLine, ringsOf } from '#core/outline/mould'
import { spanOf } from '#core/outline/span'
import { lengthOf } from '#core/outline/strand'
import { combine, unite } from '#core/outline/unite'
import type { StepWork } from '#core/steps/definition'
import { planeNoise } from '#core/steps/plane-noise'
import { stepOf } from '#core/steps/table'
import { defaultsOf } from '#core/values/parameters'

// Outline steps beside closed forms.

const FINE = { tolerance: 0.002, grid: 65536 }

/** Twice the signed area of rings, halved: px². */
const areaOf = (rings: readonly Ring[]) =>
  Math.abs(
    rings.reduce((sum, { points }) => {
      let own = 0
      for (let i = 0, j = points.length - 2; i < points.length; j = i, i += 2)
        own += points[j]! * points[i + 1]! - points[i]! * points[j + 1]!
      return sum + own / 2
    }, 0),
  )

/** A regular polygon, clockwise on screen. */
const regular = (n: number, r: number) =>
  polygon(
    Array.from({ length: n }, (_, i) => [
      r * Math.sin((2 * Math.PI * i) / n),
      -r * Math.cos((2 * Math.PI * i) / n),
    ]).flat(),
  )
const circle = (r: number) => ({ ...regular(720, r), smooth: new Array<boolean>(720).fill(true) })

function run(kind: string, values: object, form: Ring[], work: Partial<StepWork> = {}): Mould {
  const rest = spanOf(form)!
  const { parameters, apply } = stepOf(kind)
  return apply({ ...defaultsOf(parameters), ...values } as never, [{ letter: 0, band: null, rest, form }], {
    ...FINE,
    px: (length) => (typeof length === 'number' ? length : length.value),
    ...{ whole: rest, letters: false, chance: 7, banded: false, pressure: [] },
    around: (part) => part.rest,
    rings: (part) => ringsOf(part.form, FINE),
    united: (rings) => unite(rings, FINE.grid),
    common: (a, b) => combine('intersect', a, b, FINE.grid),
    ...work,
  })
}
const outcome = (mould: Mould) => mould.flatMap(({ form }) => ringsOf(form, FINE))
const strandsIn = (mould: Mould) => mould.flatMap(({ form }) => (isLine(form) ? form.strands : []))

describe('grow: Steiner’s formula for convex shapes, A + P·d + π·d² (J. Steiner 1840)', () => {
  test.each([
    [3, 80, 12],
    [4, 50, 30],
    [9, 64, 5],
  ])('%i corners, radius %f, by %f', (n, r, d) => {
    const area = (n / 2) * r * r * Math.sin((2 * Math.PI) / n)
    const round = 2 * n * r * Math.sin(Math.PI / n)
    expect(areaOf(grownRings([regular(n, r)], d, 'round', FINE))).toBeCloseTo(area + round * d + Math.PI * d * d, 0)
    // With mitres every corner adds d²·tan(half its turn) twice.
    const mitre = n * d * d * Math.tan(Math.PI / n)
    expect(areaOf(grownRings([regular(n, r)], d, 'mitre', FINE))).toBeCloseTo(area + round * d + mitre, 1)
  })

  test('inward what it takes is the same shape smaller; farther than the inner depth nothing is left', () => {
    const r = 80
    const inner = r * Math.cos(Math.PI / 5)
    const smaller = areaOf(grownRings([regular(5, r)], -20, 'mitre', FINE))
    expect(smaller).toBeCloseTo(areaOf([regular(5, r)]) * ((inner - 20) / inner) ** 2, 1)
    expect(grownRings([regular(5, r)], -inner - 1, 'round', FINE)).toEqual([])
  })

  test('by a hundred times their size a thousand little rings become the one thing that their hull does, at once', () => {
    // In a square of 200 px, its corners among them: the hull is the square.
    const rings = Array.from({ length: 1024 }, (_, i) => {
      const [x, y] = [-100 + (i % 32) * 6.4, -100 + Math.floor(i / 32) * 6.4]
      return polygon([x, y, x + 1.6, y, x + 1.6, y + 1.6, x, y + 1.6])
    })
    const d = 20_000
    const grown = grownRings(rings, d, 'round', FINE)
    expect(grown).toHaveLength(1)
    const meant = 200 ** 2 + 4 * 200 * d + Math.PI * d * d
    // The outline of so large a thing is as rough as a hundredth of its thickness lets it be.
    expect(Math.abs(areaOf(grown) / meant - 1)).toBeLessThan(0.002)
    expect(grownRings(rings, -d, 'round', FINE)).toEqual([])
  })
})

describe('round: a corner of turn φ loses r²·(tan(φ/2) − φ/2)', () => {
  test.each([3, 4, 5, 8, 12])('%i corners', (n) => {
    const r = 6
    const turn = (2 * Math.PI) / n
    const lost = n * r * r * (Math.tan(turn / 2) - turn / 2)
    const rounded = filletedRings([regular(n, 70)], { outer: r, inner: 0 }, FINE.tolerance)
    expect(areaOf([regular(n, 70)]) - areaOf(rounded)).toBeCloseTo(lost, 1)
  })

  test('what has no room takes what there is: a square becomes a circle', () => {
    const square = polygon([-50, -50, 50, -50, 50, 50, -50, 50])
    expect(areaOf(filletedRings([square], { outer: 500, inner: 0 }, FINE.tolerance))).toBeCloseTo(Math.PI * 2500, 0)
  })

  test('inner corners fill: an L gains at its inner corner what an outer one loses', () => {
    const bend = polygon([0, 0, 100, 0, 100, 40, 40, 40, 40, 100, 0, 100])
    const gained = areaOf(filletedRings([bend], { outer: 0, inner: 12 }, FINE.tolerance)) - areaOf([bend])
    expect(gained).toBeCloseTo(144 * (1 - Math.PI / 4), 1)
  })

  test('curves with corners between them: a lens is touched by the circle on both sides', () => {
    const arc = (from: number, to: number, x: number) =>
      Array.from({ length: 200 }, (_, i) => from + ((to - from) * i) / 200).flatMap((a) => [
        x + 100 * Math.cos(a),
        100 * Math.sin(a),
      ])
    const points = [...arc(-Math.PI / 3, Math.PI / 3, -50), ...arc((2 * Math.PI) / 3, (4 * Math.PI) / 3, 50)]
    const smooth = points.slice(0, points.length / 2).map((_, i) => i % 200 !== 0)
    const [rounded] = filletedRings([{ points, smooth }], { outer: 10, inner: 0 }, FINE.tolerance)
    // Circles of radius 100 about ±50 hold one of radius 10 that touches both: its centre is 90 from both middles.
    const top = Math.max(...rounded!.points.filter((_, i) => i % 2))
    expect(top).toBeCloseTo(Math.sqrt(90 * 90 - 50 * 50) + 10, 1)
  })
})

describe('line and draw-on', () => {
  test('a circle drawn to a share is as long as that share of 2πr, from the top clockwise', () => {
    for (const end of [1, 25, 50, 99]) {
      const lined = run('line', { thickness: 4 }, [circle(100)])
      const [strand, ...more] = strandsIn(
        stepOf('draw-on').apply({ ...defaultsOf(stepOf('draw-on').parameters), end } as never, lined, {
          letters: false,
        } as never),
      )
      expect(more).toEqual([])
      expect(lengthOf(strand!)).toBeCloseTo((2 * Math.PI * 100 * end) / 100, 1)
      expect([strand!.points[0], strand!.points[1]]).toEqual([0, -100].map((v) => expect.closeTo(v, 6)))
      if (end === 25) expect(strand!.points.at(-2)).toBeCloseTo(100, 1)
    }
  })

  test('no length leaves nothing: no dot, no hairline', () => {
    const lined = run('line', { thickness: 40, cap: 'round' }, [circle(50)])
    const none = stepOf('draw-on').apply({ ...defaultsOf(stepOf('draw-on').parameters), end: 0 } as never, lined, {
      letters: false,
    } as never)
    expect(outcome(none)).toEqual([])
  })

  test('one after the other: together they are as long as the share of all', () => {
    const two = [
      regular(4, 50),
      { ...regular(4, 20), points: regular(4, 20).points.map((v, i) => (i % 2 ? v : v + 200)) },
    ]
    const lined = run('line', { thickness: 2 }, two)
    const whole = strandsIn(lined).reduce((sum, strand) => sum + lengthOf(strand), 0)
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 100 }),
        fc.integer({ min: 0, max: 100 }),
        fc.integer({ min: -150, max: 150 }),
        (start, end, shift) => {
          const drawn = stepOf('draw-on').apply(
            { ...defaultsOf(stepOf('draw-on').parameters), start, end, shift, order: 'chain' } as never,
            lined,
            { letters: false } as never,
          )
          const own = strandsIn(drawn).reduce((sum, strand) => sum + lengthOf(strand), 0)
          expect(own).toBeCloseTo((whole * Math.abs(end - start)) / 100, 6)
        },
      ),
    )
  })

  test('a line outside and one inside are the two halves of one twice as thick across', () => {
    const area = (side: string, thickness: number) =>
      areaOf(outcome(run('line', { side, thickness, join: 'mitre' }, [regular(6, 60)])))
    expect(area('inside', 6) + area('outside', 6)).toBeCloseTo(area('across', 12), 1)
  })
})

test('dashes: as long as their share of the line, fitted ones a whole number of them', () => {
  const lined = run('line', { thickness: 2 }, [circle(100)])
  const dash = (values: object) =>
    strandsIn(
      stepOf('dashes').apply({ ...defaultsOf(stepOf('dashes').parameters), ...values } as never, lined, {
        px: (v: number) => v,
      } as never),
    )
  const whole = 2 * Math.PI * 100
  const fitted = dash({ dash: 30, gap: 20, fitted: true, shift: 11 })
  expect(fitted).toHaveLength(Math.round(whole / 50))
  for (const strand of fitted) expect(lengthOf(strand)).toBeCloseTo((whole / Math.round(whole / 50)) * 0.6, 2)
  const four = dash({ dash: 10, gap: 5, dash2: 20, gap2: 5 })
  expect(four.reduce((sum, strand) => sum + lengthOf(strand), 0)).toBeCloseTo((whole * 30) / 40, -1)
})

describe('rough', () => {
  test('noise has the mean 0, keeps within −1 and 1, and comes round after a whole turn', () => {
    let [sum, most] = [0, 0]
    for (let seed = 0; seed < 40; seed++) {
      const noise = planeNoise(seed, 3)
      for (let i = 0; i < 400; i++) {
        const v = noise(i * 0.37, i * 0.11 + seed)
        sum += v
        most = Math.max(most, Math.abs(v))
      }
    }
    expect(Math.abs(sum / 16_000)).toBeLessThan(0.01)
    expect(most).toBeLessThanOrEqual(1)
    expect(planeNoise(3, 2, 5)(1.3, 2.7)).toBe(planeNoise(3, 2, 0)(1.3, 2.7))
    expect(planeNoise(3, 2, 0.5)(1.3, 2.7)).not.toBe(planeNoise(3, 2, 0)(1.3, 2.7))
  })

  test('the edge is moved by 0 on the mean, and by the amount at most', () => {
    let [sum, count, most] = [0, 0, 0]
    for (let chance = 0; chance < 30; chance++) {
      for (const { points } of outcome(run('rough', { amount: 5, size: 30 }, [circle(200)], { chance }))) {
        for (let i = 0; i < points.length; i += 2) {
          const off = Math.hypot(points[i]!, points[i + 1]!) - 200
          sum += off
          count++
          most = Math.max(most, Math.abs(off))
        }
      }
    }
    expect(Math.abs(sum / count)).toBeLessThan(0.1)
    expect(most).toBeLessThan(5 * Math.SQRT2)
    expect(most).toBeGreaterThan(2)
  })
})

describe('slices', () => {
  const shape = [
    regular(7, 90),
    {
      ...regular(7, 40),
      points: [...regular(7, 40).points]
        .reverse()
        .reduce<number[]>((all, _, i, back) => (i % 2 ? all : [...all, back[i + 1]!, back[i]!]), []),
    },
  ]

  test('bands that do not move are the outline, whatever their number and angle: area to 1e-6', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.integer({ min: -180, max: 180 }), (number, angle) => {
        const cut = run('slices', { number, angle }, shape, { banded: true })
        expect(new Set(cut.map(({ band }) => band)).size).toBe(number)
        const whole = areaOf(shape)
        const parts = cut.reduce((sum, part) => sum + areaOf(ringsOf(part.form, FINE)), 0)
        expect(Math.abs(parts - whole) / whole).toBeLessThan(1e-6)
        const again = areaOf(unite(outcome(cut), FINE.grid))
        expect(Math.abs(again - whole) / whole).toBeLessThan(1e-6)
      }),
      { numRuns: 40 },
    )
    expect(run('slices', {}, shape)[0]!.form).toBe(shape)
  })

  test('moved across by the gap it opens, along it slides: the area stays', () => {
    const moved = outcome(run('slices', { number: 3, gap: 10, along: 25 }, shape))
    expect(areaOf(moved)).toBeCloseTo(areaOf(shape), 2)
    const { top, bottom } = spanOf(moved)!
    const rest = spanOf(shape)!
    expect(bottom - top).toBeCloseTo(rest.bottom - rest.top + 20, 3)
    // It opens about the middle, with an even number of bands too.
    for (const number of [2, 3, 4]) {
      const open = spanOf(outcome(run('slices', { number, gap: 12 }, shape)))!
      const by = ((number - 1) * 12) / 2
      expect([rest.top - open.top, open.bottom - rest.bottom].map((v) => v.toFixed(3))).toEqual(
        [by, by].map((v) => v.toFixed(3)),
      )
    }
  })
})

describe('warp', () => {
  test('an arc: the middle line goes round a circle of radius w/θ, what lies above it round a larger one', () => {
    const bar = polygon([-150, -20, 150, -20, 150, 20, -150, 20])
    for (const bend of [40, -90, 180]) {
      const radius = (300 * 180) / (Math.PI * bend)
      const [ring] = outcome(run('warp', { bend }, [bar]))
      for (let i = 0; i < ring!.points.length; i += 2) {
        const out = Math.hypot(ring!.points[i]!, ring!.points[i + 1]! - radius)
        const onEdge = Math.min(Math.abs(out - Math.abs(radius + 20)), Math.abs(out - Math.abs(radius - 20)))
        // The two short sides lie on radii.
        const turn = Math.atan2(ring!.points[i]!, Math.abs(radius) - Math.sign(bend) * ring!.points[i + 1]!)
        const onEnd = Math.abs(Math.abs(turn) - (Math.abs(bend) * Math.PI) / 360)
        expect(Math.min(onEdge, onEnd * Math.abs(radius))).toBeLessThan(0.01)
      }
    }
  })

  test('a wave of whole lengths keeps the area; a swell follows its parabola', () => {
    const bar = polygon([0, 0, 300, 0, 300, 40, 0, 40])
    const waved = outcome(run('warp', { form: 'wave', length: 100, height: 15, phase: 0.3 }, [bar]))
    expect(areaOf(waved)).toBeCloseTo(300 * 40, 0)
    const swollen = outcome(run('warp', { form: 'swell', swell: 60 }, [bar]))
    // ∫ 1 + 0.6·(1 − u²) over −1 to 1, halved, is 1.4.
    expect(areaOf(swollen)).toBeCloseTo(300 * 40 * 1.4, 0)
  })
})
