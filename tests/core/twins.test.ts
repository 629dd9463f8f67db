import { describe, expect, test } from '@jest/globals'
import { createMask, createPiece } from '#core/card/create'
import { expectCard } from '#core/card/read'
import type { BoxPiece, Card, GroupPiece, Mask, Piece, TwinPiece, TypePiece } from '#core/card/schema'
import { Engine } from '#core/frame/engine'
import { onRing } from '#core/values/moment'
import { coat, emptyCard, finish, fontBytes, withPiece } from '../support/engine'
import { holdFaults } from '#core/judge/hold-faults'
import { equalPictures, expectSamePicture } from '../support/same-picture'

const SIZE = { w: 256, h: 192 }
const LENGTH = 24

function engineOf(keeps = true): Engine {
  const engine = new Engine(undefined, undefined, { keeps })
  engine.fonts.add('anton', fontBytes('anton'))
  return engine
}

const way = (from: number, to: number) =>
  ({
    keys: [
      { frame: 0, value: from },
      { frame: 12, value: to },
    ],
  }) as never

/** Words that turn, grow, change colour and have a shadow and a finish. */
const WORDS = {
  ...{ id: 'source', wording: 'Oar', font: 'anton', size: 60, x: 80, y: 70 },
  ...{ rotation: way(0, 40), scale: way(80, 120), stretchX: 120 },
  finishes: [finish('blur', { radius: way(0, 6) }, 'soft')],
}

function base(values: Partial<TypePiece> = {}): Card {
  return withPiece<TypePiece>(
    emptyCard(SIZE.w, SIZE.h, LENGTH),
    'type',
    { ...WORDS, ...values } as Partial<TypePiece>,
    {
      face: [coat('fill', 'paint', { paint: { type: 'solid', colour: way('#F6C667' as never, '#1E6B6A' as never) } })],
      behind: [coat('shadow', 'cast', { distance: 8, softness: 6 })],
    },
  )
}

/** A twin in front of a card's pieces, at the place of the piece itself unless said otherwise. */
const twinOf = (own: Card, values: Partial<TwinPiece> = {}): TwinPiece =>
  ({ ...createPiece('twin', own), id: 'twin', source: 'source', x: 80, y: 70, ...values }) as TwinPiece
const alone = (own: Card, twin: TwinPiece): Card =>
  expectCard({ ...own, pieces: [twin, ...own.pieces.map((piece) => ({ ...piece, on: false }))] })

/** The largest difference of two pictures, of 255. */
function differenceOf(engine: Engine, a: Card, b: Card, frame: number, other = frame): number {
  const [one, two] = [engine.render(a, frame).pixels, engine.render(b, other).pixels]
  return one.reduce((most, v, i) => Math.max(most, Math.abs(v - two[i]!)), 0)
}

describe('a twin', () => {
  const engine = engineOf()

  test('is the piece itself, moved by hand', () => {
    const own = base()
    for (const frame of [0, 5, 13]) {
      expect(differenceOf(engine, alone(own, twinOf(own)), own, frame)).toBe(0)
      expect(differenceOf(engine, alone(own, twinOf(own, { x: 150, y: 110 })), base({ x: 150, y: 110 }), frame)).toBe(0)
    }
  })

  test('keeps its place while the piece moves, or goes along with it', () => {
    const moving = base({ x: way(60, 180) })
    const [still, along] = [twinOf(moving, { x: 150 }), twinOf(moving, { x: 20, y: -10, way: 'with' })]
    for (const frame of [3, 12, 20]) {
      expect(differenceOf(engine, alone(moving, still), base({ x: 150 }), frame)).toBeLessThanOrEqual(1)
      expect(differenceOf(engine, alone(moving, along), base({ x: way(80, 200), y: 60 }), frame)).toBeLessThanOrEqual(1)
    }
  })

  test('mirrors, turns and fades what it shows', () => {
    const own = base({ rotation: 0, finishes: [] })
    const behind = { ...own.pieces[0]!, coats: { face: own.pieces[0]!.coats.face, behind: [] } }
    const bare = { ...own, pieces: [behind] }
    const mirrored = alone(bare, twinOf(bare, { stretchX: -100, opacity: 50 }))
    const hand = expectCard({ ...bare, pieces: [{ ...behind, stretchX: -120, opacity: 50 } as Piece] })
    expect(differenceOf(engine, mirrored, hand, 4)).toBeLessThanOrEqual(1)
  })

  test('shows what was so many frames ago, round the loop, with motion blur too', () => {
    for (const shutter of [null, { angle: 180, phase: -90 }]) {
      const own = { ...base(), shutter }
      for (const [delay, frame] of [
        [5, 9],
        [5, 2],
        [-7, 20],
        [2.5, 9],
      ] as const) {
        const late = alone(own, twinOf(own, { delay }))
        if (Number.isInteger(delay))
          expect(differenceOf(engine, late, own, frame, onRing(frame - delay, LENGTH))).toBeLessThanOrEqual(1)
        // A fraction is a moment between two frames: neither of them.
        else expect(differenceOf(engine, late, own, frame, 7)).toBeGreaterThan(0)
      }
    }
  })

  test('shows groups and twins, and takes along what a piece is seen within', () => {
    const disc = {
      ...createPiece('ellipse', base()),
      id: 'disc',
      x: 80,
      y: 60,
      width: way(40, 90),
      height: 60,
      on: false,
    }
    const matte = { ...createMask('matte', 'held'), source: 'disc' } as Mask
    const held = base({ masks: [matte] })
    const own = { ...held, pieces: [...held.pieces, disc as Piece] }
    const moved = {
      ...own,
      pieces: own.pieces.map(
        (piece) => ({ ...piece, x: (piece.x as number) + 40, y: (piece.y as number) + 31 }) as Piece,
      ),
    }
    const shown = alone(own, twinOf(own, { x: 120, y: 101 }))
    for (const frame of [2, 8]) {
      expect(differenceOf(engine, shown, moved, frame)).toBeLessThanOrEqual(1)
      // What was seen within the disc then.
      expect(
        differenceOf(engine, alone(own, twinOf(own, { delay: 4 })), own, frame, onRing(frame - 4, LENGTH)),
      ).toBeLessThanOrEqual(1)
    }
    const group = { ...createPiece('group', own), id: 'both', x: 30, y: 20, pieces: own.pieces } as GroupPiece
    const grouped = { ...own, pieces: [group] }
    const twin = twinOf(grouped, { source: 'both', x: 30, y: 20, delay: 3 })
    const again = { ...twinOf(grouped, { source: 'twin', x: 30, y: 20, delay: 2 }), id: 'twin-2' } as TwinPiece
    const twice = expectCard({
      ...grouped,
      pieces: [again, { ...twin, on: false }, { ...group, on: false }] as Piece[],
    })
    expect(differenceOf(engine, twice, grouped, 11, 6)).toBeLessThanOrEqual(1)
  })

  test('in a circle, or of nothing, shows nothing', () => {
    const own = base({ masks: [{ ...createMask('matte', 'held'), source: 'twin' } as Mask] })
    const empty = engine.render({ ...own, pieces: [] }, 0)
    for (const source of [null, 'nobody', 'source', 'twin']) {
      expect(equalPictures(engine.render(alone(own, twinOf(own, { source })), 0), empty)).toBe(true)
    }
  })

  test('has coats, finishes and masks of its own, the same in parts and with nothing kept', () => {
    const bare = engineOf(false)
    const own = base({ x: way(40, 140) })
    const looks = {
      coats: { face: [coat('stroke', 'ring', { width: 3 })], behind: [coat('glow', 'shine', { reach: 12 })] },
      finishes: [finish('trails', { copies: 3, spacing: 2 }, 'trail')],
      masks: [{ ...createMask('matte', 'held'), source: 'plate', stage: 'after' } as Mask],
    }
    const plate = {
      ...createPiece('box', own),
      id: 'plate',
      x: 150,
      y: 100,
      width: 150,
      height: 90,
      on: false,
    } as BoxPiece
    const twin = twinOf(own, { ...looks, x: 150, y: 110, delay: 3.5, way: 'with', rotation: way(0, 30) })
    const nested = {
      ...createPiece('group', own),
      id: 'inner',
      x: way(0, 5),
      y: 3,
      pieces: [twin],
    } as unknown as GroupPiece
    for (const shutter of [null, { angle: 180, phase: 0 }]) {
      const all = expectCard({ ...own, shutter, pieces: [nested, plate, ...own.pieces] })
      for (const frame of [2, 15]) expectSamePicture(engine, bare, all, frame, `frame ${frame}`)
    }
  })

  test('is told where it does nothing, and where twins of twins become too many', () => {
    const own = base({ masks: [{ ...createMask('matte', 'held'), source: 'twin' } as Mask] })
    const messages = (source: string | null, more: Partial<TwinPiece> = {}) =>
      holdFaults(alone(own, twinOf(own, { source, ...more }))).map(({ address, message }) => `${address}: ${message}`)
    expect(messages(null)).toContainEqual(expect.stringMatching(/^twin\/source: It shows no piece yet/))
    expect(messages('nobody')).toContainEqual(expect.stringMatching(/^twin\/source: “nobody” is gone/))
    expect(messages('source')).toContainEqual(expect.stringMatching(/^twin\/source: “Type” leads back/))
    const late = messages('source', { clock: 'own', clockFrom: 9, clockTo: 4 })
    expect(late).toContainEqual(expect.stringMatching(/^twin\/clockTo: Its clock ends before it begins/))

    // Each group holds two twins of the next: 2 to the power of 40 in the first.
    const group = (i: number) =>
      ({
        ...createPiece('group', own),
        id: `g-${i}`,
        pieces: [1, 2].map((k) => ({ ...twinOf(own, { source: `g-${i + 1}` }), id: `t-${i}-${k}` })),
      }) as GroupPiece
    const many = { ...own, pieces: Array.from({ length: 40 }, (_, i) => group(i)) }
    expect(() => engine.render(many, 0)).toThrow(/^pieces\[0\]\.pieces\[0\]: .* more than 20000 pieces/)
    expect(() => engine.render({ ...many, pieces: many.pieces.slice(0, 9) }, 0)).not.toThrow()
  })
})
