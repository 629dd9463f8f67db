import { describe, expect, test } from '@jest/globals'
import { MeasuredStrand } from '#core/outline/strand'
import type { GripWork } from '#core/steps/grips'
import { STEPS, stepOf } from '#core/steps/table'
import { flatten } from '#core/outline/contour'
import { readPathData } from '#core/outline/svg-path'
import type { Length } from '#core/values/moving'

const px = (length: Length) => (typeof length === 'number' ? length : length.value)

const along = (path: string) => {
  const [ring] = flatten(readPathData(path, 'path'), 0.01)
  return new MeasuredStrand({ ...ring!, closed: path.endsWith('Z') })
}
const open = new MeasuredStrand({ points: [0, 0, 100, 0, 100, 60, 300, 60], smooth: [], closed: false })
const workWith = (strand: MeasuredStrand): GripWork => ({
  px,
  whole: { left: -20, top: -30, right: 320, bottom: 90 },
  line: { along: strand, thickness: 12 },
})

function valuesOf(kind: string, values: object): Record<string, unknown> {
  const { parameters } = stepOf(kind)
  const standard = Object.entries(parameters).map(([name, parameter]) => [name, parameter.default])
  return { ...Object.fromEntries(standard), ...values }
}

const gripsOf = (kind: string, values: object, work: GripWork) =>
  stepOf(kind).grips!(valuesOf(kind, values) as never, work)

/** Values that leave room on both sides. */
const CASES: [string, object][] = [
  ['draw-on', { start: 20, end: 70 }],
  ['draw-on', { start: 20, end: 70, from: 'end', shift: 10 }],
  ['draw-on', { start: 20, end: 70, from: 'centre' }],
  ['dashes', { dash: 25, gap: 15, shift: 12 }],
  ['dashes', { dash: 25, gap: 15, shift: -8, fitted: true }],
  ['taper', { start: 80, end: 30 }],
  ['grow', { by: 9 }],
  ['grow', { by: -4 }],
  ['round', { outer: 14 }],
  ['rough', { amount: 6, size: 50 }],
  ['slices', { along: 20, across: -8, angle: 30 }],
  ['warp', { form: 'arc', bend: 80 }],
  ['warp', { form: 'arc', bend: -130 }],
  ['warp', { form: 'wave', height: 12, length: 140 }],
  ['warp', { form: 'swell', swell: 35 }],
  ['warp', { form: 'swell', swell: 35, way: 'upright' }],
  ['warp', { form: 'turbulence', amount: 20, size: 90 }],
]

describe('what outline steps have on the stage', () => {
  test('every step but the line has something to take hold of', () => {
    const with_ = STEPS.filter(({ grips }) => grips).map(({ kind }) => kind)
    expect([...with_, 'line'].sort()).toEqual(STEPS.map(({ kind }) => kind).sort())
    expect([...new Set(CASES.map(([kind]) => kind))].sort()).toEqual([...with_].sort())
  })

  test.each(CASES)('%s %j: a grip where it stands means the values there are', (kind, values) => {
    const closed = along('M 0 0 L 200 0 L 200 80 L 0 80 Z')
    for (const strand of [open, closed]) {
      for (const grip of gripsOf(kind, values, workWith(strand))) {
        const all = valuesOf(kind, values)
        for (const [name, value] of Object.entries(grip.values(grip.at))) {
          expect([grip.label, name, value]).toEqual([grip.label, name, expect.closeTo(px(all[name] as Length), 4)])
        }
      }
    }
  })

  test.each(CASES)('%s %j: moved a little, it stands where it was moved to', (kind, values) => {
    const work = workWith(open)
    gripsOf(kind, values, work).forEach((grip, i) => {
      // Along the line for what lies on it: anywhere else is drawn to the line.
      const onLine = !grip.from
      const at = onLine ? open.at(open.nearest(grip.at) + 3) : { x: grip.at.x + 3, y: grip.at.y + 2 }
      const moved = gripsOf(kind, { ...values, ...grip.values(at) }, work)[i]!
      const [dx, dy] = [moved.at.x - at.x, moved.at.y - at.y]
      // What has one value follows in one direction alone.
      const both = onLine || Object.keys(grip.values(at)).length === 2
      const off = both ? Math.hypot(dx, dy) : Math.min(Math.abs(dx), Math.abs(dy))
      // A thickness follows across its line, whichever way that runs.
      expect(off).toBeLessThan(1e-3)
    })
  })

  test('without a line, those that need one have nothing; a line of points has no ends to drag', () => {
    for (const kind of ['draw-on', 'dashes', 'taper']) {
      expect(gripsOf(kind, {}, { ...workWith(open), line: null })).toEqual([])
    }
  })

  test('at the seam of a ring the end stays at the end', () => {
    const ring = along('M 0 0 L 200 0 L 200 80 L 0 80 Z')
    const [, end] = gripsOf('draw-on', { end: 98 }, workWith(ring))
    expect(end!.values(ring.at(2))).toEqual({ end: 100 })
    expect(end!.values(ring.at(ring.length - 30)).end).toBeCloseTo((1 - 30 / ring.length) * 100)
  })
})

test('the nearest place of a strand is that of a search over it all', () => {
  const curve = along('M 0 0 C 80 -60 120 90 200 20')
  for (const [x, y] of [
    [10, 40],
    [90, -30],
    [150, 60],
    [260, 10],
    [-20, -5],
  ] as const) {
    let least = Infinity
    for (let i = 0; i <= 20_000; i++) {
      const p = curve.at((curve.length * i) / 20_000)
      least = Math.min(least, Math.hypot(p.x - x, p.y - y))
    }
    const found = curve.at(curve.nearest({ x, y }))
    expect(Math.hypot(found.x - x, found.y - y)).toBeLessThanOrEqual(least + 1e-9)
  }
})
