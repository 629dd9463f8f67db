import { beforeAll, describe, expect, test } from '@jest/globals'
import type { Card, TypePiece } from '#core/card/schema'
import type { Engine, FramePicture } from '#core/frame/engine'
import { Font } from '#core/type/font'
import { moveLetters } from '#core/type/letter-motion'
import type { LetterRange } from '#core/type/ranges'
import { RANGE_PARAMETERS } from '#core/type/ranges'
import { coat, emptyCard, engineWithFonts, fontBytes, pixelAt, solid, withType } from '../support/engine'
import { letterRange as range, evaluatedRange as evaluated } from '../support/ranges'

const font = new Font(fontBytes('archivo-black'), 'test')

describe('letters on their way, drawn', () => {
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

  test('nor in long lines, however many letters there are', () => {
    const size = { w: 760, h: 48 }
    const long = { wording: 'H'.repeat(40), tracking: -40, size: 24 }
    const only = {
      face: [face[0]!, coat('stroke', 'stroke-1', { side: 'outside', width: 5, paint: solid('#1B1420') })],
      behind: [],
    }
    const rest = drawn(words({ ...long, ranges: [range({ sweep: 100, y: 40 })] }, only, size))
    const plain = drawn(words(long, only, size))
    const inked = [...Array(size.w * size.h).keys()]
      .map((i) => [i % size.w, Math.floor(i / size.w)] as const)
      .filter(([x, y]) => pixelAt(plain, x, y)[0] > 0.88)
    expect(inked.length).toBeGreaterThan(4000)
    for (const [x, y] of inked) expect(pixelAt(rest, x, y)[0]).toBeCloseTo(pixelAt(plain, x, y)[0], 3)
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
      ranges: [evaluated({ y: 5, sweep: 100 })],
    })
    const single = moveLetters(font, {
      wording: 'O',
      tracking: 0,
      leading: 110,
      align: 'centre',
      size: 90,
      spaced: false,
      ranges: [evaluated({ y: 5, sweep: 100 })],
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
