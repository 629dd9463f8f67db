import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { drawForm, drawPath, squared } from '#core/edit/draw'
import { expectCard, readCard } from '#core/card/read'
import type { LinePiece } from '#core/card/schema'
import { Engine } from '#core/frame/engine'
import { alone } from '#core/frame/pick'
import { normal, normalQuantile } from '#core/kernels/normal'
import { SAFE_AREAS, safeRect } from '#core/judge/safe-areas'
import { directionOf, distanceBetween } from '#core/outline/measure'
import { snapPoint, snapShift } from '#core/stage/snap'
import { place, unplace } from '#core/outline/outline'
import { coat, emptyCard, pixelAt, solid, withBox } from '../support/engine'

const engine = new Engine()

describe('resting on lines', () => {
  const BOX = { left: 100, top: 100, right: 200, bottom: 140 }

  test('the nearest of edges and middle wins, each axis by itself', () => {
    // Right edge to 206 is 1 away, middle to 156 is 1.5.
    const lines = { x: [206, 156.5], y: [] }
    expect(snapShift(BOX, { x: 5, y: 3 }, lines, 4)).toEqual({ by: { x: 6, y: 3 }, guides: { x: [206], y: [] } })
  })

  test('beyond the reach nothing holds; the grid holds only where no line does', () => {
    expect(snapShift(BOX, { x: 7, y: 0 }, { x: [300], y: [] }, 4).by.x).toBe(7)
    expect(snapShift(BOX, { x: 8, y: 0 }, { x: [], y: [] }, 4, 10).by.x).toBe(10)
    expect(snapShift(BOX, { x: 8, y: 0 }, { x: [209], y: [] }, 4, 10).by.x).toBe(9)
  })

  test('what rests lies on a line, and never moved farther than the reach', () => {
    const numbers = fc.array(fc.integer({ min: 0, max: 400 }), { maxLength: 6 })
    fc.assert(
      fc.property(
        numbers,
        numbers,
        fc.integer({ min: -50, max: 50 }),
        fc.integer({ min: -50, max: 50 }),
        (xs, ys, dx, dy) => {
          const { by, guides } = snapShift(BOX, { x: dx, y: dy }, { x: xs, y: ys }, 6)
          expect(Math.abs(by.x - dx)).toBeLessThanOrEqual(6)
          expect(Math.abs(by.y - dy)).toBeLessThanOrEqual(6)
          for (const x of guides.x) expect([100, 150, 200].map((mark) => mark + by.x)).toContain(x)
          if (by.x !== dx) expect(guides.x.length).toBeGreaterThan(0)
        },
      ),
    )
  })

  test('a point rests like a box without a size', () => {
    expect(snapPoint({ x: 12, y: 30 }, { x: [10], y: [] }, 4).by).toEqual({ x: -2, y: 0 })
  })
})

describe('measures', () => {
  test('directions turn anticlockwise, with y down', () => {
    const from = { x: 3, y: 4 }
    const to = (x: number, y: number) => directionOf(from, { x: 3 + x, y: 4 + y })
    expect([to(5, 0), to(0, -5), to(-5, 0), to(0, 5)].map(Math.round)).toEqual([0, 90, 180, -90])
    expect(distanceBetween(from, { x: 6, y: 8 })).toBe(5)
  })

  test('unplace is the way back of place', () => {
    const numbers = fc.integer({ min: -300, max: 300 })
    fc.assert(
      fc.property(numbers, numbers, numbers, numbers, fc.integer({ min: 1, max: 40 }), (x, y, rotation, px, tenths) => {
        const placement = { scale: tenths / 10, rotation, x, y }
        const back = unplace(placement, place(placement, { x: px, y: -px }))
        expect(back.x).toBeCloseTo(px, 6)
        expect(back.y).toBeCloseTo(-px, 6)
      }),
    )
  })

  test('Shift keeps drawn lines to steps of 45°', () => {
    const from = { x: 10, y: 10 }
    expect(squared(from, { x: 110, y: 14 })).toMatchObject({ y: 10 })
    const slanted = squared(from, { x: 90, y: 100 })
    expect(slanted.x - 10).toBeCloseTo(slanted.y - 10, 6)
  })

  test('safe areas of HD: 67 and 96 px across, 38 and 54 px down (SMPTE ST 2046-1)', () => {
    const [action, title] = SAFE_AREAS.map(({ share }) => safeRect({ width: 1920, height: 1080 }, share))
    expect([action!.left, action!.top].map(Math.round)).toEqual([67, 38])
    expect([title!.left, title!.top].map(Math.round)).toEqual([96, 54])
  })
})

describe('drawn pieces', () => {
  test('fill the rectangle that was dragged, from whichever corner', () => {
    const { card, id } = drawForm(emptyCard(800, 450), 'box', { x: 300, y: 200 }, { x: 100, y: 80 })
    const [entry] = engine.outlook(card, 0)
    expect(entry).toMatchObject({ id, bounds: { left: 100, top: 80, right: 300, bottom: 200 } })
    const line = drawForm(card, 'line', { x: 100, y: 300 }, { x: 200, y: 200 }).card.pieces[0] as LinePiece
    expect(line.rotation).toBeCloseTo(45, 6)
    expect(line.length).toBeCloseTo(141.4, 6)
  })

  test('a path stands in the middle of its points and goes through them', () => {
    const corner = (x: number, y: number) => ({ x, y, before: null, after: null })
    const points = [corner(100, 100), corner(300, 100), corner(300, 260)]
    const { card } = drawPath(emptyCard(800, 450), { closed: true, points })
    expect(card.pieces[0]).toMatchObject({ x: 200, y: 180, path: 'M -100 -80 L 100 -80 L 100 80 Z', thickness: 0 })
    expect(engine.outlook(card, 0)[0]!.bounds).toEqual({ left: 100, top: 100, right: 300, bottom: 260 })
    expect(readCard(card).faults).toBeNull()
  })
})

describe('the section’s handles', () => {
  const face = [
    coat('bevel', 'bevel-1', { width: 14 }),
    coat('fill', 'fill-1', { paint: solid('#F2A33C') }),
    coat('stroke', 'stroke-1', { width: 10 }),
    coat('stroke', 'stroke-2', { width: 6, stacked: true, offset: 2 }),
  ]
  const behind = [coat('glow', 'glow-1', { reach: 30 }), coat('shadow', 'shadow-1', { distance: 20, softness: 8 })]
  const card = withBox(emptyCard(800, 450), { id: 'a', width: 300, height: 120 }, { face, behind })
  const marksOf = (id: string, facing?: number) =>
    Object.fromEntries(
      engine
        .section(card, 'a', 0, facing)
        .coats.find((one) => one.id === id)!
        .marks.map((m) => [m.parameter, m]),
    )

  test('stand where the coats end', () => {
    expect(marksOf('stroke-1').width).toMatchObject({ at: 10, moves: 1 })
    expect(marksOf('stroke-2')).toMatchObject({ width: { at: 18, moves: 1 }, offset: { at: 12, moves: 1 } })
    expect(marksOf('bevel-1').width).toMatchObject({ at: -14, moves: -1, deep: true })
    expect(marksOf('glow-1').reach).toMatchObject({ at: 30 })
  })

  test('a shadow lies inward on the lit side and outward on the other', () => {
    // The default key light stands at 120°.
    expect(marksOf('shadow-1', 120).distance!.at).toBeCloseTo(-20, 3)
    expect(marksOf('shadow-1', -60).distance!.at).toBeCloseTo(20, 3)
    // Where it neither comes nor goes there is nothing to drag.
    expect(marksOf('shadow-1', 30).distance).toBeUndefined()
  })

  test('moving the length by one moves the mark as it says', () => {
    for (const [id, parameter] of [
      ['stroke-2', 'width'],
      ['stroke-2', 'offset'],
      ['bevel-1', 'width'],
      ['glow-1', 'reach'],
      ['shadow-1', 'distance'],
      ['shadow-1', 'softness'],
    ] as const) {
      const before = marksOf(id, 150)[parameter]!
      const change = (list: typeof face) =>
        list.map((one) => (one.id === id ? { ...one, [parameter]: (one[parameter] as number) + 1 } : one))
      const moved = withBox(
        emptyCard(800, 450),
        { id: 'a', width: 300, height: 120 },
        {
          face: change(face),
          behind: change(behind),
        },
      )
      const after = engine.section(moved, 'a', 0, 150).coats.find((one) => one.id === id)!.marks
      expect(after.find((m) => m.parameter === parameter)!.at - before.at).toBeCloseTo(before.moves, 3)
    }
  })
})

describe('where a falloff stands on the section', () => {
  test.each([
    ['glow', { side: 'outside', reach: 40, measure: 'even' }],
    ['glow', { side: 'outside', reach: 40, measure: 'soft' }],
    ['glow', { side: 'outside', reach: 40, measure: 'soft', firmness: 30 }],
    ['glow', { side: 'inside', reach: 24, measure: 'soft' }],
    ['shadow', { side: 'outside', distance: 12, softness: 30 }],
    ['shadow', { side: 'outside', distance: 0, softness: 24, firmness: 40 }],
    ['shadow', { side: 'inside', distance: 6, softness: 24 }],
  ])('a straight falloff of a %s lays as much as it takes in: %j', (kind, values) => {
    const one = coat(kind, 'one', { falloff: 'linear', knockOut: false, colour: '#FFFFFF', ...values })
    const inside = one.side === 'inside'
    const base = coat('fill', 'fill-1', { paint: solid('#FFFFFF') })
    const coats = inside ? { face: [one, base] } : { face: [], behind: [one] }
    const card = withBox(emptyCard(800, 450), { id: 'a', width: 300, height: 200 }, coats)
    // Away from the light the outside shadow shows beyond the edge, towards it the inside one shows within.
    const section = engine.section(card, 'a', 0, inside ? 120 : -60)
    const { falloff, colours } = section.coats.find(({ id }) => id === 'one')!
    let compared = 0
    falloff!.forEach((d, i) => {
      const x = i / (falloff!.length - 1)
      const at = (d - section.distances[0]!) / (section.distances[1]! - section.distances[0]!)
      const k = Math.floor(at)
      const [a, b] = [colours[k]?.[3], colours[k + 1]?.[3]]
      // What lies beyond the edge on the other side is not laid; the very ends of a Gaussian are cut.
      if (a === undefined || b === undefined || x < 0.02 || x > 0.97 || (inside ? d > -1 : d < 1)) return
      compared++
      expect(Math.abs(a + (b - a) * (at - k) - x)).toBeLessThan(0.02)
    })
    expect(compared).toBeGreaterThan(8)
  })

  test('the normal distribution against the table of Abramowitz & Stegun (26.2)', () => {
    for (const [z, p] of [
      [0, 0.5],
      [0.5, 0.6914624613],
      [1, 0.8413447461],
      [1.96, 0.9750021049],
      [-2, 0.0227501319],
    ] as const) {
      expect(normal(z)).toBeCloseTo(p, 6)
      expect(normalQuantile(p)).toBeCloseTo(z, 4)
    }
  })
})

test('a piece that follows another is picked where it stands, and seen alone there', () => {
  const face = [coat('fill', 'f', {})]
  const leader = { ...box('leader', 60, 40), coats: { face: [], behind: [] } }
  const follower = { ...box('follower', 0, 40), x: following('leader/x', 200), coats: { face, behind: [] } }
  const card = expectCard({ ...emptyCard(400, 80), pieces: [leader, follower] })
  expect(engine.pick(card, 0, { x: 260, y: 40 })).toBe('follower')
  expect(pixelAt(engine.render(alone(card, card.pieces[1]!), 0), 260, 40)[3]).toBe(1)
})

const box = (id: string, x: number, y: number) => ({ kind: 'box', id, name: id, x, y, width: 20, height: 20 })
const following = (of: string, offset: number) => ({
  keys: [{ frame: 0, value: 0, easing: 'linear' }],
  motors: [{ kind: 'follow', source: of, offset }],
})
