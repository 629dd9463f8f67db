import { describe, expect, test } from '@jest/globals'
import { cardSchema } from '#core/card/checks'
import type { BoxPiece, PathPiece, TypePiece } from '#core/card/schema'
import { createPiece } from '#core/card/create'
import { writeValue } from '#core/edit/values'
import { motionFaults } from '#core/judge/motion-faults'
import { writeColour } from '#core/values/colour'
import { colourAt, curveAt, heldAt, pathAt } from '#core/values/moved'
import { converter } from 'culori'
import { coat, emptyCard, engineWithFonts, pixelAt, solid, withBox, withType } from '../support/engine'

const engine = engineWithFonts()
const face = [coat('fill', 'fill', { paint: solid('#FFFFFF') })]
const box = (values: Partial<BoxPiece>, length = 50) =>
  withBox(emptyCard(160, 90, length), { id: 'box', x: 80, y: 45, width: 40, height: 30, ...values }, { face })
const alphaAt = (card: ReturnType<typeof box>, frame: number, x = 80, y = 45) =>
  pixelAt(engine.render(card, frame), x, y)[3]

describe('spans', () => {
  test('a piece is seen from its first frame to the one before its last, and comes round', () => {
    const card = box({ span: { in: 10, out: 20 } })
    expect([9, 10, 19, 20, 60].map((frame) => alphaAt(card, frame))).toEqual([0, 1, 1, 0, 1])
  })

  test('its motion begins before it is seen', () => {
    const x = {
      keys: [
        { frame: 0, value: 0 },
        { frame: 20, value: 80 },
      ],
      loop: false,
    }
    const card = box({ x, span: { in: 10, out: 50 } })
    expect(alphaAt(card, 10, 40)).toBe(1)
    expect(alphaAt(card, 10, 80)).toBe(0)
  })

  test('a piece that is not seen still has handles', () => {
    const card = box({ span: { in: 10, out: 20 } })
    expect(engine.outlook(card, 0)[0]!.bounds).toEqual({ left: 60, top: 30, right: 100, bottom: 60 })
    expect(engine.pick(card, 0, { x: 80, y: 45 })).toBeNull()
  })
})

describe('switches that change at keys', () => {
  const from10to20 = {
    keys: [
      { frame: 0, value: false },
      { frame: 10, value: true },
      { frame: 20, value: false },
    ],
  }

  test('a piece is there between its keys, and is picked then alone; it keeps its handles', () => {
    const card = box({ on: from10to20 })
    expect([9, 10, 19, 20, 60].map((frame) => alphaAt(card, frame))).toEqual([0, 1, 1, 0, 1])
    expect([9, 10].map((frame) => engine.pick(card, frame, { x: 80, y: 45 }))).toEqual([null, 'box'])
    expect(engine.outlook(card, 0)[0]!.bounds).toEqual({ left: 60, top: 30, right: 100, bottom: 60 })
  })

  test('a coat is laid between its keys; what is stacked on it stands where it would without', () => {
    const strokes = [
      coat('stroke', 'inner', { width: 6, paint: solid('#FF0000'), on: from10to20 }),
      coat('stroke', 'outer', { width: 6, stacked: true, paint: solid('#0000FF') }),
    ]
    const card = withBox(emptyCard(160, 90, 50), { x: 80, y: 45, width: 40, height: 30 }, { face: strokes })
    const colours = (frame: number) => [57, 51].map((x) => pixelAt(engine.render(card, frame), x, 45))
    expect(colours(10)).toEqual([
      [1, 0, 0, 1],
      [0, 0, 1, 1],
    ])
    expect(colours(9)).toEqual([
      [0, 0, 1, 1],
      [0, 0, 0, 0],
    ])
  })

  test('it comes and goes with the frame, whatever the shutter does', () => {
    const card = { ...box({ on: from10to20 }), shutter: { angle: 360, phase: -180 } }
    expect([9, 10, 19, 20].map((frame) => alphaAt(card, frame))).toEqual([0, 1, 1, 0])
  })

  test('a group is switched with all that it holds', () => {
    const { pieces, ...rest } = box({})
    const group = { ...createPiece('group', { ...rest, pieces }), x: 0, y: 0, on: from10to20, pieces }
    const card = { ...rest, pieces: [group] } as ReturnType<typeof box>
    expect([9, 10, 20].map((frame) => alphaAt(card, frame))).toEqual([0, 1, 0])
  })

  test('the eye of what moves sets a key; its address is that of a value', () => {
    const card = writeValue(box({ on: from10to20 }), 'box/on', 30, true)
    expect(alphaAt(card, 31)).toBe(1)
    expect(alphaAt(writeValue(box({}), 'box/fill/on', 0, false), 0)).toBe(0)
    expect(cardSchema.safeParse(card).success).toBe(true)
    expect(cardSchema.safeParse(box({ on: { keys: [{ frame: 0, value: 1 }] } as never })).success).toBe(false)
  })
})

describe('stepped time', () => {
  const sliding = {
    keys: [
      { frame: 0, value: 20 },
      { frame: 49, value: 140 },
    ],
    loop: false,
  }
  const pictures = (card: ReturnType<typeof box>) =>
    new Set(Array.from({ length: 12 }, (_, frame) => Buffer.from(engine.render(card, frame).pixels).toString('base64')))
      .size

  test('on twos a piece shows six pictures in twelve frames, on threes four; so does a card', () => {
    expect(pictures(box({ x: sliding }))).toBe(12)
    expect(pictures(box({ x: sliding, steps: 2 }))).toBe(6)
    expect(pictures(box({ x: sliding, steps: 3 }))).toBe(4)
    expect(pictures({ ...box({ x: sliding }), steps: 3 })).toBe(4)
  })

  test('the picture that is held is that of the first of its frames', () => {
    expect(engine.render(box({ x: sliding, steps: 4 }), 7).pixels).toEqual(engine.render(box({ x: sliding }), 4).pixels)
  })
})

describe('values that are no numbers', () => {
  const half = { ring: { length: 20 }, frame: 5 }
  const keys = <T>(a: T, b: T) => [
    { frame: 0, value: a },
    { frame: 10, value: b },
  ]

  test('words and switches change at the key', () => {
    const words = { keys: keys('One', 'Two') }
    expect([0, 9.9, 10, 19].map((frame) => heldAt(words, { ring: { length: 20 }, frame }))).toEqual([
      'One',
      'One',
      'Two',
      'Two',
    ])
    const card = withType(emptyCard(200, 90, 20), { wording: words, size: 60, x: 100, y: 45 }, { face })
    const still = (wording: string) =>
      engine.render(withType(emptyCard(200, 90, 20), { wording, size: 60, x: 100, y: 45 }, { face }), 0).pixels
    expect(engine.render(card, 3).pixels).toEqual(still('One'))
    expect(engine.render(card, 12).pixels).toEqual(still('Two'))
    const corners = box({ ownCorners: { keys: keys(false, true) }, topLeft: 15 } as never, 20)
    expect([alphaAt(corners, 0, 60, 30), alphaAt(corners, 12, 60, 30)]).toEqual([1, 0])
  })

  test('paths of the same commands move point by point, others jump', () => {
    const morph = { keys: keys('M 0 0 L 10 0 L 10 10 Z', 'M 0 20 L 30 0 L 10 10 Z') }
    expect(pathAt(morph, half)).toBe('M 0 10 L 20 0 L 10 10 Z')
    expect(pathAt({ keys: keys('M 0 0 L 10 0', 'M 0 0 C 1 1 2 2 10 0') }, half)).toBe('M 0 0 L 10 0')
    const card = emptyCard(160, 90, 20)
    const piece = {
      ...createPiece('path', card),
      path: { keys: keys('M -20 -20 H 20 V 20 H -20 Z', 'M -60 -20 H 60 V 20 H -60 Z') },
    } as PathPiece
    const moving = { ...card, pieces: [{ ...piece, coats: { face, behind: [] } }] }
    expect(engine.outlook(moving, 5)[0]!.bounds).toMatchObject({ left: 40, right: 120 })
  })

  test('drawn curves move point by point, others jump', () => {
    const curve = (y: number) => ({
      points: [
        { x: 0, y: 0 },
        { x: 0.5, y },
        { x: 1, y: 1 },
      ],
    })
    expect(curveAt({ keys: keys(curve(0.2), curve(0.8)) }, half)).toEqual(curve(0.5))
    expect(curveAt({ keys: keys('ogee' as const, 'linear' as const) }, half)).toBe('ogee')
  })

  test('colours are mixed in sRGB or in OKLab', () => {
    const blue = { keys: keys('#0000FF', '#FFFF00') }
    expect(writeColour(colourAt(blue, half))).toBe('#808080')
    // culori, a second implementation.
    const mixed = colourAt({ ...blue, mix: 'oklab' }, half)
    const [a, b] = ['#0000FF', '#FFFF00'].map((c) => converter('oklab')(c)!)
    const expected = converter('rgb')({
      mode: 'oklab',
      l: (a!.l + b!.l) / 2,
      a: (a!.a + b!.a) / 2,
      b: (a!.b + b!.b) / 2,
    })
    for (const [i, name] of (['r', 'g', 'b'] as const).entries()) expect(mixed[i]).toBeCloseTo(expected[name], 4)
  })
})

test('what cannot be is refused by name', () => {
  const faults = (change: object, piece: object = {}) => {
    const card = box({})
    const read = cardSchema.safeParse({ ...card, ...change, pieces: [{ ...card.pieces[0], ...piece }] })
    return read.success ? [] : read.error.issues.map(({ path }) => path.join('.'))
  }
  expect(faults({})).toEqual([])
  expect(faults({}, { span: { in: 20, out: 20 } })).toEqual(['pieces.0.span'])
  expect(faults({ zones: { hold: 30, out: 10 } })).toEqual(['zones'])
  expect(faults({ steps: 0 })).toEqual(['steps'])
  expect(faults({ easings: [{ name: 'Mine', easing: 'wobble' }] })).toEqual(['easings.0.easing'])
  expect(faults({}, { x: { keys: [{ frame: 0, value: 1 }], motors: [{ kind: 'wobble' }] } })[0]).toMatch(
    /^pieces\.0\.x/,
  )
  expect(
    faults(
      {},
      {
        x: {
          keys: [
            { frame: 5, value: 1 },
            { frame: 5, value: 2 },
          ],
        },
      },
    )[0],
  ).toMatch(/^pieces\.0\.x/)
  expect(faults({ rate: { numerator: 0, denominator: 1 } })).toEqual(['rate.numerator'])
})

test('the wording of a type piece is still a plain text when it does not move', () => {
  expect((createPiece('type', emptyCard(100, 100)) as TypePiece).wording).toBe('Your words')
})

describe('linked type', () => {
  const type = (id: string, wording: string, linked: string | null, y = 45) =>
    withType(
      emptyCard(200, 90, 20),
      { id, wording, linked, size: 60, x: 100, y },
      { face: [{ ...face[0]!, id: `f-${id}` }] },
    ).pieces[0]!
  const of = (...pieces: ReturnType<typeof type>[]) => ({ ...emptyCard(200, 90, 20), pieces })
  const pictureOf = (card: ReturnType<typeof of>) => Buffer.from(engine.render(card, 0).pixels)

  test('shows the words of another piece, over any number of links', () => {
    const hidden = { ...type('a', 'Boat', null), on: false }
    const far = of(type('c', 'x', 'b'), { ...type('b', 'y', 'a'), on: false }, hidden)
    expect(pictureOf(far).equals(pictureOf(of(type('c', 'Boat', null))))).toBe(true)
    expect(motionFaults(far)).toEqual([])
  })

  test('a link that leads nowhere or in a circle: its own words, and it is told', () => {
    const own = pictureOf(of(type('c', 'Own', null)))
    const gone = of(type('c', 'Own', 'gone'))
    expect(pictureOf(gone).equals(own)).toBe(true)
    expect(motionFaults(gone)[0]).toMatchObject({ address: 'c/wording', message: expect.stringMatching(/is gone/) })
    const circle = of(type('c', 'Own', 'd'), { ...type('d', 'Other', 'c'), on: false })
    expect(pictureOf(circle).equals(own)).toBe(true)
    expect(motionFaults(circle).map(({ address }) => address)).toEqual(['c/wording', 'd/wording'])
  })
})
