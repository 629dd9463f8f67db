import { beforeAll, describe, expect, test } from '@jest/globals'
import { pasteKeys, copyKeys } from '#core/card/edit/keys'
import { addRanges, changeRange, moveRange } from '#core/card/edit/ranges'
import { duplicatePiece } from '#core/card/edit/stack'
import { storedAt, writeValue } from '#core/card/edit/values'
import { defaultsOf } from '#core/card/parameters'
import { readCard } from '#core/card/read'
import type { Card, TypePiece } from '#core/card/schema'
import type { Engine, FramePicture } from '#core/frame/engine'
import { seamReport } from '#core/judge/seam'
import { Font } from '#core/type/font'
import { moveLetters } from '#core/type/letter-motion'
import { setText } from '#core/type/layout'
import type { LetterRange, RangeValues } from '#core/type/ranges'
import { MOST_RANGES, RANGE_PARAMETERS } from '#core/type/ranges'
import { RANGE_STARTS } from '#core/type/range-starts'
import { placesIn, weightsOf } from '#core/type/sweep'
import { coat, emptyCard, engineWithFonts, fontBytes, pixelAt, solid, withType } from '../support/engine'

const font = new Font(fontBytes('archivo-black'), 'test')
const settled = (values: Partial<RangeValues>) =>
  ({ ...defaultsOf(RANGE_PARAMETERS), colour: [1, 0, 0, 1], ...values }) as RangeValues
const range = (values: Partial<LetterRange>) =>
  ({ id: 'range-1', name: 'Range', on: true, ...defaultsOf(RANGE_PARAMETERS), ...values }) as LetterRange
const lettersOf = (wording: string) => setText(font, { wording, tracking: 0, leading: 110, align: 'centre' }).letters
const weigh = (wording: string, values: Partial<RangeValues>) =>
  weightsOf(lettersOf(wording), settled({ ease: 'even', ...values })).map((w) => Math.round(w * 1e6) / 1e6)

describe('a sweep', () => {
  test('arrives: all weight before it, none after it, one letter after another between', () => {
    expect(weigh('ABCDE', { sweep: 0 })).toEqual([1, 1, 1, 1, 1])
    expect(weigh('ABCDE', { sweep: 100 })).toEqual([0, 0, 0, 0, 0])
    // Spread 20 % of the sweep for each of five: exactly one is on its way.
    expect(weigh('ABCDE', { sweep: 50, spread: 20 })).toEqual([0, 0, 0.5, 1, 1])
    expect(weigh('ABCDE', { sweep: 30, spread: 100 })).toEqual([0.7, 0.7, 0.7, 0.7, 0.7])
  })

  test('leaves as it arrives, turned round; passes there and back', () => {
    const arrive = weigh('LANTERN', { sweep: 37 })
    expect(weigh('LANTERN', { sweep: 37, form: 'leave' })).toEqual(arrive.map((w) => Math.round((1 - w) * 1e6) / 1e6))
    expect(weigh('A', { form: 'pass', sweep: 25 })).toEqual([0.5])
    expect(weigh('A', { form: 'pass', sweep: 50 })).toEqual([1])
    for (const sweep of [0, 100]) expect(weigh('LANTERN', { form: 'pass', sweep })).toEqual(new Array(7).fill(0))
  })

  test('goes through words and lines; spaces are no letters', () => {
    expect(weigh('AB CD', { units: 'words', sweep: 50, spread: 50 })).toEqual([0, 0, 0, 1, 1])
    expect(weigh('AB\nCD EF', { units: 'lines', sweep: 50, spread: 50 })).toEqual([0, 0, 1, 1, 1, 1, 1])
    expect(weigh('A B', { sweep: 50, spread: 50 })).toEqual([0, 0, 1])
  })

  test('covers the part of the text between from and to, letters that it cuts by their share', () => {
    expect(weigh('ABCD', { sweep: 0, from: 50 })).toEqual([0, 0, 1, 1])
    expect(weigh('ABCD', { sweep: 0, to: 25 })).toEqual([1, 0, 0, 0])
    expect(weigh('ABCD', { sweep: 0, from: 12.5, to: 50 })).toEqual([0.5, 1, 0, 0])
    expect(weigh('ABCD', { sweep: 0, from: 50, to: 50 })).toEqual([0, 0, 0, 0])
  })

  test('orders: who goes first', () => {
    expect(placesIn('forward', 3, 1)).toEqual([0, 0.5, 1])
    expect(placesIn('backward', 3, 1)).toEqual([1, 0.5, 0])
    expect(placesIn('centre', 5, 1)).toEqual([1, 0.5, 0, 0.5, 1])
    expect(placesIn('centre', 4, 1)).toEqual([1, 0, 0, 1])
    expect(placesIn('edges', 5, 1)).toEqual([0, 0.5, 1, 0.5, 0])
    for (const order of ['forward', 'backward', 'centre', 'edges', 'shuffle'] as const) {
      for (const place of placesIn(order, 1, 1)) expect(Number.isFinite(place)).toBe(true)
      expect(placesIn(order, 0, 1)).toEqual([])
    }
  })

  test('a shuffled order is a permutation, the same for a seed, another for another', () => {
    const places = placesIn('shuffle', 12, 7)
    expect([...places].sort((a, b) => a - b)).toEqual(placesIn('forward', 12, 0))
    expect(placesIn('shuffle', 12, 7)).toEqual(places)
    expect(placesIn('shuffle', 12, 8)).not.toEqual(places)
  })

  test.each(['even', 'soft', 'early', 'late', 'past', 'swing'] as const)(
    'the ease %s begins and ends at rest',
    (ease) => {
      expect(weigh('A', { ease, sweep: 0 })[0]).toBeCloseTo(1, 6)
      expect(weigh('A', { ease, sweep: 100 })[0]).toBeCloseTo(0, 6)
      const least = Math.min(...Array.from({ length: 100 }, (_, i) => weigh('A', { ease, sweep: i })[0]!))
      if (ease === 'past' || ease === 'swing') expect(least).toBeLessThan(-0.05)
      else expect(least).toBeGreaterThanOrEqual(0)
    },
  )
})

describe('letters', () => {
  const setting = { wording: 'To the\nQuay', tracking: 20, leading: 110, align: 'centre' as const }

  test('at rest stand where type is set', () => {
    const moved = moveLetters(font, { ...setting, size: 100, ranges: [settled({ sweep: 100, y: 50 })], spaced: false })
    const set = setText(font, setting).glyphs.filter(({ letter }) => !setText(font, setting).letters[letter]!.blank)
    expect(moved.map(({ origin }) => origin)).toEqual(set.map(({ x, y }) => ({ x, y })))
    for (const { moved: way, opacity } of moved)
      expect({ way, opacity }).toEqual({ way: { scale: 1, rotation: 0, x: 0, y: 0 }, opacity: 1 })
  })

  test('go together as the finest of the ranges goes: words as one outline, letters each', () => {
    const sets = (...units: RangeValues['units'][]) =>
      moveLetters(font, {
        ...setting,
        ...{ size: 100, spaced: false },
        ranges: units.map((unit) => settled({ units: unit, y: 10 })),
      }).length
    expect(sets('letters')).toBe(9)
    expect(sets('words')).toBe(3)
    expect(sets('lines')).toBe(2)
    expect(sets('lines', 'words')).toBe(3)
  })

  test('tracking spreads a line about its middle', () => {
    const at = (tracking: number) =>
      moveLetters(font, {
        ...{ wording: 'HHH', tracking: 0, leading: 100, align: 'centre', size: 100, spaced: true },
        ranges: [settled({ tracking, spread: 100 })],
      }).map(({ origin }) => origin.x)
    const [plain, wide] = [at(0), at(300)]
    expect(wide[1]).toBeCloseTo(plain[1]!, 9)
    expect(wide[2]! - plain[2]!).toBeCloseTo(0.3, 9)
    expect(wide[0]! - plain[0]!).toBeCloseTo(-0.3, 9)
  })
})

describe('drawn', () => {
  let engine: Engine
  beforeAll(() => {
    engine = engineWithFonts()
  })
  const face = [
    coat('fill', 'fill-1', { paint: solid('#E2683C') }),
    coat('stroke', 'stroke-1', { side: 'outside', width: 7, paint: solid('#1B1420') }),
  ]
  const behind = [coat('shadow', 'shadow-1', { side: 'outside', distance: 9, softness: 8 })]
  const words = (values: Partial<TypePiece>, coats = { face, behind }, size = { w: 320, h: 160 }): Card =>
    withType(
      emptyCard(size.w, size.h),
      { font: 'archivo-black', size: 90, x: size.w / 2, y: size.h / 2, ...values },
      coats,
    )
  const drawn = (card: Card, frame = 0) => engine.render(card, frame, { bits: 16 })

  function farthest(a: FramePicture, b: FramePicture): number {
    let most = 0
    const [p, q] = [new Uint16Array(a.pixels.buffer), new Uint16Array(b.pixels.buffer)]
    for (let i = 0; i < p.length; i += 4) {
      const [from, to] = [p[i + 3]! / 65535, q[i + 3]! / 65535]
      most = Math.max(most, Math.abs(from - to))
      for (let c = 0; c < 3; c++) most = Math.max(most, Math.abs((p[i + c]! * from - q[i + c]! * to) / 65535))
    }
    return most
  }

  test('at rest it is the picture without letter motion, where nothing of one letter shines on another', () => {
    const spaced = { wording: 'RAVT', tracking: 260 }
    const rest = words({ ...spaced, ranges: [range({ sweep: 100, y: 40, scale: 20 })] })
    expect(farthest(drawn(rest), drawn(words(spaced)))).toBeLessThan(1 / 255)
  })

  test('strokes of neighbours do not lie on each other’s faces', () => {
    const tight = { wording: 'HH', tracking: -40 }
    const only = {
      face: [face[0]!, coat('stroke', 'stroke-1', { side: 'outside', width: 14, paint: solid('#1B1420') })],
      behind: [],
    }
    const rest = drawn(words({ ...tight, ranges: [range({ sweep: 100, y: 40 })] }, only))
    const plain = drawn(words(tight, only))
    const inked = [...Array(320 * 160).keys()].filter((i) => pixelAt(plain, i % 320, Math.floor(i / 320))[0] > 0.88)
    expect(inked.length).toBeGreaterThan(2000)
    for (const i of inked) {
      const [x, y] = [i % 320, Math.floor(i / 320)]
      expect(pixelAt(rest, x, y)[0]).toBeCloseTo(pixelAt(plain, x, y)[0], 3)
    }
  })

  test('stacked outlines of neighbours lie on each other as around the joined word', () => {
    const tight = { wording: 'HAV', tracking: -20 }
    const outlines = {
      face: [
        face[0]!,
        coat('stroke', 'inner', { side: 'outside', width: 8, paint: solid('#FFF6EE') }),
        coat('stroke', 'outer', { side: 'outside', width: 8, stacked: true, paint: solid('#3D0D16') }),
      ],
      behind: [],
    }
    const rest = drawn(words({ ...tight, ranges: [range({ sweep: 100, y: 40 })] }, outlines))
    const joined = drawn(words(tight, outlines))
    // Where two edges cross, the cover of a pixel is put together of two covers: nowhere else do they differ.
    const apart = [...Array(320 * 160).keys()].filter((i) => {
      const [x, y] = [i % 320, Math.floor(i / 320)]
      const [a, b] = [pixelAt(rest, x, y), pixelAt(joined, x, y)]
      return a.some((v, c) => Math.abs(v - b[c]!) > 4 / 255)
    })
    expect(apart.length).toBeLessThan(20)
  })

  test.each([
    ['x', { x: 37 }, { x: 197 }],
    ['y', { y: -21 }, { y: 59 }],
    ['scale, coats and all', { scale: 170 }, { scale: 170 }],
    ['rotation', { rotation: 33 }, { rotation: 33 }],
    ['opacity', { opacity: 40 }, { opacity: 40 }],
  ] as [string, Partial<LetterRange>, Partial<TypePiece>][])(
    'one letter moved by its range is the piece moved: %s',
    (_, values, piece) => {
      const moved = drawn(words({ wording: 'R', ranges: [range({ sweep: 0, ...values })] }))
      expect(farthest(moved, drawn(words({ wording: 'R', ...piece })))).toBeLessThan(1.5 / 255)
    },
  )

  test('ranges act one after the other: grown, then moved', () => {
    const both = [range({ scale: 150 }), range({ id: 'range-2', x: 30 })]
    expect(
      farthest(drawn(words({ wording: 'R', ranges: both })), drawn(words({ wording: 'R', scale: 150, x: 190 }))),
    ).toBeLessThan(1.5 / 255)
  })

  test('overlapping clear letters are laid on each other, source over', () => {
    const half = { face: [coat('fill', 'fill-1', { paint: solid('#E2683C80') })], behind: [] }
    const one = words({ wording: 'OO', tracking: -500, ranges: [range({ sweep: 100, y: 5 })] }, half)
    const alone = (x: number, card: Card) =>
      withType(
        card,
        { id: `o-${x}`, font: 'archivo-black', size: 90, wording: 'O', x, y: 80 },
        { face: [coat('fill', `fill-${x}`, { paint: solid('#E2683C80') })], behind: [] },
      )
    const [first, second] = moveLetters(font, {
      wording: 'OO',
      tracking: -500,
      leading: 110,
      align: 'centre',
      size: 90,
      spaced: false,
      ranges: [settled({ y: 5, sweep: 100 })],
    })
    const single = moveLetters(font, {
      wording: 'O',
      tracking: 0,
      leading: 110,
      align: 'centre',
      size: 90,
      spaced: false,
      ranges: [settled({ y: 5, sweep: 100 })],
    })[0]!
    const xOf = (set: typeof single) => 160 + (set.origin.x - single.origin.x) * 90
    const two = alone(xOf(second!), alone(xOf(first!), emptyCard(320, 160)))
    expect(farthest(drawn(one), drawn(two))).toBeLessThan(1.5 / 255)
  })

  test('blur is the Gaussian of the letter with its coats', () => {
    const sigma = 4
    const sharp = drawn(words({ wording: 'R' }))
    const soft = drawn(words({ wording: 'R', ranges: [range({ blur: sigma })] }))
    expect(farthest(blurredBy(sharp, sigma), soft)).toBeLessThan(1 / 255)
  })

  test('tint: fills alone or all coats take on the colour, by its share; what is clear stays clear', () => {
    const at = (values: Partial<LetterRange>) =>
      drawn(words({ wording: 'I', size: 140, ranges: [range({ colour: '#00FF00', ...values })] }))
    const middle = (picture: FramePicture) => pixelAt(picture, 160, 80)
    expect(middle(at({ tint: 100 }))[1]).toBeCloseTo(1, 2)
    expect(middle(at({ tint: 50 }))[0]).toBeCloseTo(0xe2 / 255 / 2, 2)
    const plain = drawn(words({ wording: 'I', size: 140 }))
    const rim = [...Array(60).keys()]
      .map((i) => 160 - i)
      .find((x) => pixelAt(plain, x, 80)[0] < 0.12 && pixelAt(plain, x, 80)[3] > 0.99)!
    expect(pixelAt(at({ tint: 100 }), rim, 80)[1]).toBeCloseTo(pixelAt(plain, rim, 80)[1], 2)
    expect(pixelAt(at({ tint: 100, tinted: 'all' }), rim, 80)[1]).toBeGreaterThan(0.99)
    expect(pixelAt(at({ tint: 100, tinted: 'all' }), 4, 80)[3]).toBe(0)
  })

  test('a gradient over the words travels with each letter', () => {
    const paint = {
      type: 'linear',
      angle: 0,
      stops: [
        { at: 0, colour: '#FF0000' },
        { at: 100, colour: '#0000FF' },
      ],
      scale: 100,
      shift: 0,
      x: 50,
      y: 50,
      form: 'circle',
      spread: 'pad',
      mix: 'srgb',
      hang: 'piece',
    }
    const coats = { face: [coat('fill', 'fill-1', { paint: paint as never })], behind: [] }
    const rest = drawn(words({ wording: 'HIH', tracking: 100, ranges: [range({ sweep: 100, y: -30 })] }, coats))
    const up = drawn(words({ wording: 'HIH', tracking: 100, ranges: [range({ sweep: 0, y: -30 })] }, coats))
    const columns = [...Array(320).keys()].filter((x) => pixelAt(rest, x, 80)[3] === 1)
    expect(columns.length).toBeGreaterThan(40)
    for (const x of columns) expect(pixelAt(up, x, 50)[0]).toBeCloseTo(pixelAt(rest, x, 80)[0], 3)
  })

  test('the same bytes in a tile that sees one clear letter of several, with outlines stacked on it', () => {
    const outlines = [
      coat('stroke', 'inner', { side: 'outside', width: 6, paint: solid('#FFF6EE') }),
      coat('glow', 'halo', { side: 'outside', reach: 14 }),
      coat('stroke', 'outer', { side: 'outside', width: 6, stacked: true, paint: solid('#3D0D16') }),
    ]
    const ranges = [range({ sweep: 0, opacity: 45 })]
    const card = words(
      { wording: 'H H', tracking: 900, ranges },
      { face: [face[0]!, ...outlines], behind },
      { w: 512, h: 128 },
    )
    const whole = drawn(card)
    const tile = engine.render(card, 0, { bits: 16, region: { x: 0, y: 0, w: 192, h: 128 } })
    expect(Math.max(...new Uint16Array(tile.pixels.buffer))).toBeGreaterThan(20_000)
    for (let row = 0; row < 128; row++) {
      const here = Buffer.from(tile.pixels.subarray(row * 192 * 8, (row + 1) * 192 * 8))
      expect(here.equals(Buffer.from(whole.pixels.subarray(row * 512 * 8, row * 512 * 8 + 192 * 8)))).toBe(true)
    }
  })

  test('the same bytes in one piece and in tiles', () => {
    const card = words(
      {
        wording: 'QUAY',
        ranges: [range({ sweep: 45, y: -40, rotation: 40, scale: 150, blur: 3, opacity: 30, tint: 80 })],
      },
      { face, behind },
      { w: 256, h: 128 },
    )
    const whole = drawn(card)
    const tile = engine.render(card, 0, { bits: 16, region: { x: 64, y: 64, w: 128, h: 64 } })
    for (let row = 0; row < 64; row++) {
      const from = ((row + 64) * 256 + 64) * 8
      expect(
        Buffer.from(tile.pixels.subarray(row * 1024, (row + 1) * 1024)).equals(
          Buffer.from(whole.pixels.subarray(from, from + 1024)),
        ),
      ).toBe(true)
    }
  })

  const ends = Object.entries(RANGE_PARAMETERS).flatMap(([name, parameter]): [string, string | number][] =>
    parameter.type === 'number'
      ? [parameter.min, parameter.max].map((value) => [name, value])
      : parameter.type === 'choice'
        ? parameter.options.map(({ value }) => [name, value])
        : [],
  )
  test.each(ends)('at the end of its range nothing breaks: %s %s', (name, value) => {
    const card = words({ wording: 'Ab\nc d', size: 40, ranges: [range({ sweep: 40, y: 8, blur: 1, [name]: value })] })
    const { pixels } = drawn(card)
    expect(pixels.length).toBe(320 * 160 * 8)
    expect(Buffer.from(drawn(card).pixels).equals(Buffer.from(pixels))).toBe(true)
  })

  test('motion blur sees each letter’s way: it is that of a piece that moves as far', () => {
    const shutter = { angle: 180, phase: 0 }
    const way = (value: number) => ({
      keys: [
        { frame: 0, value: 0 },
        { frame: 10, value },
      ],
      loop: false,
    })
    const letter = words({ wording: 'R', ranges: [range({ form: 'leave', ease: 'even', x: 300, sweep: way(100) })] })
    const piece = words({
      wording: 'R',
      x: {
        keys: [
          { frame: 0, value: 160 },
          { frame: 10, value: 460 },
        ],
        loop: false,
      },
    })
    const sharp = drawn(letter, 3)
    const soft = drawn({ ...letter, shutter }, 3)
    expect(farthest(soft, drawn({ ...piece, shutter }, 3))).toBeLessThan(1.5 / 255)
    expect(farthest(soft, sharp)).toBeGreaterThan(0.3)
  })

  test('words of nothing, and of spaces, draw nothing', () => {
    for (const wording of ['', '   ', '\n\n']) {
      expect(drawn(words({ wording, ranges: [range({ y: 20 })] })).pixels.every((v) => v === 0)).toBe(true)
    }
  })
})

describe('on a card', () => {
  const card = withType(emptyCard(640, 360, 100), { wording: 'Lantern Regatta' }, { face: [coat('fill', 'fill-1')] })
  const [piece] = card.pieces as [TypePiece]
  const ranges = (of: Card, index = 0) => (of.pieces[index] as TypePiece).ranges

  test.each(RANGE_STARTS)('$label: a card that can be read, and a loop without a seam', (start) => {
    for (const zones of [null, { hold: 20, out: 70 }]) {
      const made = addRanges({ ...card, zones }, piece.id, start)
      expect(ranges(made)).toHaveLength(start.ranges.length)
      expect(readCard(made).faults).toBeNull()
      for (const { address, verdict } of seamReport(made))
        expect({ address, verdict }).not.toMatchObject({ verdict: 'jump' })
      expect(seamReport(made)).toHaveLength(start.ranges.length)
    }
  })

  test('a loop too short for keys gets a sweep that stands still', () => {
    const short = addRanges({ ...card, length: 3 }, piece.id, RANGE_STARTS[0]!)
    expect(ranges(short)[0]!.sweep).toBe(0)
    expect(readCard(short).faults).toBeNull()
  })

  test('copies get ids of their own; their values are reached by them', () => {
    const made = addRanges(card, piece.id, RANGE_STARTS[0]!)
    const { card: twice, id } = duplicatePiece(made, piece.id)
    expect(readCard(twice).faults).toBeNull()
    const copy = ranges(twice)[0]!
    expect(copy.id).not.toBe(ranges(twice, 1)[0]!.id)
    const written = writeValue(twice, `${id}/${copy.id}/y`, 0, 12)
    expect(ranges(written)[0]!.y).toBe(12)
    expect(ranges(written, 1)[0]!.y).toBe(90)
  })

  test('keys of a sweep are pasted on the same range of another piece', () => {
    const made = addRanges(card, piece.id, RANGE_STARTS[0]!)
    const { card: two, id } = duplicatePiece(made, piece.id)
    const other = ranges(two)[0]!.id
    const still = writeBare(two, `${id}/${other}/sweep`)
    const address = `${piece.id}/${ranges(two, 1)[0]!.id}/sweep`
    const copied = copyKeys(still, [
      { address, frame: 0 },
      { address, frame: 30 },
    ])
    const pasted = pasteKeys(still, copied, [id], 10).card
    expect(storedAt(pasted, `${id}/${other}/sweep`)).toMatchObject({ keys: [{ frame: 10 }, { frame: 40 }] })
  })

  test('ranges are changed, moved and taken away', () => {
    const made = addRanges(addRanges(card, piece.id, RANGE_STARTS[0]!), piece.id, RANGE_STARTS[1]!)
    const [first, second] = ranges(made).map(({ id }) => id)
    expect(ranges(moveRange(made, piece.id, second!, -1)).map(({ id }) => id)).toEqual([second, first])
    expect(ranges(moveRange(made, piece.id, second!, 5))).toEqual(ranges(made))
    expect(ranges(changeRange(made, piece.id, first!, { on: false }))[0]!.on).toBe(false)
    expect(ranges(changeRange(made, piece.id, first!, null)).map(({ id }) => id)).toEqual([second])
  })

  test('no more than there may be; broken ones are named with their place', () => {
    const full = Array.from({ length: MOST_RANGES + 3 }).reduce<Card>(
      (c) => addRanges(c, piece.id, RANGE_STARTS[0]!),
      card,
    )
    expect(ranges(full)).toHaveLength(MOST_RANGES)
    const broken = {
      ...card,
      pieces: [{ ...piece, ranges: [{ ...range({}), order: 'sideways' }, range({ id: 'fill-1' })] }],
    }
    const places = readCard(broken).faults!.map(({ place }) => place)
    expect(places).toContain('pieces[0].ranges[0].order')
    const taken = { ...card, pieces: [{ ...piece, ranges: [range({ id: 'fill-1' })] }] }
    expect(
      readCard(taken)
        .faults!.map(({ message }) => message)
        .join(),
    ).toContain('is an id that is taken')
  })
})

/** A value that stands still, whatever moved it before. */
const writeBare = (card: Card, address: string): Card => {
  const [pieceId, rangeId] = address.split('/') as [string, string]
  return changeRange(card, pieceId, rangeId, { sweep: 0 })
}

/** The Gaussian of a picture, premultiplied, by direct summation in double precision. */
function blurredBy({ width, height, pixels, bits }: FramePicture, sigma: number): FramePicture {
  const from = new Uint16Array(pixels.buffer)
  const radius = Math.ceil(sigma * 5)
  const taps = Array.from({ length: 2 * radius + 1 }, (_, i) => Math.exp(-((i - radius) ** 2) / (2 * sigma * sigma)))
  const sum = taps.reduce((a, b) => a + b)
  let values = Float64Array.from(from, (v, i) => (i % 4 === 3 ? v : (v * from[i - (i % 4) + 3]!) / 65535))
  for (const [dx, dy] of [
    [1, 0],
    [0, 1],
  ] as const) {
    const next = new Float64Array(values.length)
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        for (let k = -radius; k <= radius; k++) {
          const [px, py] = [x + k * dx, y + k * dy]
          if (px < 0 || py < 0 || px >= width || py >= height) continue
          const weight = taps[k + radius]! / sum
          for (let c = 0; c < 4; c++) next[(y * width + x) * 4 + c]! += values[(py * width + px) * 4 + c]! * weight
        }
      }
    }
    values = next
  }
  const straight = Uint16Array.from(values, (v, i) => {
    const alpha = values[i - (i % 4) + 3]!
    return Math.round(i % 4 === 3 ? v : alpha > 0 ? Math.min(65535, (v / alpha) * 65535) : 0)
  })
  return { width, height, bits, pixels: new Uint8Array(straight.buffer) }
}
