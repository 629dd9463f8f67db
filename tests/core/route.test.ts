import { describe, expect, test } from '@jest/globals'
import { reverseKeys } from '#core/edit/keys'
import { groupPieces, ungroupPiece } from '#core/edit/grouping'
import { bendRoute, controlOf, moveRouteKey, pairPlace, placeAt, routeFrames, straightenRoute } from '#core/edit/route'
import { setKey, setStored, storedAt } from '#core/edit/values'
import type { Key, Moving } from '#core/values/moving'
import { readCard } from '#core/card/read'
import type { Card } from '#core/card/schema'
import { place, within } from '#core/outline/outline'
import { routeOf } from '#core/stage/route'
import { between, splitBend } from '#core/values/bend'
import { emptyCard, withBox } from '../support/engine'

const key = (frame: number, value: number, more: Partial<Key<number>> = {}): Key<number> => ({ frame, value, ...more })
const open = (...keys: Key<number>[]): Moving<number> => ({ keys, loop: false })
const card = (x: number | Moving<number>, y: number | Moving<number>): Card =>
  withBox(emptyCard(640, 360, 100), { id: 'boat', x, y }, {})
const at = (of: Card, frame: number, id = 'boat') =>
  placeAt(
    of.pieces.find((p) => p.id === id)!,
    frame,
    of.length,
  )

/** The point of a cubic Bézier curve by de Casteljau’s construction: not by the polynomial that the code uses. */
function constructed(points: readonly number[], t: number): number {
  if (points.length === 1) return points[0]!
  return constructed(
    points.slice(1).map((p, i) => points[i]! + (p - points[i]!) * t),
    t,
  )
}

describe('a bent way', () => {
  const from = key(0, 10, { bend: { out: 80 } })
  const to = key(10, 50, { bend: { in: 30 } })

  test('is the cubic Bézier curve of its four points', () => {
    for (let i = 0; i <= 100; i++) {
      expect(between(from, to, i / 100)).toBeCloseTo(constructed([10, 90, 80, 50], i / 100), 9)
    }
  })

  test('without bends is a straight line, and so are control points at its thirds', () => {
    for (const t of [-0.2, 0, 0.25, 0.5, 1, 1.3]) {
      expect(between(key(0, 10), key(1, 40), t)).toBeCloseTo(10 + 30 * t, 9)
      expect(between(key(0, 10, { bend: { out: 10 } }), key(1, 40), t)).toBeCloseTo(10 + 30 * t, 9)
    }
  })

  test('goes on in its last direction where an easing overshoots', () => {
    const slope = (between(from, to, 1) - between(from, to, 1 - 1e-6)) / 1e-6
    expect((between(from, to, 1.1) - 50) / 0.1).toBeCloseTo(slope, 3)
    expect((between(from, to, -0.1) - 10) / -0.1).toBeCloseTo(3 * 80, 9)
  })

  test('split anywhere, the two parts are the same curve', () => {
    for (const t of [0.1, 0.37, 0.5, 0.93]) {
      const split = splitBend(from, to, t)
      const middle = key(5, between(from, to, t), { bend: split.at })
      for (let i = 0; i <= 20; i++) {
        const before = between({ ...from, bend: { out: split.out } }, middle, i / 20)
        const after = between(middle, { ...to, bend: { in: split.in } }, i / 20)
        expect(before).toBeCloseTo(between(from, to, (t * i) / 20), 9)
        expect(after).toBeCloseTo(between(from, to, t + ((1 - t) * i) / 20), 9)
      }
    }
  })

  test('a key set on it does not change it; one that is moved keeps its direction', () => {
    const bent = card(open(key(0, 100, { bend: { out: 200 } }), key(40, 300, { bend: { in: 50 } })), 0)
    const value = at(bent, 16).x
    const split = setKey(bent, 'boat/x', 16, value)
    for (let f = 0; f <= 40; f++) expect(at(split, f).x).toBeCloseTo(at(bent, f).x, 9)
    const moved = setKey(bent, 'boat/x', 16, value + 30)
    const [before, after] = [storedAt(split, 'boat/x'), storedAt(moved, 'boat/x')] as Moving<number>[]
    expect(after!.keys[1]!.bend).toEqual(before!.keys[1]!.bend)
  })
})

describe('the way of a place', () => {
  const straight = () => card(open(key(0, 100), key(40, 300)), open(key(0, 50), key(40, 250)))

  test('both coordinates get keys at the same frames, and nothing moves', () => {
    const one = card(
      open(key(0, 100, { easing: 'linear' }), key(20, 150), key(40, 300)),
      open(key(0, 50), key(40, 250)),
    )
    const paired = pairPlace(one, 'boat')
    expect((storedAt(paired, 'boat/y') as Moving<number>).keys.map(({ frame }) => frame)).toEqual([0, 20, 40])
    for (let f = 0; f <= 40; f++) expect(at(paired, f)).toEqual(at(one, f))
    const still = pairPlace(card(open(key(0, 100), key(40, 300)), 77), 'boat')
    for (let f = 0; f <= 40; f++) expect(at(still, f).y).toBe(77)
    expect(routeFrames(still.pieces[0]!)).toEqual([0, 40])
    const eased = card(open(key(0, 100, { easing: 'ease-in' }), key(40, 300)), open(key(10, 50), key(40, 250)))
    const easings = (storedAt(pairPlace(eased, 'boat'), 'boat/y') as Moving<number>).keys.map(({ easing }) => easing)
    expect(easings).toEqual(['ease-in', undefined, undefined])
    // One coordinate goes on while the other is held: it still does.
    const half = card(open(key(0, 100), key(20, 150, { easing: 'hold' }), key(40, 300)), open(key(0, 50), key(40, 250)))
    for (let f = 0; f <= 40; f++) expect(at(pairPlace(half, 'boat'), f)).toEqual(at(half, f))
  })

  test('is bent at a key on both coordinates', () => {
    const bent = bendRoute(straight(), 'boat', 0, 'out', { x: 0, y: 200 }, false)
    for (let f = 0; f <= 40; f++) {
      expect(at(bent, f).x).toBeCloseTo(constructed([100, 100, 300 - 200 / 3, 300], f / 40), 6)
      expect(at(bent, f).y).toBeCloseTo(constructed([50, 250, 250 - 200 / 3, 250], f / 40), 6)
    }
    expect(controlOf(bent, 'boat', 0, 'out')).toEqual({ x: 0, y: 200 })
  })

  test('four bent quarters are a circle to 2.8 in 10,000 (the usual kappa, 4/3·(√2 − 1))', () => {
    const kappa = (4 / 3) * (Math.SQRT2 - 1) * 100
    const corners = [
      [100, 0],
      [0, 100],
      [-100, 0],
      [0, -100],
    ] as const
    const ring = (axis: 0 | 1): Moving<number> => ({ keys: corners.map((corner, i) => key(i * 25, corner[axis])) })
    const round = corners.reduce(
      (c, [x, y], i) => bendRoute(c, 'boat', i * 25, 'out', { x: (-y / 100) * kappa, y: (x / 100) * kappa }, false),
      card(ring(0), ring(1)),
    )
    const both = corners.reduce(
      (c, [x, y], i) => bendRoute(c, 'boat', i * 25, 'in', { x: (y / 100) * kappa, y: (-x / 100) * kappa }, false),
      round,
    )
    const radii = Array.from({ length: 400 }, (_, i) => at(both, i / 4)).map(({ x, y }) => Math.hypot(x, y))
    expect(Math.max(...radii)).toBeLessThan(100.03)
    expect(Math.min(...radii)).toBeGreaterThan(99.97)
  })

  test('smooth: the other handle lies in the same line and stays as long as it was', () => {
    const three = card(open(key(0, 0), key(20, 90), key(40, 180)), open(key(0, 0), key(20, 0), key(40, 0)))
    const bent = bendRoute(three, 'boat', 20, 'out', { x: 0, y: 60 }, true)
    expect(controlOf(bent, 'boat', 20, 'in')).toEqual({ x: -0, y: -30 })
    expect(controlOf(bendRoute(three, 'boat', 20, 'out', { x: 0, y: 60 }, false), 'boat', 20, 'in')).toEqual({
      x: -30,
      y: 0,
    })
  })

  test('is made straight again', () => {
    const bent = bendRoute(straight(), 'boat', 40, 'in', { x: 90, y: -40 }, true)
    expect(at(bent, 20)).not.toEqual(at(straight(), 20))
    const again = straightenRoute(bent, 'boat', 40)
    for (let f = 0; f <= 40; f++) expect(at(again, f)).toEqual(at(straight(), f))
    expect(JSON.stringify(again)).not.toContain('bend')
  })

  test('runs backward on the same way when its keys are reversed', () => {
    const bent = bendRoute(straight(), 'boat', 0, 'out', { x: 20, y: 200 }, false)
    const keys = ['boat/x', 'boat/y'].flatMap((address) => [0, 40].map((frame) => ({ address, frame })))
    const turned = reverseKeys(bent, keys).card
    for (let f = 0; f <= 40; f++) {
      expect(at(turned, f).x).toBeCloseTo(at(bent, 40 - f).x, 6)
      expect(at(turned, f).y).toBeCloseTo(at(bent, 40 - f).y, 6)
    }
  })

  test('grows with a group that is taken apart', () => {
    const bent = bendRoute(straight(), 'boat', 0, 'out', { x: 20, y: 200 }, false)
    const { card: grouped, id } = groupPieces(bent, ['boat'], { x: 0, y: 0 })
    const { card: free } = ungroupPiece(setStored(grouped, `${id}/scale`, 200), id, 0)
    for (let f = 0; f <= 40; f++) expect(at(free, f).y).toBeCloseTo(2 * at(bent, f).y, 3)
  })

  test('is turned with a group that is taken apart, whichever coordinate moved', () => {
    const bent = bendRoute(straight(), 'boat', 0, 'out', { x: 20, y: 200 }, false)
    const one = card(open(key(0, 100), key(30, 180, { easing: 'ease-in' }), key(40, 300)), 50)
    for (const start of [bent, straight(), one]) {
      const { card: grouped, id } = groupPieces(start, ['boat'], { x: 40, y: -10 })
      const turned = setStored(setStored(grouped, `${id}/rotation`, 30), `${id}/scale`, 150)
      const { card: free } = ungroupPiece(turned, id, 0)
      const outer = within({ scale: 1.5, rotation: 30, x: 40, y: -10 }, { scale: 1, rotation: 0, x: -40, y: 10 })
      for (let f = 0; f <= 40; f++) {
        const wanted = place(outer, at(start, f))
        expect(at(free, f).x).toBeCloseTo(wanted.x, 2)
        expect(at(free, f).y).toBeCloseTo(wanted.y, 2)
      }
    }
  })

  test('a key is moved on the stage; the bends go with it', () => {
    const bent = bendRoute(straight(), 'boat', 0, 'out', { x: 20, y: 200 }, false)
    const moved = moveRouteKey(bent, 'boat', 0, { x: 130, y: 60 })
    expect(at(moved, 0)).toEqual({ x: 130, y: 60 })
    expect(controlOf(moved, 'boat', 0, 'out')).toEqual({ x: 20, y: 200 })
    expect(at(moved, 40)).toEqual(at(bent, 40))
    // What does not move stays as it is: no key where there was none.
    const across = moveRouteKey(card(open(key(0, 100), key(40, 300)), open(key(20, 50))), 'boat', 0, { x: 120, y: 50 })
    expect(routeFrames({ x: 0, y: across.pieces[0]!.y })).toEqual([20])
    expect(at(across, 0)).toEqual({ x: 120, y: 50 })
    expect(moveRouteKey(straight(), 'boat', 0, { x: 100, y: 50 })).toEqual(straight())
    const gone = straight()
    expect(moveRouteKey(gone, 'gone', 0, { x: 0, y: 0 })).toBe(gone)
  })

  test('has no handle where it jumps, or where it does not go on', () => {
    const jumping = card(open(key(0, 100, { easing: 'hold' }), key(40, 300)), 50)
    expect(controlOf(jumping, 'boat', 0, 'out')).toBeNull()
    expect(controlOf(jumping, 'boat', 0, 'in')).toBeNull()
    expect(controlOf(jumping, 'boat', 40, 'out')).toBeNull()
    expect(controlOf(jumping, 'boat', 7, 'out')).toBeNull()
    expect(controlOf(straight(), 'gone', 0, 'out')).toBeNull()
    // On the ring a single key would go on to itself.
    const single = card({ keys: [key(10, 100)] }, { keys: [key(10, 50)] })
    expect(controlOf(single, 'boat', 10, 'out')).toBeNull()
    expect(controlOf(single, 'boat', 7, 'out')).toBeNull()
  })

  test('is drawn with its keys, its lines and a dot a frame; what stands still has none', () => {
    const bent = bendRoute(straight(), 'boat', 0, 'out', { x: 20, y: 200 }, false)
    const route = routeOf(bent, bent.pieces[0]!)!
    expect(route.keys.map(({ frame }) => frame)).toEqual([0, 40])
    expect(route.ways).toHaveLength(1)
    expect(route.ways[0]![0]).toEqual(at(bent, 0))
    expect(route.ways[0]!.at(-1)).toEqual(at(bent, 40))
    expect(route.dots).toHaveLength(100)
    expect(route.dots[20]).toEqual(at(bent, 20))
    expect(routeOf(bent, { ...bent.pieces[0]!, x: 5, y: 6 })).toBeNull()
    expect(routeOf(bent, { ...bent.pieces[0]!, x: open(key(0, 4), key(9, 4)), y: 6 })).toBeNull()
    const long = { ...bent, length: 5000 }
    expect(routeOf(long, long.pieces[0]!)!.dots.length).toBeLessThanOrEqual(400)
  })

  test('the file: bends of numbers are read, those of colours and no numbers are named', () => {
    const bent = bendRoute(straight(), 'boat', 0, 'out', { x: 20, y: 200 }, true)
    expect(readCard(JSON.parse(JSON.stringify(bent))).faults).toBeNull()
    const wrong = {
      ...bent,
      pieces: [{ ...bent.pieces[0]!, x: { keys: [{ frame: 0, value: 1, bend: { out: 'far' } }] } }],
    }
    expect(readCard(wrong).faults![0]!.place).toBe('pieces[0].x.keys[0].bend.out')
  })
})
