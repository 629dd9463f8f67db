import { describe, expect, test } from '@jest/globals'
import { createMask, createPiece } from '#core/card/create'
import { expectCard } from '#core/card/read'
import type { BoxPiece, Card, Finish, GroupPiece, Mask, Piece, TypePiece } from '#core/card/schema'
import { addMask } from '#core/edit/masks'
import { Engine } from '#core/frame/engine'
import { parametersOfMask } from '#core/masks/definition'
import { MASKS, maskOf } from '#core/masks/table'
import type { Parameter } from '#core/values/parameter-kinds'
import { endsOf } from '../support/ends'
import { coat, emptyCard, finish, floatsOf, fontBytes, solid, withBox, withPiece, withWash } from '../support/engine'
import { expectSamePicture } from '../support/same-picture'

const SIZE = { w: 256, h: 192 }

const mask = (kind: string, values: object = {}, id = 'mask'): Mask => ({ ...createMask(kind, id), ...values }) as Mask

function engineOf(keeps = true): Engine {
  const engine = new Engine(undefined, undefined, { keeps })
  engine.fonts.add('anton', fontBytes('anton'))
  return engine
}

const fill = (id: string, colour: string) => coat('fill', id, { paint: solid(colour) })

/** A white box over the whole frame with masks. */
function held(masks: Mask[], values: Partial<BoxPiece> = {}): Card {
  const all = { id: 'all', x: 128, y: 96, width: 4000, height: 4000, masks, ...values }
  return expectCard(withBox(emptyCard(SIZE.w, SIZE.h), all, { face: [fill('f', '#FFFFFF')] }))
}

const alphaAt = (card: Card, x: number, y: number, frame = 0) => floatsOf(engineOf(), card, frame).at(x, y)[3]

/** Words with a glow in a group, a box with a finish, and a wash, all held by a mask. */
function scene(one: Mask): Card {
  const named = (k: number, values: object = {}) => [{ ...one, id: `mask-${k}`, ...values } as Mask]
  let card: Card = { ...emptyCard(SIZE.w, SIZE.h, 12), background: solid('#203040') }
  const looks = (k: number) => ({
    face: [coat('bevel', `bevel-${k}`, { width: 6 }), fill(`fill-${k}`, '#F6C667')],
    behind: [coat('glow', `glow-${k}`, { reach: 14 }), coat('shadow', `shadow-${k}`, { distance: 6, softness: 8 })],
  })
  const words = { id: 'words', wording: 'Rib', font: 'anton', size: 90, x: 10, y: 90 }
  card = withPiece<TypePiece>(card, 'type', words, looks(1))
  const [inner] = card.pieces
  const group = {
    ...createPiece('group', card),
    id: 'group',
    x: 0,
    y: 0,
    pieces: [inner],
    masks: named(1),
  } as GroupPiece
  card = { ...card, pieces: [group] }
  const box = { id: 'box', x: 180, y: 60, width: 110, height: 70, finishes: [finish('blur', { radius: 6 })] }
  card = withPiece<BoxPiece>(card, 'box', { ...box, masks: named(2, 'x' in one ? { x: 0, y: 0 } : {}) }, looks(2))
  card = withWash(card, [finish('tint', {}, 'tinted')], { id: 'wash', masks: named(3) })
  return expectCard(card)
}

const STROKE = {
  ...{ id: 'stroke', tip: 'chalk', size: 60, points: [-60, -30, 0.4, 20, 10, 1, 70, -40, 0.7], seed: 3 },
}

const CASES = MASKS.flatMap((definition) =>
  Object.entries<Parameter>(parametersOfMask(definition)).flatMap(([name, parameter]) =>
    (parameter.type === 'path' ? ['M 0 0 L 60 0 L 0 60 Z', 'M 5 5'] : endsOf(parameter)).map((end) => {
      // Lengths stay on a scale that a small frame can show.
      const near = typeof end === 'number' && parameter.type === 'length' ? Math.sign(end) * 25 : end
      const usual = definition.matte
        ? { source: 'words' }
        : { x: 90, y: 80, ...(definition.starts ? { strokes: [STROKE] } : {}) }
      return [definition.kind, { ...usual, feather: 9, [name]: near }] as const
    }),
  ),
)

describe('masks', () => {
  test('whatever their values are: a picture, the same in parts and with nothing kept', () => {
    const [engine, bare] = [engineOf(), engineOf(false)]
    for (const [kind, values] of CASES) {
      const card = scene(mask(kind, values))
      expectSamePicture(engine, bare, card, 3, JSON.stringify([kind, values]))
    }
  })

  test('are joined as mask-composite joins them: c + m − c·m, c·(1 − m), c·m', () => {
    const left = (mode: string, opacity: number, id: string) =>
      mask('box', { mode, opacity, x: -64, width: 120, height: 500 }, id)
    const over = (mode: string, opacity: number, id: string) =>
      mask('box', { mode, opacity, x: -32, width: 120, height: 500 }, id)
    // Alone, together, alone: the first is the lowest of the list.
    const at = (card: Card) => [40, 80, 150, 250].map((x) => alphaAt(card, x, 96))
    expect(at(held([over('add', 50, 'b'), left('add', 80, 'a')]))).toEqual([
      expect.closeTo(0.9, 6),
      expect.closeTo(0.9, 6),
      expect.closeTo(0.5, 6),
      0,
    ])
    expect(at(held([over('take', 50, 'b'), left('add', 80, 'a')]))).toEqual([
      expect.closeTo(0.4, 6),
      expect.closeTo(0.4, 6),
      0,
      0,
    ])
    expect(at(held([over('keep', 50, 'b'), left('add', 80, 'a')]))).toEqual([
      expect.closeTo(0.4, 6),
      expect.closeTo(0.4, 6),
      0,
      0,
    ])
    // The first one that takes away or keeps begins with all.
    expect(at(held([left('take', 80, 'a')]))).toEqual([expect.closeTo(0.2, 6), expect.closeTo(0.2, 6), 1, 1])
    expect(at(held([left('keep', 80, 'a')]))).toEqual([expect.closeTo(0.8, 6), expect.closeTo(0.8, 6), 0, 0])
    expect(at(held([{ ...left('add', 80, 'a'), inverted: true } as Mask]))).toEqual(
      [0, 0, 0.8, 0.8].map((v) => expect.closeTo(v, 6)),
    )
  })

  test('one that is switched off does not count', () => {
    const whole = floatsOf(engineOf(), held([])).values
    expect(floatsOf(engineOf(), held([mask('box', { on: false })])).values).toEqual(whole)
  })

  test('a circle grown by 20 px is the circle of that radius; grown inward the smaller one', () => {
    for (const by of [20, -20]) {
      const grown = floatsOf(engineOf(), held([mask('ellipse', { width: 100, height: 100, grow: by })])).values
      const plain = floatsOf(engineOf(), held([mask('ellipse', { width: 100 + 2 * by, height: 100 + 2 * by })])).values
      const most = grown.reduce((least, v, i) => Math.max(least, Math.abs(v - plain[i]!)), 0)
      expect(most).toBeLessThan(0.03)
    }
  })

  test('in % lengths count by the piece, on a wash by the frame', () => {
    const px = held([mask('box', { width: 160, height: 80, feather: 20, grow: 8 })])
    const share = held([
      mask('box', { width: 160, height: 80, feather: { unit: '%', value: 0.5 }, grow: { unit: '%', value: 0.2 } }),
    ])
    expect(floatsOf(engineOf(), share).values).toEqual(floatsOf(engineOf(), px).values)
    // 10 % of the frame's smaller side, 192 px.
    const [ofFrame, inPx] = [{ unit: '%', value: 10 }, 19.2].map((feather) => {
      const masks = [mask('box', { x: 128, y: 96, width: 90, height: 70, feather }, 'on-wash')]
      return floatsOf(engineOf(), expectCard(withWash(held([]), [finish('exposure', { stops: -2 })], { masks }))).values
    })
    expect(ofFrame).toEqual(inPx)
  })

  test('moves, turns and grows with the piece, or stays on the card', () => {
    const own = mask('box', { x: 20, width: 60, height: 60 })
    const placed = { x: 100, rotation: 90, scale: 50 }
    // 20 px to the right, turned by 90°, is 10 px up after the scale.
    const turned = held([own], placed)
    expect([alphaAt(turned, 100, 86), alphaAt(turned, 100, 104), alphaAt(turned, 120, 86)]).toEqual([1, 0, 0])
    const fixed = held([{ ...own, space: 'card', x: 200, y: 40 } as Mask], placed)
    expect([
      alphaAt(fixed, 200, 40),
      alphaAt(fixed, 228, 40),
      alphaAt(fixed, 232, 40),
      alphaAt(fixed, 100, 86),
    ]).toEqual([1, 1, 0, 0])
  })

  test('before the finishes they see the cut, after them it stays sharp', () => {
    const blur = [finish('blur', { radius: 24 })] as Finish[]
    const cut = mask('box', { x: -64, width: 128, height: 500 })
    const soft = held([cut], { finishes: blur })
    const sharp = held([{ ...cut, stage: 'after' } as Mask], { finishes: blur })
    expect(alphaAt(soft, 124, 96)).toBeGreaterThan(0.4)
    expect(alphaAt(soft, 124, 96)).toBeLessThan(0.7)
    expect(alphaAt(soft, 134, 96)).toBeGreaterThan(0.2)
    expect([alphaAt(sharp, 124, 96), alphaAt(sharp, 134, 96)]).toEqual([expect.closeTo(1, 5), 0])
  })

  test('on a wash they say where it works, to the bit', () => {
    const ground = { ...held([]), background: solid('#345678') }
    const dark = [finish('exposure', { stops: -2 })] as Finish[]
    const engine = engineOf()
    const [plain, all] = [engine.render(ground, 0), engine.render(withWash(ground, dark), 0)]
    const here = mask('box', { x: 128, y: 96, width: 100, height: 60 })
    const part = engine.render(expectCard(withWash(ground, dark, { masks: [here] })), 0)
    const pixel = (picture: { pixels: Uint8Array }, x: number, y: number) => [
      ...picture.pixels.subarray((y * SIZE.w + x) * 4, (y * SIZE.w + x) * 4 + 4),
    ]
    for (const [x, y] of [
      [80, 70],
      [128, 96],
      [176, 124],
    ] as const)
      expect(pixel(part, x, y)).toEqual(pixel(all, x, y))
    for (const [x, y] of [
      [76, 70],
      [10, 10],
      [180, 130],
    ] as const)
      expect(pixel(part, x, y)).toEqual(pixel(plain, x, y))
  })

  test('motion blur sees a mask that moves as far as a box that moves', () => {
    const moving = {
      keys: [
        { frame: 0, value: -100, easing: 'linear' },
        { frame: 10, value: 300 },
      ],
    }
    const shutter = { shutter: { angle: 180, phase: -90 } }
    const masked = held([mask('box', { space: 'card', x: moving, y: 96, width: 80, height: 100 })])
    const box = { id: 'box', x: moving, y: 96, width: 80, height: 100 } as unknown as Partial<BoxPiece>
    const plain = expectCard(withBox(emptyCard(SIZE.w, SIZE.h), box, { face: [fill('f', '#FFFFFF')] }))
    const [a, b] = [masked, plain].map((card) => floatsOf(engineOf(), { ...card, ...shutter } as Card, 5))
    for (let x = 0; x < SIZE.w; x += 3) expect(Math.abs(a!.at(x, 96)[3] - b!.at(x, 96)[3])).toBeLessThan(0.06)
    // It is a ramp, and no stairs of a few copies.
    expect(new Set(Array.from({ length: 20 }, (_, i) => a!.at(46 + i, 96)[3].toFixed(3))).size).toBeGreaterThan(12)
  })

  test('a new one covers the piece; a path keeps its own size', () => {
    const card = held([])
    const around = { left: -30, top: -10, right: 90, bottom: 50 }
    const made = addMask(card, 'all', 'box', around)
    expect(made.card.pieces[0]!.masks).toEqual([
      expect.objectContaining({ id: made.id, x: 30, y: 20, width: 120, height: 60, mode: 'add' }),
    ])
    expect(addMask(card, 'all', 'path', around).card.pieces[0]!.masks[0]).toEqual({
      ...createMask('path', 'mask-1'),
    })
    expect(expectCard(made.card).pieces[0]!.masks).toHaveLength(1)
  })

  test('a path that cannot be read is named at its piece', () => {
    const card = {
      ...held([]),
      pieces: held([]).pieces.map((piece) => ({ ...piece, masks: [mask('path', { path: 'M 0 0 X' })] }) as Piece),
    }
    expect(() => engineOf().render(card, 0)).toThrow(/path/i)
  })

  test('what is taken hold of means its values', () => {
    for (const kind of ['box', 'ellipse']) {
      const values = { ...createMask(kind, 'm'), width: 140, height: 60 }
      const [grip] = maskOf(kind).grips!(values as never, {
        ...{ px: Number, line: null },
        whole: { left: -70, top: -30, right: 70, bottom: 30 },
      })
      expect(grip!.values(grip!.at)).toEqual({ width: expect.closeTo(140, 9), height: expect.closeTo(60, 9) })
    }
  })
})
