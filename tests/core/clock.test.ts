import { describe, expect, test } from '@jest/globals'
import { shiftPiece } from '#core/edit/arrange'
import { moveAnchor } from '#core/edit/grouping'
import { storedAt, toggleKey, writeValue } from '#core/edit/values'
import { createPiece } from '#core/card/create'
import type { Moving } from '#core/values/moving'
import type { Card, GroupPiece } from '#core/card/schema'
import { seamReport } from '#core/judge/seam'
import { frameIn, frameOutOf, hasClock, momentIn } from '#core/time/clock'
import { evaluateCard } from '#core/time/evaluate'
import { coat, emptyCard, engineWithFonts, solid, withBox } from '../support/engine'

const LENGTH = 20
/** A group whose contents run so many frames ahead. */
const ahead = (by: number) => ({ clock: 'own' as const, clockStart: -by, clockEnd: 'again' as const })

function card(clock: Partial<GroupPiece> = ahead(5)): Card {
  const way = {
    keys: [
      { frame: 0, value: 10 },
      { frame: 10, value: 70 },
    ],
  }
  const fill = coat('fill', 'fill', { paint: solid('#E2683C') })
  const inner = withBox(
    emptyCard(120, 80, LENGTH),
    {
      id: 'inner',
      width: 24,
      height: 24,
      x: way,
      y: 40,
      opacity: {
        keys: [
          { frame: 0, value: 100 },
          { frame: 8, value: 30 },
        ],
      },
    },
    { face: [fill] },
  )
  const group = {
    ...createPiece('group', inner),
    ...clock,
    id: 'all',
    x: {
      keys: [
        { frame: 0, value: 0 },
        { frame: 12, value: 20 },
      ],
    },
    y: 0,
  }
  return { ...inner, pieces: [{ ...group, pieces: inner.pieces } as GroupPiece] }
}

/** The card as it would be without the group's own motion. */
const held = (own: Card): Card => ({ ...own, pieces: own.pieces.map((piece) => ({ ...piece, x: 5 })) })

describe('a group that gives what it holds a time of its own', () => {
  const engine = engineWithFonts()
  const without = card({})
  const plain = () => Array.from({ length: LENGTH }, (_, frame) => engine.render(held(without), frame).pixels)

  test('shows it then, with motion blur too, and its own place by the time around it', () => {
    const unclocked = plain()
    for (const frame of [0, 4, 11, 17]) {
      const shown = Buffer.from(engine.render(held(card()), frame).pixels)
      expect(shown.equals(unclocked[(frame + 5) % LENGTH]!)).toBe(true)
    }
    expect(momentIn(card(), 'all', 3).frame).toBe(3)
    expect(momentIn(card(), 'inner', 17).frame).toBe(2)
    const blurred = (own: Card) => ({ ...held(own), shutter: { angle: 180, phase: 0 } })
    const late = Buffer.from(engine.render(blurred(card()), 2).pixels)
    expect(late.equals(Buffer.from(engine.render(blurred(without), 7).pixels))).toBe(true)
  })

  test('stands on the stage and is evaluated where it is seen', () => {
    const at = (frame: number, own = card()) =>
      engine.outlook(held(own), frame).find(({ id }) => id === 'inner')!.bounds
    const values = (frame: number, own = card()) =>
      evaluateCard(own, frame).flatMap(({ address, value }) =>
        address === 'inner/x' || address === 'all/x' ? [value] : [],
      )
    const [own, inside] = [values(6)[0], values(6)[1]]
    expect(at(6)).toEqual(at(11, without))
    expect(own).toBe(values(6, without)[0])
    expect(inside).toBe(values(11, without)[1])
  })

  test('takes keys where it runs: what a hand writes is what is seen', () => {
    const frames = (own: Card, address: string) =>
      (storedAt(own, address) as Moving<number>).keys.map(({ frame }) => frame)
    const valueAt = (own: Card, address: string, frame: number) =>
      evaluateCard(own, frame).find((entry) => entry.address === address)!.value
    const written = writeValue(card(), 'inner/x', 2, 33)
    expect(frames(written, 'inner/x')).toEqual([0, 7, 10])
    expect(valueAt(written, 'inner/x', 2)).toBe(33)
    expect(frames(writeValue(card(), 'all/x', 2, 33), 'all/x')).toEqual([0, 2, 12])
    expect(frames(toggleKey(card(), 'inner/opacity', 3), 'inner/opacity')).toEqual([0])
    const outlook = engine.outlook(card(), 2).find(({ id }) => id === 'inner')!
    const shifted = shiftPiece(card(), outlook, { x: 4, y: 0 }, 2)
    expect(valueAt(shifted, 'inner/x', 2)).toBeCloseTo((valueAt(card(), 'inner/x', 2) as number) + 4, 2)
    const turned = moveAnchor(card(), 'inner', { x: 12, y: 0 }, 2)
    expect(engine.outlook(turned, 2).find(({ id }) => id === 'inner')!.bounds.left).toBeCloseTo(outlook.bounds.left, 3)
  })

  test('goes there and back, through groups in groups', () => {
    const outer = { ...createPiece('group', card()), ...ahead(5), id: 'outer', pieces: card().pieces } as GroupPiece
    const nested = { ...card(), pieces: [outer] }
    expect(frameIn(nested, 'inner', 4)).toBe(14)
    for (let frame = 0; frame < LENGTH; frame++) {
      expect(frameOutOf(nested, 'inner', frameIn(nested, 'inner', frame), frame)).toBe(frame)
    }
    expect([hasClock(nested, 'inner'), hasClock(nested, 'outer'), hasClock(nested, null)]).toEqual([true, false, false])
    expect(frameOutOf(nested, 'outer', 7, 0)).toBe(7)
  })

  test('has its seam where the card has it', () => {
    // Held keys: inside, the value leaps at frame 0; seen from the card that is frame 15.
    const leaping = {
      keys: [
        { frame: 0, value: 10 },
        { frame: 19, value: 70 },
      ],
      loop: false,
    }
    const verdict = (own: Card) => {
      const [group] = own.pieces as GroupPiece[]
      const moved = { ...own, pieces: [{ ...group!, pieces: [{ ...group!.pieces[0]!, x: leaping }] }] } as Card
      return seamReport(moved).find(({ address }) => address === 'inner/x')!.verdict
    }
    expect(verdict(card())).not.toBe('jump')
    expect(verdict(without)).toBe('jump')
  })
})

/** A card whose box stands at 10 px times the frame within. */
function counting(clock: Partial<GroupPiece>): Card {
  const way = {
    keys: [
      { frame: 0, value: 0 },
      { frame: LENGTH - 1, value: 10 * (LENGTH - 1) },
    ],
    loop: false,
  }
  const inner = withBox(
    emptyCard(240, 40, LENGTH),
    { id: 'inner', width: 30, height: 20, x: way, y: 20 },
    { face: [coat('fill', 'fill')] },
  )
  const group = { ...createPiece('group', inner), ...clock, id: 'all', x: 0, y: 0 }
  return { ...inner, pieces: [{ ...group, pieces: inner.pieces } as GroupPiece] }
}

describe('a clock', () => {
  const engine = engineWithFonts()
  const shown = (clock: Partial<GroupPiece>) =>
    Array.from({ length: LENGTH }, (_, frame) => frameIn(counting(clock), 'inner', frame))
  const own = { clock: 'own', clockStart: 4, clockFrom: 3, clockTo: 8 } as const

  test('holds the first frame before its start, and the last one after its end', () => {
    expect(shown({ ...own, clockEnd: 'hold' })).toEqual([3, 3, 3, 3, 3, 4, 5, 6, ...new Array<number>(12).fill(7)])
    const backward = shown({ ...own, clockEnd: 'hold', clockBackward: true })
    expect(backward).toEqual([7, 7, 7, 7, 7, 6, 5, 4, ...new Array<number>(12).fill(3)])
  })

  test('goes again from the first frame, and to and fro with each end once, both ways', () => {
    expect(shown({ ...own, clockEnd: 'again' }).slice(0, 12)).toEqual([4, 5, 6, 7, 3, 4, 5, 6, 7, 3, 4, 5])
    expect(shown({ ...own, clockEnd: 'again', clockBackward: true }).slice(0, 12)).toEqual([
      6, 5, 4, 3, 7, 6, 5, 4, 3, 7, 6, 5,
    ])
    expect(shown({ ...own, clockEnd: 'fro' }).slice(0, 14)).toEqual([7, 6, 5, 4, 3, 4, 5, 6, 7, 6, 5, 4, 3, 4])
    expect(shown({ ...own, clockEnd: 'fro', clockBackward: true }).slice(0, 9)).toEqual([3, 4, 5, 6, 7, 6, 5, 4, 3])
    // A single frame is that frame.
    for (const clockEnd of ['hold', 'again', 'fro', 'stop'] as const) {
      expect(new Set(shown({ ...own, clockTo: 4, clockEnd }).slice(4, 5))).toEqual(new Set([3]))
    }
  })

  test('runs at its speed, between frames too, and by hand as its frame is keyed', () => {
    expect(shown({ ...own, clockSpeed: 50, clockEnd: 'hold' }).slice(4, 14)).toEqual([
      3, 3.5, 4, 4.5, 5, 5.5, 6, 6.5, 7, 7,
    ])
    expect(shown({ ...own, clockSpeed: 200, clockEnd: 'again' }).slice(4, 10)).toEqual([3, 5, 7, 4, 6, 3])
    const keyed = {
      keys: [
        { frame: 0, value: 2 },
        { frame: 10, value: 12 },
      ],
      loop: false,
    }
    expect(shown({ clock: 'keyed', clockFrame: keyed }).slice(8, 13)).toEqual([10, 11, 12, 12, 12])
  })

  test('shows, frame by frame, the frames within as they are without it', () => {
    const plain = counting({})
    const pictures = Array.from({ length: LENGTH }, (_, frame) => Buffer.from(engine.render(plain, frame).pixels))
    for (const clockEnd of ['stop', 'hold', 'again', 'fro'] as const) {
      for (const clockBackward of [false, true]) {
        const clock = { ...own, clockEnd, clockBackward }
        const frames = shown(clock)
        for (let frame = 0; frame < LENGTH; frame++) {
          const picture = Buffer.from(engine.render(counting(clock), frame).pixels)
          const gone = clockEnd === 'stop' && (frame < 4 || frame >= 9)
          if (gone) expect(picture.every((v) => v === 0)).toBe(true)
          else expect(picture.equals(pictures[frames[frame]!]!)).toBe(true)
        }
      }
    }
  })

  test('is found back: the frame around at which a frame within is shown', () => {
    const keyed = {
      keys: [
        { frame: 0, value: 2 },
        { frame: 10, value: 12 },
        { frame: 18, value: 0 },
      ],
      loop: false,
    }
    const clocks: Partial<GroupPiece>[] = [
      ...(['stop', 'hold', 'again', 'fro'] as const).flatMap((clockEnd) =>
        [false, true].flatMap((clockBackward) =>
          [50, 100, 200].map((clockSpeed) => ({ ...own, clockEnd, clockBackward, clockSpeed })),
        ),
      ),
      { clock: 'keyed', clockFrame: keyed },
    ]
    for (const clock of clocks) {
      for (let frame = 0; frame < LENGTH; frame++) {
        const card = counting(clock)
        const inside = frameIn(card, 'inner', frame)
        const out = frameOutOf(card, 'inner', inside, frame)
        expect(out).not.toBeNull()
        expect(frameIn(card, 'inner', out!)).toBeCloseTo(inside, 9)
      }
      expect(frameOutOf(counting(clock), 'inner', 19, 5)).toBeNull()
    }
  })

  test('holds within clocks within clocks, one after the other', () => {
    const outer = {
      ...createPiece('group', counting({})),
      id: 'outer',
      clock: 'own',
      clockSpeed: 200,
      clockEnd: 'again',
    } as GroupPiece
    const inner = counting({ clock: 'own', clockStart: 0, clockFrom: 0, clockTo: 6, clockEnd: 'fro' })
    const card = { ...inner, pieces: [{ ...outer, pieces: inner.pieces }] }
    // 2 · 4 = 8 frames around: 8 mod 10 of to and fro over 0…5.
    expect(frameIn(card, 'inner', 4)).toBe(2)
  })
})
