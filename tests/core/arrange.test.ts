import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { alignPieces, boundsOf, distributePieces } from '#core/edit/arrange'
import { addFinish } from '#core/edit/finishes'
import { canGroup, groupPieces, moveAnchor, ungroupPiece } from '#core/edit/grouping'
import { differs, sharedAddresses, writeShared } from '#core/edit/several'
import { addCoat, addPiece } from '#core/edit/stack'
import { storedAt, toggleKey, writeValue } from '#core/edit/values'
import { readCard } from '#core/card/read'
import type { Card, Piece } from '#core/card/schema'
import { allPieces } from '#core/card/tree'
import { Engine } from '#core/frame/engine'
import type { PieceOutlook } from '#core/frame/outlook'
import { boxPath } from '#core/outline/box'
import { flatten } from '#core/outline/contour'
import { polygonPath } from '#core/outline/polygon'
import { coat, emptyCard, solid, withBox } from '../support/engine'

const engine = new Engine()
const FRAME = { left: 0, top: 0, right: 800, bottom: 450 }

function boxes(...values: Partial<Piece>[]): Card {
  return values.reduce<Card>(
    (card, value, i) =>
      withBox(card, { id: `box-${i}`, width: 60, height: 40, ...value } as never, {
        face: [coat('fill', `fill-${i}`, { paint: solid('#FF0000') })],
      }),
    emptyCard(800, 450),
  )
}

const standing = (card: Card, ...ids: string[]) => engine.outlook(card, 0).filter(({ id }) => ids.includes(id))
const cornersOf = (outlook: PieceOutlook[], id: string) =>
  outlook.find((entry) => entry.id === id)!.corners.flatMap(({ x, y }) => [x, y])

const place = fc.record({
  x: fc.integer({ min: 100, max: 700 }),
  y: fc.integer({ min: 60, max: 390 }),
  rotation: fc.integer({ min: -180, max: 180 }),
  scale: fc.integer({ min: 30, max: 220 }),
})

describe('alignment', () => {
  test('edges and middles come to lie on those of the target, turned pieces by what they span', () => {
    fc.assert(
      fc.property(place, place, fc.constantFrom('left', 'centre', 'right', 'top', 'middle', 'bottom'), (a, b, edge) => {
        const card = boxes(a, b)
        const aligned = alignPieces(card, standing(card, 'box-0', 'box-1'), edge as 'left', FRAME, 0)
        for (const { bounds } of standing(aligned, 'box-0', 'box-1')) {
          const wanted = { left: 0, centre: 400, right: 800, top: 0, middle: 225, bottom: 450 }[edge]!
          const middle = { centre: (bounds.left + bounds.right) / 2, middle: (bounds.top + bounds.bottom) / 2 }
          // Places are kept to hundredths of a px.
          expect({ ...bounds, ...middle }[edge as 'left']).toBeCloseTo(wanted, 1)
        }
      }),
      { numRuns: 40 },
    )
  })

  test('a piece in a turned and scaled group moves on the card as one that stands free', () => {
    const made = groupPieces(boxes({ x: 300, y: 200 }, { x: 500, y: 260 }), ['box-0', 'box-1'])
    let card = writeValue(made.card, `${made.id}/rotation`, 0, 30)
    card = writeValue(card, `${made.id}/scale`, 0, 150)
    const aligned = alignPieces(card, standing(card, 'box-0'), 'left', FRAME, 0)
    expect(standing(aligned, 'box-0')[0]!.bounds.left).toBeCloseTo(0, 1)
    expect(standing(aligned, 'box-0')[0]!.bounds.top).toBeCloseTo(standing(card, 'box-0')[0]!.bounds.top, 1)
  })

  test('a place that moves gets a key on the axis that is aligned, and none on the other', () => {
    const line = (value: number) => ({
      keys: [
        { frame: 0, value },
        { frame: 20, value: value + 50 },
      ],
    })
    const card = boxes({ x: line(300), y: line(200) } as never)
    const framesOf = (one: Card, address: string) =>
      (storedAt(one, address) as { keys: { frame: number }[] }).keys.map(({ frame }) => frame)
    const there = engine.outlook(card, 10).filter(({ id }) => id === 'box-0')
    const aligned = alignPieces(card, there, 'left', FRAME, 10)
    expect(framesOf(aligned, 'box-0/x')).toEqual([0, 10, 20])
    expect(framesOf(aligned, 'box-0/y')).toEqual([0, 20])
    expect(alignPieces(card, [{ ...there[0]!, id: 'gone' }], 'left', FRAME, 10)).toBe(card)
  })

  test('shared out, the gaps are equal and the outermost stay; within the frame they go to its edges', () => {
    const card = boxes({ x: 100, width: 30 } as never, { x: 260, width: 80 } as never, { x: 300 }, { x: 700 })
    const ids = ['box-0', 'box-1', 'box-2', 'box-3']
    const gaps = (within: typeof FRAME | null) => {
      const spread = standing(distributePieces(card, standing(card, ...ids), 'x', within, 0), ...ids)
      const order = [...spread].sort((a, b) => a.bounds.left - b.bounds.left)
      return { box: boundsOf(order)!, between: order.slice(1).map((p, i) => p.bounds.left - order[i]!.bounds.right) }
    }
    const own = gaps(null)
    expect(Math.max(...own.between) - Math.min(...own.between)).toBeLessThan(0.05)
    expect([own.box.left, own.box.right]).toEqual([85, 730])
    const whole = gaps(FRAME)
    expect([whole.box.left, whole.box.right].map(Math.round)).toEqual([0, 800])
    expect(Math.max(...whole.between) - Math.min(...whole.between)).toBeLessThan(0.05)
    expect(whole.box.bottom - whole.box.top).toBe(40)
    expect(boundsOf([])).toBeNull()
    const rect = (left: number, top: number, right: number, bottom: number) => ({
      bounds: { left, top, right, bottom },
    })
    expect(boundsOf([rect(1, 9, 5, 20), rect(3, 2, 4, 10)])).toEqual({ left: 1, top: 2, right: 5, bottom: 20 })
  })
})

describe('groups and anchors', () => {
  test('grouping and taking apart moves nothing, whatever the group went through', () => {
    fc.assert(
      fc.property(place, place, place, (a, b, g) => {
        const card = boxes(a, b)
        const grouped = groupPieces(card, ['box-0', 'box-1'], { x: 400, y: 225 })
        const before = engine.outlook(card, 0)
        const inside = engine.outlook(grouped.card, 0)
        for (const id of ['box-0', 'box-1']) {
          cornersOf(inside, id).forEach((v, i) => expect(v).toBeCloseTo(cornersOf(before, id)[i]!, 3))
        }
        const turned = (['x', 'y', 'rotation', 'scale'] as const).reduce(
          (next, name) => writeValue(next, `${grouped.id}/${name}`, 0, g[name]),
          grouped.card,
        )
        const moved = engine.outlook(turned, 0)
        const apart = ungroupPiece(turned, grouped.id, 0)
        expect(apart.ids.sort()).toEqual(['box-0', 'box-1'])
        for (const id of apart.ids) {
          // Values are kept to four places, and a corner is up to 130 px from its place.
          cornersOf(engine.outlook(apart.card, 0), id).forEach((v, i) =>
            expect(v).toBeCloseTo(cornersOf(moved, id)[i]!, 2),
          )
        }
      }),
      { numRuns: 30 },
    )
  })

  test('only pieces of one list make a group; it takes the place of the foremost', () => {
    const { card, id } = groupPieces(boxes({}, {}, {}), ['box-0', 'box-1'])
    expect(allPieces(card.pieces).map((piece) => piece.id)).toEqual(['box-2', id, 'box-1', 'box-0'])
    expect(canGroup(card, ['box-2', 'box-1'])).toBe(false)
    expect(canGroup(card, ['box-0', 'box-1'])).toBe(true)
    expect(readCard(card).faults).toBeNull()
  })

  test('another anchor moves nothing now; from then on the piece turns about it', () => {
    fc.assert(
      fc.property(place, fc.integer({ min: -90, max: 90 }), fc.integer({ min: -90, max: 90 }), (a, x, y) => {
        const card = boxes(a)
        const before = cornersOf(engine.outlook(card, 0), 'box-0')
        const anchored = moveAnchor(card, 'box-0', { x, y }, 0)
        const [entry] = engine.outlook(anchored, 0)
        cornersOf([entry!], 'box-0').forEach((v, i) => expect(v).toBeCloseTo(before[i]!, 2))
        const [turned] = engine.outlook(writeValue(anchored, 'box-0/rotation', 0, 77), 0)
        expect(turned!.place.x).toBeCloseTo(entry!.place.x, 6)
        expect(turned!.place.y).toBeCloseTo(entry!.place.y, 6)
      }),
      { numRuns: 30 },
    )
  })

  test('keys of the place move along with the anchor', () => {
    const keyed = toggleKey(writeValue(boxes({ x: 300 }), 'box-0/x', 0, 300), 'box-0/x', 0)
    const anchored = moveAnchor(writeValue(keyed, 'box-0/x', 20, 500), 'box-0', { x: 30, y: 0 }, 0)
    expect((storedAt(anchored, 'box-0/x') as { keys: { value: number }[] }).keys.map((key) => key.value)).toEqual([
      330, 530,
    ])
  })
})

describe('several pieces at once', () => {
  const twoTypes = () => {
    const first = addPiece(emptyCard(800, 450), 'type')
    const second = addPiece(first.card, 'type')
    const third = addPiece(second.card, 'box')
    const poured = [first.id, second.id].reduce(
      (card, id) => addCoat(card, id, 'glow', { side: 'outside' }).card,
      third.card,
    )
    return { card: poured, ids: [first.id, second.id, third.id] }
  }

  test('a value of the place reaches all, one of type only type, one of a coat its twins', () => {
    const { card, ids } = twoTypes()
    expect(new Set(sharedAddresses(card, 'type-1/x', ids))).toEqual(new Set(['type-1/x', 'type-2/x', 'box-1/x']))
    expect(sharedAddresses(card, 'type-1/x', ids)[0]).toBe('type-1/x')
    expect(new Set(sharedAddresses(card, 'type-1/size', ids))).toEqual(new Set(['type-1/size', 'type-2/size']))
    const shared = sharedAddresses(card, 'type-1/glow-1/reach', ids)
    expect(new Set(shared)).toEqual(new Set(['type-1/glow-1/reach', 'type-2/glow-2/reach']))
    // Of several entries of a piece those of the same family, kind, side and number belong together.
    const strokes = ids.reduce((done, id) => {
      const outside = addCoat(addCoat(done, id, 'glow', { side: 'inside' }).card, id, 'stroke', {
        side: 'outside',
      }).card
      return addFinish(addCoat(outside, id, 'stroke', { side: 'inside' }).card, id, 'bloom').card
    }, card)
    const coatsOf = (id: string) => strokes.pieces.find((piece) => piece.id === id)!.coats.face
    const inner = (id: string) => coatsOf(id).find((own) => own.kind === 'stroke' && own.side === 'inside')!.id
    const first = `type-1/${inner('type-1')}/width`
    const others = ids.slice(1).map((id) => `${id}/${inner(id)}/width`)
    expect(new Set(sharedAddresses(strokes, first, ids))).toEqual(new Set([first, ...others]))
    const written = writeShared(card, shared, 0, 61)
    expect(shared.map((address) => storedAt(written, address))).toEqual([61, 61])
    expect(differs(written, shared)).toBe(false)
    expect(differs(writeValue(written, shared[1]!, 0, 5), shared)).toBe(true)
  })
})

describe('picking on the stage', () => {
  const card = boxes({ x: 400, y: 225, width: 200, height: 200 } as never, { x: 400, y: 225 })

  test('the foremost that shows; locked ones and clear pixels are passed over', () => {
    expect(engine.pick(card, 0, { x: 400, y: 225 })).toBe('box-1')
    expect(engine.pick(card, 0, { x: 320, y: 225 })).toBe('box-0')
    expect(engine.pick(card, 0, { x: 100, y: 225 })).toBeNull()
    expect(engine.pick(card, 0, { x: -5, y: 9000 })).toBeNull()
    const locked = { ...card, pieces: card.pieces.map((piece) => ({ ...piece, locked: piece.id === 'box-1' })) }
    expect(engine.pick(locked, 0, { x: 400, y: 225 })).toBe('box-0')
    const hollow = boxes({ x: 400, y: 225, width: 200, height: 200 } as never, { x: 400, y: 225 })
    hollow.pieces[0]!.coats.face[0]!.opacity = 0
    expect(engine.pick(hollow, 0, { x: 400, y: 225 })).toBe('box-0')
  })

  test('a group is one piece until it is opened', () => {
    const made = groupPieces(card, ['box-0', 'box-1'])
    expect(engine.pick(made.card, 0, { x: 320, y: 225 })).toBe(made.id)
    expect(engine.pick(made.card, 0, { x: 320, y: 225 }, made.id)).toBe('box-0')
  })
})

/** Shoelace. */
function areaOf(points: readonly number[]): number {
  let sum = 0
  for (let i = 0; i < points.length; i += 2) {
    const j = (i + 2) % points.length
    sum += points[i]! * points[j + 1]! - points[j]! * points[i + 1]!
  }
  return sum / 2
}

describe('forms', () => {
  const area = (path: Parameters<typeof flatten>[0]) => areaOf(flatten(path, 0.0005)[0]!.points)

  test('regular polygons have the area ½ n r² sin 2π/n', () => {
    for (const n of [3, 5, 6, 12]) {
      const wanted = 0.5 * n * 100 * 100 * Math.sin((2 * Math.PI) / n)
      expect(area(polygonPath({ width: 200, height: 200, sides: n, inset: 0, radius: 0 }))).toBeCloseTo(wanted, 6)
    }
  })

  test('a round corner takes r²(tan t/2 − t/2) away, t its outer angle', () => {
    for (const n of [3, 4, 7]) {
      const t = (2 * Math.PI) / n
      const sharp = 0.5 * n * 100 * 100 * Math.sin(t)
      const lost = n * 20 * 20 * (Math.tan(t / 2) - t / 2)
      const rounded = area(polygonPath({ width: 200, height: 200, sides: n, inset: 0, radius: 20 }))
      // The cubic's own error: 4 in 10,000 of a radius at a third of a turn.
      expect(Math.abs(rounded - (sharp - lost))).toBeLessThan(0.0015 * lost * n)
    }
  })

  test('a star reaches from its outer to its inner radius, n times', () => {
    const [ring] = flatten(polygonPath({ width: 200, height: 200, sides: 5, inset: 0.5, radius: 0 }), 0.01)
    const radii = Array.from({ length: 10 }, (_, i) => Math.hypot(ring!.points[i * 2]!, ring!.points[i * 2 + 1]!))
    const inner = 50 * Math.cos(Math.PI / 5)
    radii.forEach((r, i) => expect(r).toBeCloseTo(i % 2 === 0 ? 100 : inner, 6))
  })

  test('corners of a box that do not fit shrink together (CSS Backgrounds 3 §5.5)', () => {
    // The example of the rule: 60 + 40 px on a side of 50 gives a factor of one half for all four.
    const path = boxPath(50, 200, [60, 40, 10, 20])
    expect(path).toEqual(boxPath(50, 200, [30, 20, 5, 10]))
    const quarter = (r: number) => (1 - Math.PI / 4) * r * r
    const lost = [30, 20, 5, 10].reduce((sum, r) => sum + quarter(r), 0)
    expect(area(path)).toBeCloseTo(50 * 200 - lost, 0)
  })
})
