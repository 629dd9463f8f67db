import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import {
  copyKeys,
  easeKeys,
  moveKeys,
  pasteKeys,
  removeKeys,
  reverseKeys,
  shiftMotion,
  spreadKeys,
} from '#core/edit/keys'
import { addMotor, changeMotor } from '#core/edit/motors'
import { moveSpan, setSpan, splitPiece } from '#core/edit/spans'
import { stagger, staggerOrder } from '#core/edit/stagger'
import { ungroupPiece } from '#core/edit/grouping'
import { changeUnit, stopMoving, storedAt, toggleKey, writeValue } from '#core/edit/values'
import { createPiece } from '#core/card/create'
import { createMotor } from '#core/values/motors/schema'
import type { Moving } from '#core/values/moving'
import { reversedEasing } from '#core/values/easing-shapes'
import type { Card, GroupPiece } from '#core/card/schema'
import { coat, emptyCard, solid, withBox } from '../support/engine'

const keys = (...at: [number, number, string?][]) =>
  at.map(([frame, value, easing]) => ({ frame, value, ...(easing ? { easing } : {}) }))
const fill = (n: number) => coat('fill', `fill-${n}`, { paint: solid('#F2A33C') })
const row = (...values: object[]): Card =>
  values.reduceRight<Card>(
    (card, value, i) => withBox(card, { id: `box-${i}`, x: 100 + i * 50, y: 90, ...value }, { face: [fill(i)] }),
    emptyCard(320, 180, 50),
  )
const moving = (card: Card, address: string) => storedAt(card, address) as Moving<number>
const framesOf = (card: Card, address: string) => moving(card, address).keys.map(({ frame }) => frame)
const at = (address: string, ...frames: number[]) => frames.map((frame) => ({ address, frame }))

const card = row({ x: { keys: keys([10, 0, 'ease-in'], [20, 50], [40, 100]) }, y: { keys: keys([10, 90], [30, 20]) } })

describe('keys of several lanes', () => {
  test('move together, none beyond the loop; a key that they land on is replaced', () => {
    const both = [...at('box-0/x', 10, 20), ...at('box-0/y', 10)]
    const moved = moveKeys(card, both, 20)
    expect(framesOf(moved.card, 'box-0/x')).toEqual([30, 40])
    expect(moving(moved.card, 'box-0/x').keys[1]).toMatchObject({ value: 50 })
    expect(framesOf(moved.card, 'box-0/y')).toEqual([30])
    expect(moved.keys).toEqual([...at('box-0/x', 30, 40), ...at('box-0/y', 30)])
    expect(framesOf(moveKeys(card, both, -99).card, 'box-0/x')).toEqual([0, 10, 40])
    expect(framesOf(moveKeys(card, both, 99).card, 'box-0/x')).toEqual([39, 40, 49])
  })

  test('spread and squeezed about a frame they stay apart and in the loop', () => {
    expect(framesOf(spreadKeys(card, at('box-0/x', 10, 20, 40), 20, 0.5).card, 'box-0/x')).toEqual([15, 20, 30])
    expect(framesOf(spreadKeys(card, at('box-0/x', 10, 20, 40), 20, 0).card, 'box-0/x')).toEqual([20, 21, 22])
    expect(framesOf(spreadKeys(card, at('box-0/x', 10, 20, 40), 20, 9).card, 'box-0/x')).toEqual([0, 20, 49])
  })

  test('run backward the motion is its mirror image', () => {
    const all = at('box-0/x', 10, 20, 40)
    const back = moving(reverseKeys(card, all).card, 'box-0/x')
    expect(back.keys.map(({ frame, value }) => [frame, value])).toEqual([
      [10, 100],
      [30, 50],
      [40, 0],
    ])
    expect(back.keys[1]!.easing).toBe(reversedEasing('ease-in'))
    const once = reverseKeys(card, all)
    expect(reverseKeys(once.card, once.keys).card.pieces).toEqual(card.pieces)
  })

  test('run backward the way that follows the last of them is eased as it was', () => {
    const eased = row({ x: { keys: keys([10, 0, 'ease-in'], [20, 50, 'hold'], [40, 100]) } })
    const back = moving(reverseKeys(eased, at('box-0/x', 10, 20)).card, 'box-0/x')
    expect(back.keys).toEqual(keys([10, 50, reversedEasing('ease-in')], [20, 0, 'hold'], [40, 100]))
  })

  test('where none stands nothing is changed', () => {
    for (const { card: next, keys: places } of [
      moveKeys(card, at('box-0/x', 11), 5),
      reverseKeys(card, at('box-0/x', 11)),
      reverseKeys(card, at('box-0/opacity', 10)),
    ]) {
      expect(next).toBe(card)
      expect(places).toEqual([])
    }
    expect(easeKeys(card, at('box-0/y', 11), 'hold')).toBe(card)
  })

  test('are eased and taken away; the last one leaves its value', () => {
    const eased = easeKeys(card, [...at('box-0/x', 20), ...at('box-0/y', 10)], 'hold')
    expect(moving(eased, 'box-0/x').keys.map(({ easing }) => easing)).toEqual(['ease-in', 'hold', undefined])
    expect(moving(eased, 'box-0/y').keys[0]!.easing).toBe('hold')
    const bare = removeKeys(card, [...at('box-0/x', 10), ...at('box-0/y', 10, 30)])
    expect(framesOf(bare, 'box-0/x')).toEqual([20, 40])
    expect(storedAt(bare, 'box-0/y')).toBe(90)
  })

  test('copied, they are pasted at the playhead on the same values of other pieces, and come round the seam', () => {
    const two = row({ x: { keys: keys([10, 0], [20, 50]) } }, {})
    const clip = copyKeys(two, at('box-0/x', 10, 20))
    const pasted = pasteKeys(two, clip, ['box-1'], 45)
    expect(moving(pasted.card, 'box-1/x').keys).toEqual(keys([5, 50], [45, 0]))
    expect(framesOf(pasted.card, 'box-0/x')).toEqual([10, 20])
    expect(pasted.keys).toEqual(at('box-1/x', 45, 5))
    expect(framesOf(pasteKeys(two, clip, ['box-0'], 30).card, 'box-0/x')).toEqual([10, 20, 30, 40])
  })

  test('edits of any keys keep lanes in the order of their frames, each frame once', () => {
    const frame = fc.integer({ min: 0, max: 49 })
    fc.assert(
      fc.property(
        fc.uniqueArray(frame, { minLength: 1, maxLength: 9 }),
        fc.uniqueArray(fc.nat(8), { minLength: 1 }),
        fc.integer({ min: -60, max: 60 }),
        fc.double({ min: 0, max: 4, noNaN: true }),
        (frames, picks, by, factor) => {
          const lane = [...frames].sort((a, b) => a - b).map((f, i) => ({ frame: f, value: i }))
          const some = row({ x: { keys: lane } })
          const chosen = picks.flatMap((i) => (lane[i] ? [{ address: 'box-0/x', frame: lane[i].frame }] : []))
          if (chosen.length === 0) return
          for (const { card: next } of [
            moveKeys(some, chosen, by),
            spreadKeys(some, chosen, 25, factor),
            reverseKeys(some, chosen),
          ]) {
            const found = framesOf(next, 'box-0/x')
            expect(found).toEqual([...new Set(found)].sort((a, b) => a - b))
            expect(Math.min(...found)).toBeGreaterThanOrEqual(0)
            expect(Math.max(...found)).toBeLessThan(50)
          }
        },
      ),
    )
  })
})

describe('stagger', () => {
  const three = row({ opacity: { keys: keys([0, 0], [10, 100]) }, x: { keys: keys([0, 20], [10, 100]) } }, {}, {})
  const how = { ids: ['box-0', 'box-1', 'box-2'], by: 4, order: 'stack', seed: 1 } as const

  test('the same motion so many frames later from piece to piece; each comes to rest at its own place', () => {
    const wave = stagger(three, how)
    expect(framesOf(wave, 'box-1/opacity')).toEqual([4, 14])
    expect(framesOf(wave, 'box-2/opacity')).toEqual([8, 18])
    expect(moving(wave, 'box-2/x').keys.map(({ value }) => value)).toEqual([120, 200])
    expect(moving(wave, 'box-0/x')).toEqual(moving(three, 'box-0/x'))
  })

  test('on the ring it comes round; done again it gives the same', () => {
    const wave = stagger(three, { ...how, by: 22 })
    expect(framesOf(wave, 'box-2/opacity')).toEqual([4, 44])
    expect(stagger(wave, { ...how, by: 22 })).toEqual(wave)
  })

  test('by place from left to right, by seed the same for the same seed', () => {
    const places = new Map([
      ['box-0', { x: 300, y: 0 }],
      ['box-1', { x: 100, y: 5 }],
      ['box-2', { x: 100, y: 2 }],
    ])
    const order = (values: object) => staggerOrder(three, { ...how, ...values }).map(({ id }) => id)
    expect(order({ order: 'place', places })).toEqual(['box-2', 'box-1', 'box-0'])
    expect(order({ order: 'seed', seed: 7 })).toEqual(order({ order: 'seed', seed: 7 }))
    const orders = new Set(Array.from({ length: 20 }, (_, seed) => order({ order: 'seed', seed }).join()))
    expect(orders.size).toBeGreaterThan(2)
    expect(order({ places })).toEqual(['box-0', 'box-1', 'box-2'])
  })

  test('what a piece does not have is left out', () => {
    const wave = row({ radius: { keys: keys([0, 0], [10, 9]) }, opacity: { keys: keys([0, 0], [10, 100]) } }, {})
    const other = { ...createPiece('ellipse', wave), id: 'ring' }
    const two = { ...wave, pieces: [...wave.pieces.slice(0, 1), other] } as Card
    const { pieces } = stagger(two, { ...how, ids: ['box-0', 'ring'] })
    expect(pieces[1]).toEqual({ ...other, opacity: { keys: keys([4, 0], [14, 100]) } })
  })
})

describe('spans', () => {
  const moves = row({ x: { keys: keys([10, 0], [20, 50]) }, span: { in: 5, out: 25 } })
  const spanOf = (of: Card, n = 0) => of.pieces[n]!.span

  test('trimmed they keep the motion, moved they take it along, slid only the motion moves', () => {
    expect(spanOf(setSpan(moves, 'box-0', { in: -4, out: 60 }))).toBeNull()
    expect(spanOf(setSpan(moves, 'box-0', { in: 30, out: 20 }))).toEqual({ in: 30, out: 31 })
    const later = moveSpan(moves, 'box-0', 8)
    expect([spanOf(later), framesOf(later, 'box-0/x')]).toEqual([{ in: 13, out: 33 }, [18, 28]])
    expect(spanOf(moveSpan(moves, 'box-0', 99))).toEqual({ in: 30, out: 50 })
    const slid = shiftMotion(moves, 'box-0', -12)
    expect([spanOf(slid), framesOf(slid, 'box-0/x')]).toEqual([{ in: 5, out: 25 }, [8, 48]])
  })

  test('motion that is slid comes round on the ring; an open line stays behind frame 0, keys beyond the loop stay beyond', () => {
    const open = row({ x: { keys: keys([10, 0], [20, 50]), loop: false }, y: { keys: keys([5, 1], [50, 2], [60, 3]) } })
    const earlier = shiftMotion(open, 'box-0', -12)
    expect([framesOf(earlier, 'box-0/x'), framesOf(earlier, 'box-0/y')]).toEqual([
      [0, 10],
      [38, 43, 48],
    ])
    expect(framesOf(shiftMotion(open, 'box-0', 45), 'box-0/x')).toEqual([55, 65])
    expect(framesOf(shiftMotion(open, 'box-0', 5), 'box-0/y')).toEqual([10, 55, 65])
    // What was pushed to the start is not torn apart when it is pushed on.
    expect(framesOf(shiftMotion(earlier, 'box-0', -12), 'box-0/x')).toEqual([0, 10])
  })

  test('a piece is split at the playhead in two that follow each other', () => {
    const split = splitPiece(moves, 'box-0', 12)!
    expect(split.card.pieces.map(({ span }) => span)).toEqual([
      { in: 5, out: 12 },
      { in: 12, out: 25 },
    ])
    expect(new Set(split.card.pieces.flatMap(({ id, coats }) => [id, ...coats.face.map((c) => c.id)])).size).toBe(4)
    expect(splitPiece(moves, 'box-0', 5)).toBeNull()
    expect(splitPiece(moves, 'box-0', 25)).toBeNull()
  })
})

test('a motor gives a still value its key and takes it away again; its value is changed at every frame', () => {
  const still = row({})
  const driven = addMotor(still, 'box-0/rotation', 'sway', 7)
  expect(storedAt(driven, 'box-0/rotation')).toMatchObject({ keys: [{ value: 0 }], motors: [{ kind: 'sway' }] })
  const changed = changeMotor(driven, 'box-0/rotation', 0, { amount: 3 })
  expect(moving(changed, 'box-0/rotation').motors![0]).toMatchObject({ amount: 3, cycles: 1 })
  expect(moving(writeValue(changed, 'box-0/rotation', 30, 45), 'box-0/rotation').keys).toMatchObject([{ value: 45 }])
  expect(storedAt(changeMotor(changed, 'box-0/rotation', 0, null), 'box-0/rotation')).toBe(0)
})

describe('a value that has motors', () => {
  const driven = (name: 'x' | 'rotation', motors: object[], values: object = {}) =>
    row({ [name]: { keys: keys([5, 40]), motors }, ...values })

  test('keeps them when its last key is taken away, by the key circle or on the ribbon', () => {
    const some = driven('x', [{ ...createMotor('sway'), amount: 7 }])
    for (const bare of [toggleKey(some, 'box-0/x', 5), removeKeys(some, at('box-0/x', 5))]) {
      expect(moving(bare, 'box-0/x')).toMatchObject({ keys: [{ frame: 0, value: 40 }], motors: [{ amount: 7 }] })
    }
  })

  test('a key that is set holds the value without them; standing still, it stays where it is seen', () => {
    const spinning = driven('rotation', [{ ...createMotor('spin'), amount: 100 }])
    const keyed = toggleKey(spinning, 'box-0/rotation', 25)
    expect(moving(keyed, 'box-0/rotation').keys[1]).toMatchObject({ frame: 25, value: 40 })
    expect(storedAt(stopMoving(spinning, 'box-0/rotation', 25), 'box-0/rotation')).toBeCloseTo(90, 9)
  })

  test('in another unit and out of a group that is scaled, what they add means the same', () => {
    const stroke = coat('stroke', 'line', {
      width: { keys: keys([0, 8]), motors: [{ ...createMotor('sway'), amount: 4 }] },
    })
    const lined = withBox(emptyCard(320, 180, 50), { id: 'a' }, { face: [stroke] })
    const percent = changeUnit(lined, 'a/line/width', '%', 160)
    expect(storedAt(percent, 'a/line/width')).toMatchObject({
      unit: '%',
      keys: [{ value: 5 }],
      motors: [{ amount: 2.5, cycles: 1 }],
    })
    expect(storedAt(changeUnit(percent, 'a/line/width', 'px', 160), 'a/line/width')).toEqual(
      storedAt(lined, 'a/line/width'),
    )

    const inner = driven('x', [
      { ...createMotor('sway'), amount: 6 },
      { ...createMotor('jitter'), amount: 2 },
    ])
    const group = {
      ...createPiece('group', inner),
      id: 'group',
      x: 100,
      y: 50,
      scale: 200,
      pieces: inner.pieces,
    } as GroupPiece
    const { card: freed } = ungroupPiece({ ...inner, pieces: [group] }, 'group', 0)
    expect(moving(freed, 'box-0/x')).toMatchObject({
      keys: [{ value: 180 }],
      motors: [{ amount: 12 }, { amount: 4, rate: 8 }],
    })
  })
})

describe('copied keys', () => {
  const clipOf = (value: object) => {
    const lined = withBox(emptyCard(320, 180, 50), { id: 'a' }, { face: [coat('stroke', 'line', { width: value })] })
    return { card: lined, clip: copyKeys(lined, at('a/line/width', 0, 10)) }
  }
  const two = { keys: keys([0, 8], [10, 20]) }

  test('outlive their piece and go to another card, onto the coat of the same kind and side', () => {
    const { clip } = clipOf(two)
    const other = withBox(emptyCard(320, 180, 30), { id: 'b' }, { face: [coat('stroke', 'rim')] })
    expect(framesOf(pasteKeys(other, clip, ['b'], 25).card, 'b/rim/width')).toEqual([5, 25])
    // Nowhere to put them: nothing changes, nothing breaks.
    for (const ids of [[], ['gone'], ['c']]) {
      const plain = withBox(emptyCard(320, 180, 30), { id: 'c' }, { face: [] })
      expect(pasteKeys(plain, clip, ids, 0)).toEqual({ card: plain, keys: [] })
    }
  })

  test('in another unit they take the lane’s place', () => {
    const { clip } = clipOf({ unit: '%', ...two })
    const { card: px } = clipOf({ keys: keys([30, 3]) })
    expect(storedAt(pasteKeys(px, clip, ['a'], 2).card, 'a/line/width')).toEqual({
      unit: '%',
      keys: keys([2, 8], [12, 20]),
    })
  })

  test('of the card’s own light are put back on it', () => {
    const lit = { ...row({}), light: { azimuth: { keys: keys([0, 90], [10, 120]) }, elevation: 45 } }
    const clip = copyKeys(lit, at('light/azimuth', 0, 10))
    expect(framesOf(pasteKeys(lit, clip, ['box-0'], 20).card, 'light/azimuth')).toEqual([0, 10, 20, 30])
  })
})
