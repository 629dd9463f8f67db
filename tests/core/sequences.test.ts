import { describe, expect, test } from '@jest/globals'
import { createPiece } from '#core/card/create'
import { moveSpan } from '#core/edit/spans'
import { freezePiece, repeatPiece, reversePiece } from '#core/edit/clocks'
import type { Card, GroupPiece, Piece, SequencePiece, TwinPiece } from '#core/card/schema'
import { Engine } from '#core/frame/engine'
import { foreseen } from '#core/frame/fetching'
import type { Picture } from '#core/paint/pictures'
import { SequenceBook } from '#core/paint/sequences'
import { motionFaults } from '#core/judge/motion-faults'
import { shownPictures } from '#core/pieces/sequence'
import { momentOf } from '#core/time/ring'
import { toDisplay, toLinear } from '#core/values/oklab'
import { emptyCard, finish, floatsOf, pixelAt, solid } from '../support/engine'
import { plain, SEQUENCE, supplied, withSequence } from '../support/sequences'

const LENGTH = 40
/** Picture i is a grey of that many tenths of the way. */
const grey = (i: number) => plain(16, 8, [i * 10, i * 10, i * 10, 255])
const GREY = { x: 64, y: 32, width: 64, height: 32 }
const blank = (length = LENGTH) => emptyCard(128, 64, length)

const piece = ({ pieces }: Card) => pieces[0] as SequencePiece
const shownAt = (card: Card, frame: number) => shownPictures(piece(card), momentOf(card, frame))
/** The one picture that is shown at each frame. */
const indices = (card: Card, count: number) =>
  Array.from({ length: count }, (_, frame) => {
    const shown = shownAt(card, frame)
    expect(shown).toHaveLength(1)
    return shown[0]!.index
  })

const greyAt = (card: Card, frame: number, engine = new Engine()) =>
  Math.round(
    pixelAt(
      supplied(engine, grey, () => engine.render(card, frame)),
      64,
      32,
    )[0] * 255,
  )

describe('which pictures of a sequence are shown', () => {
  test('one for each frame of the card, again from the first', () => {
    expect(indices(withSequence(blank(), 7), 9)).toEqual([0, 1, 2, 3, 4, 5, 6, 0, 1])
  })

  test('a cut of it, from a frame on, held, to and fro, stopped and backward', () => {
    const cut = { clockStart: 2, clockFrom: 3, clockTo: 6 } as const
    const of = (values: Partial<SequencePiece>) => withSequence(blank(), 9, { ...cut, ...values })
    expect(indices(of({}), 9)).toEqual([4, 5, 3, 4, 5, 3, 4, 5, 3])
    expect(indices(of({ clockEnd: 'hold' }), 8)).toEqual([3, 3, 3, 4, 5, 5, 5, 5])
    expect(indices(of({ clockEnd: 'fro' }), 9)).toEqual([5, 4, 3, 4, 5, 4, 3, 4, 5])
    expect(indices(of({ clockEnd: 'hold', clockBackward: true }), 8)).toEqual([5, 5, 5, 4, 3, 3, 3, 3])
    const stopped = of({ clockEnd: 'stop' })
    const seen = Array.from({ length: 7 }, (_, frame) => greyAt(stopped, frame) > 0)
    expect(seen).toEqual([false, false, true, true, true, false, false])
  })

  test('at another rate: the one of that time, or two mixed', () => {
    const rate = { numerator: 10, denominator: 1 }
    const slow = withSequence(blank(), 8, { rate })
    // 10 a second in a card of 25: frame 5 is picture 2, frame 2 is nearer to picture 1 than to the first.
    expect(indices(slow, 8)).toEqual([0, 0, 1, 1, 2, 2, 2, 3])
    const mixed = withSequence(blank(), 8, { rate, between: 'mixed' })
    expect(shownAt(mixed, 1)).toEqual([
      { index: 0, share: expect.closeTo(0.6, 9) },
      { index: 1, share: expect.closeTo(0.4, 9) },
    ])
    expect(shownAt(mixed, 5)).toEqual([{ index: 2, share: 1 }])
    // Rates of television: 30000/1001 in itself is exact over an hour.
    const ntsc = { numerator: 30000, denominator: 1001 }
    const long = withSequence({ ...blank(100_000), rate: ntsc }, 5000, { rate: ntsc })
    for (const frame of [0, 1, 999, 4999, 54_321])
      expect(shownAt(long, frame)).toEqual([{ index: frame % 5000, share: 1 }])
    // Backward, and on the way back, a picture stays as long as forward.
    const back = withSequence(blank(), 8, { rate, clockBackward: true, clockEnd: 'hold' })
    expect(indices(back, 8)).toEqual([7, 7, 6, 6, 5, 5, 5, 4])
  })

  test('keyed by hand, and frames beyond its ends are its ends', () => {
    const keyed = (clockFrame: SequencePiece['clockFrame']) => withSequence(blank(), 6, { clock: 'keyed', clockFrame })
    expect(indices(keyed(3), 2)).toEqual([3, 3])
    const keys = {
      keys: [
        { frame: 0, value: -4 },
        { frame: 10, value: 16 },
      ],
      easing: 'linear',
    }
    const moving = keyed(keys as never)
    expect([0, 2, 4, 8].map((frame) => shownAt(moving, frame)[0]!.index)).toEqual([0, 0, 4, 5])
  })

  test('a dissolve goes over into what lies before the cut, or comes out of what lies after it', () => {
    const before = withSequence(blank(), 12, { clockFrom: 4, clockTo: 10, dissolve: 2 })
    expect([3, 4, 5, 6].map((frame) => shownAt(before, frame))).toEqual([
      [{ index: 7, share: 1 }],
      [
        { index: 8, share: expect.closeTo(2 / 3, 9) },
        { index: 2, share: expect.closeTo(1 / 3, 9) },
      ],
      [
        { index: 9, share: expect.closeTo(1 / 3, 9) },
        { index: 3, share: expect.closeTo(2 / 3, 9) },
      ],
      [{ index: 4, share: 1 }],
    ])
    const after = withSequence(blank(), 12, { clockFrom: 0, clockTo: 6, dissolve: 2 })
    expect(shownAt(after, 0)).toEqual([
      { index: 0, share: expect.closeTo(1 / 3, 9) },
      { index: 6, share: expect.closeTo(2 / 3, 9) },
    ])
    // With nothing left on either side there is none.
    expect(shownAt(withSequence(blank(), 6, { dissolve: 5 }), 5)).toEqual([{ index: 5, share: 1 }])
    // All shares are one picture at every frame.
    for (let frame = 0; frame < 20; frame++) {
      const sum = shownAt(before, frame).reduce((all, { share }) => all + share, 0)
      expect(sum).toBeCloseTo(1, 9)
    }
  })
})

describe('its pixels', () => {
  test('are those of its files, frame by frame, to the byte; with nothing kept the same', () => {
    const card = withSequence(blank(), 7, GREY)
    const engine = new Engine()
    for (const frame of [0, 3, 6, 7, 3]) expect(greyAt(card, frame, engine)).toBe((frame % 7) * 10)
    const fresh = new Engine(undefined, undefined, { keeps: false })
    const at = (one: Engine) => supplied(one, grey, () => one.render(card, 5)).pixels
    expect(at(engine)).toEqual(at(fresh))
  })

  test('of 16 bits keep their depth', () => {
    const card = withSequence(blank(), 3, GREY)
    const engine = new Engine()
    const deep = () => plain(16, 8, [30_001, 30_001, 30_001, 65_535], 16)
    const picture = supplied(engine, deep, () => engine.render(card, 1, { bits: 16 }))
    expect(Math.abs(pixelAt(picture, 64, 32)[0] * 65_535 - 30_001)).toBeLessThanOrEqual(1)
  })

  test('laid on black or white are freed of it, in either light (closed form)', () => {
    const [colour, alpha] = [[204, 102, 51], 128 / 255]
    for (const blending of ['display', 'linear'] as const) {
      for (const ground of ['straight', 'black', 'white'] as const) {
        const base = { straight: null, black: 0, white: 255 }[ground]
        const laid = colour.map((v) => (base === null ? v : Math.round(v * alpha + base * (1 - alpha))))
        const card = { ...withSequence(blank(), 2, { ...GREY, alpha: ground }), blending }
        const engine = new Engine()
        const found = supplied(
          engine,
          () => plain(16, 8, [...laid, 128]),
          () => floatsOf(engine, card),
        ).at(64, 32)
        const shown = (v: number) => (blending === 'linear' ? toDisplay(v) : v)
        colour.forEach((v, c) => {
          // Half a step of the file, enlarged by taking alpha away.
          expect(Math.abs(shown(found[c]! / found[3]) - v / 255)).toBeLessThan(0.51 / 255 / alpha)
        })
        expect(found[3]).toBeCloseTo(alpha, 6)
      }
    }
  })

  test('in linear light without saying so are shown as such', () => {
    const card = withSequence(blank(), 2, { ...GREY, linear: true })
    const engine = new Engine()
    const picture = supplied(
      engine,
      () => plain(16, 8, [55, 55, 55, 255]),
      () => engine.render(card, 0),
    )
    expect(Math.round(pixelAt(picture, 64, 32)[0] * 255)).toBe(Math.round(toDisplay(55 / 255) * 255))
  })

  test('two mixed are their mean, by their shares, in the light in which the card blends', () => {
    const rate = { numerator: 10, denominator: 1 }
    for (const blending of ['display', 'linear'] as const) {
      const card = { ...withSequence(blank(), 8, { ...GREY, rate, between: 'mixed' }), blending }
      const [into, out] = blending === 'linear' ? [toLinear, toDisplay] : [(v: number) => v, (v: number) => v]
      const mean = out(into(20 / 255) * 0.6 + into(30 / 255) * 0.4) * 255
      expect(Math.abs(greyAt(card, 6) - mean)).toBeLessThanOrEqual(0.51)
    }
  })

  test('stand still while the shutter is open, though the piece moves', () => {
    const keys = {
      keys: [
        { frame: 0, value: 40 },
        { frame: 20, value: 90 },
      ],
      easing: 'linear',
    }
    for (const shutter of [
      { angle: 180, phase: -90 },
      { angle: 360, phase: 0 },
      { angle: 720, phase: -360 },
    ]) {
      const card = { ...withSequence(blank(), 30, { ...GREY, x: keys as never }), shutter }
      expect(greyAt(card, 9)).toBe(90)
      // In a group of twice the speed too.
      const group = {
        ...createPiece('group', card),
        ...{ id: 'fast', x: 0, y: 0, clock: 'own', clockSpeed: 200, pieces: card.pieces },
      } as GroupPiece
      expect(greyAt({ ...card, pieces: [group as Piece] }, 4)).toBe(80)
    }
  })

  test('are the same tile by tile', () => {
    const noisy = (i: number): Picture => {
      const pixels = Uint8Array.from({ length: 96 * 64 * 4 }, (_, k) => (k * 73 + i * 31 + (k >> 5)) & 255)
      return { width: 96, height: 64, pixels }
    }
    const values = { x: 90, y: 70, width: 150, height: 90, rotation: 20, finishes: [finish('blur', { radius: 3 })] }
    const card = withSequence({ ...emptyCard(192, 128), background: solid('#203040') }, 5, values as never)
    const engine = new Engine()
    const whole = supplied(engine, noisy, () => engine.render(card, 3))
    for (const x of [0, 64, 128]) {
      const tile = supplied(engine, noisy, () => engine.render(card, 3, { region: { x, y: 64, w: 64, h: 64 } }))
      for (let y = 0; y < 64; y++) {
        const from = ((y + 64) * 192 + x) * 4
        expect(tile.pixels.subarray(y * 256, y * 256 + 256)).toEqual(whole.pixels.subarray(from, from + 256))
      }
    }
  })
})

describe('a sequence with what holds it', () => {
  test('a twin shows it so many frames later, a clock around it takes it along', () => {
    const card = withSequence(blank(), 30, { ...GREY, id: 'waves', on: false })
    const twin = { ...createPiece('twin', card), id: 'again', source: 'waves', delay: 4, x: 64, y: 32 } as TwinPiece
    expect(greyAt({ ...card, pieces: [twin as Piece, ...card.pieces] }, 10)).toBe(60)
    const still = { ...createPiece('group', card), id: 'g', x: 0, y: 0, clock: 'keyed', clockFrame: 12 } as GroupPiece
    const held = { ...card, pieces: [{ ...still, pieces: [{ ...piece(card), on: true }] } as Piece] }
    expect([greyAt(held, 1), greyAt(held, 20)]).toEqual([120, 120])
  })

  test('is frozen, turned round and repeated in its own clock', () => {
    const card = withSequence(blank(), 9, { ...GREY, clockEnd: 'hold' })
    expect(indices(freezePiece(card, piece(card).id, 5).card, 4)).toEqual([5, 5, 5, 5])
    expect(indices(reversePiece(card, piece(card).id).card, 4)).toEqual([8, 7, 6, 5])
    expect(indices(repeatPiece(card, piece(card).id, 3).card, 7)).toEqual([0, 1, 2, 0, 1, 2, 0])
  })
})

describe('its span on the ribbon', () => {
  test('takes the start of its clock along; what lies in a group with a clock stays in its own time', () => {
    const card = withSequence(blank(), 9, { clockStart: 2, span: { in: 0, out: 20 } })
    const moved = moveSpan(card, piece(card).id, 5)
    expect(piece(moved)).toMatchObject({ clockStart: 7, span: { in: 5, out: 25 } })
    expect([5, 9].map((frame) => shownAt(moved, frame))).toEqual([0, 4].map((frame) => shownAt(card, frame)))
    const keys = {
      keys: [
        { frame: 0, value: 0 },
        { frame: 8, value: 90 },
      ],
    }
    const inner = { ...piece(card), x: keys } as unknown as Piece
    const group = { ...createPiece('group', card), id: 'g', clock: 'own', clockStart: 1, pieces: [inner] } as GroupPiece
    const [after] = moveSpan({ ...card, pieces: [group as Piece] }, 'g', 4).pieces as [GroupPiece]
    expect([after.clockStart, after.pieces[0]]).toEqual([5, inner])
    // Without one of its own the group's time is that around it: all in it moves.
    const open = { ...group, clock: 'around' } as Piece
    const [plainly] = moveSpan({ ...card, pieces: [open] }, 'g', 4).pieces as [GroupPiece]
    const held = plainly.pieces[0] as SequencePiece
    expect([held.clockStart, held.x]).toMatchObject([6, { keys: [{ frame: 4 }, { frame: 12 }] }])
  })
})

describe('what is told of it', () => {
  const faults = (values: Partial<SequencePiece>, length = LENGTH) =>
    motionFaults(withSequence(blank(length), 10, { name: 'Waves', ...values })).map(
      ({ address, message, remedy }) => `${address.split('/')[1]}: ${message} ${remedy}`,
    )

  test('is where it jumps at the seam, by the lengths at which it would not', () => {
    expect(faults({})).toEqual([])
    expect(faults({}, 45)).toEqual([
      'clockEnd: It comes round after 10 frames, the loop after 45: it jumps at the seam. Cut it to another length, or give the loop 50 frames.',
    ])
    expect(faults({ clockEnd: 'fro' }, 36)).toEqual([])
    expect(faults({ clockEnd: 'fro' })[0]).toMatch(/after 18 frames.*36 frames/)
    expect(faults({ rate: { numerator: 50, denominator: 1 }, clockFrom: 2 })).toEqual([])
    expect(faults({ clockSpeed: 30 })[0]).toMatch(
      /after 33.33 frames, the loop after 40: it jumps at the seam. Cut it to another length.$/,
    )
    // Where it is not seen across the seam, is held, or is off, it does not jump.
    expect(faults({ span: { in: 3, out: 40 } }, 45)).toEqual([])
    expect(faults({ clockEnd: 'hold' }, 45)).toEqual([])
    expect(faults({ on: false }, 45)).toEqual([])
  })

  test('is that it has no pictures, or ends beyond them', () => {
    expect(faults({ sequence: null })).toEqual([
      'sequence: It shows no pictures yet. Bring a file in, or choose one in its settings.',
    ])
    expect(faults({ clockTo: 20 })).toEqual([
      'clockTo: It ends at picture 20 and has 10. Let it end at its end: set To to 0.',
    ])
  })
})

describe('what is wanted of its files', () => {
  test('is foreseen, in groups with clocks and for hidden pieces too', () => {
    const card = withSequence(blank(), 30, { on: false, rate: { numerator: 30, denominator: 1 }, between: 'mixed' })
    expect(foreseen(card, 4)).toEqual([4, 5].map((index) => ({ id: SEQUENCE, index })))
    const fast = {
      ...createPiece('group', card),
      id: 'g',
      clock: 'own',
      clockSpeed: 300,
      pieces: card.pieces,
    } as GroupPiece
    expect(foreseen({ ...card, pieces: [fast as Piece] }, 2).map(({ index }) => index)).toEqual([7, 8])
  })

  test('what was not foreseen is asked for, and what is not there is named with its place', () => {
    const trails = finish('trails', { copies: 3, spacing: 2 })
    const card = withSequence(blank(), 30, { ...GREY, finishes: [trails] as never })
    const asked = new Set<number>()
    const engine = new Engine()
    supplied(
      engine,
      (i) => (asked.add(i), grey(i)),
      () => engine.render(card, 9),
    )
    expect([...asked].sort((a, b) => a - b)).toEqual([3, 5, 7, 9])
    const other = new Engine()
    expect(() =>
      supplied(
        other,
        () => null,
        () => other.render(card, 0),
      ),
    ).toThrow(/pieces\[0\]\.sequence.*Picture \d+ of the sequence/)
    // It plays on from where there are pictures.
    expect(greyAt(card, 9, other)).toBeGreaterThan(0)
  })

  test('is let go by the budget, but not what a frame under way has asked for', () => {
    const book = new SequenceBook(3 * 16 * 8 * 4)
    for (let i = 0; i < 5; i++) book.add(SEQUENCE, i, grey(i))
    expect([0, 1, 2, 3, 4].map((i) => book.knows(SEQUENCE, i))).toEqual([false, false, true, true, true])
    for (let i = 2; i < 5; i++) book.get(SEQUENCE, i, '')
    for (let i = 5; i < 8; i++) book.add(SEQUENCE, i, grey(i))
    expect([2, 3, 4].map((i) => book.knows(SEQUENCE, i))).toEqual([true, true, true])
    book.rest()
    book.add(SEQUENCE, 8, grey(8))
    expect([2, 3, 8].map((i) => book.knows(SEQUENCE, i))).toEqual([false, false, true])
  })
})
