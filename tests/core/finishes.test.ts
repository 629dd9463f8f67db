import { describe, expect, test } from '@jest/globals'
import { expectCard } from '#core/card/read'
import type { BoxPiece, Card, Finish } from '#core/card/schema'
import { createPiece } from '#core/card/create'
import type { FinishDefinition } from '#core/finishes/definition'
import { FINISHES } from '#core/finishes/table'
import { Engine } from '#core/frame/engine'
import { LISTS } from '#core/frame/plan'
import type { Parameter } from '#core/values/parameter-kinds'
import { endsOf, gradient } from '../support/ends'
import { coat, emptyCard, finish, floatsOf, solid, withBox, withWash } from '../support/engine'

// What holds for every kind of finish, read from the table of kinds: a new kind is tested as soon as it is listed.

const engine = new Engine()
const forgetful = new Engine(undefined, undefined, { keeps: false })

const [W, H] = [208, 144]

/** A box half outside the frame, turned, with a soft glow and a gradient, and a mover behind it. */
function pieceCard(finishes: Finish[], on = emptyCard(W, H, 10)): Card {
  const box = { id: 'box', width: 120, height: 50, radius: 12, rotation: 14, x: 30, y: 60, finishes }
  const coats = { face: [coat('fill', 'f', { paint: gradient('linear') })], behind: [coat('glow', 'g', { reach: 18 })] }
  const x = {
    keys: [
      { frame: 0, value: 60 },
      { frame: 5, value: 150 },
    ],
  }
  const mover = { ...createPiece('box', on), id: 'mover', name: 'Mover', width: 30, height: 90, x, y: 80 } as BoxPiece
  const moving = {
    ...on,
    pieces: [{ ...mover, coats: { face: [coat('fill', 'm', { paint: solid('#E0C040C0') })], behind: [] } }],
  }
  return withBox(moving, box, coats)
}

/** A wash over that scene, on a ground or on nothing. */
const washCard = (finishes: Finish[], ground: boolean) =>
  withWash(
    pieceCard([], { ...emptyCard(W, H, 10), background: ground ? (gradient('linear') as Card['background']) : null }),
    finishes,
  )

function cut({ width, pixels }: { width: number; pixels: Uint8Array }, x: number, y: number, w: number, h: number) {
  return Buffer.concat(
    Array.from({ length: h }, (_, j) => pixels.subarray(((y + j) * width + x) * 4, ((y + j) * width + x + w) * 4)),
  )
}

/** What must be set so that a parameter counts at all. */
const needed = ({ when }: Parameter): Record<string, unknown> =>
  when && 'is' in when ? { [when.parameter]: when.is[0] } : {}

/** Values at the ends of every parameter, one after the other; lengths and places on a scale that a small frame can show. */
function casesOf({ parameters }: FinishDefinition): Record<string, unknown>[] {
  const fitting = (parameter: Parameter, end: unknown) =>
    parameter.type === 'length' && typeof end === 'number' ? Math.max(-90, Math.min(90, end)) : end
  const few = { copies: 3 }
  return Object.entries(parameters).flatMap(([name, parameter]) =>
    (name === 'copies' ? [0, 5] : endsOf(parameter)).map((end) => ({
      ...(name !== 'copies' && 'copies' in parameters ? few : {}),
      ...needed(parameter),
      [name]: fitting(parameter, end),
    })),
  )
}

describe.each(FINISHES.map((definition) => [definition.kind, definition] as const))('%s', (kind, definition) => {
  const cases = [{}, ...casesOf(definition)]

  test('with each value at its ends, on a piece, in a wash on nothing and on a ground: whole pixels, the same in a part and with nothing kept', () => {
    for (const values of cases) {
      const one = finish(kind, values)
      for (const card of [pieceCard([one]), washCard([one], false), washCard([one], true)]) {
        const told = JSON.stringify(values)
        expectCard(JSON.parse(JSON.stringify(card)))
        const whole = engine.render(card, 3)
        const { values: pixels } = floatsOf(engine, card, 3)
        let wrong = 0
        for (let i = 0; i < pixels.length; i += 4) {
          const alpha = pixels[i + 3]!
          if (!(alpha >= 0 && alpha <= 1)) wrong++
          for (let c = 0; c < 3; c++) if (!(pixels[i + c]! >= 0 && pixels[i + c]! <= alpha + 1e-6)) wrong++
        }
        expect([told, wrong]).toEqual([told, 0])
        const part = forgetful.render(card, 3, { region: { x: 64, y: 64, w: 80, h: 80 } })
        expect([told, Buffer.compare(cut(whole, 64, 64, 80, 80), part.pixels)]).toEqual([told, 0])
      }
    }
  }, 60_000)

  test('at strength 0, and switched off, leaves every pixel to the bit', () => {
    for (const make of [pieceCard, (list: Finish[]) => washCard(list, true)]) {
      const bare = engine.render(make([]), 3, { bits: 16 }).pixels
      for (const still of [{ strength: 0 }, { on: false }]) {
        expect(Buffer.compare(engine.render(make([finish(kind, still)]), 3, { bits: 16 }).pixels, bare)).toBe(0)
      }
    }
  })

  test('at half strength lies half way between', () => {
    const at = (strength: number) => floatsOf(engine, washCard([finish(kind, { strength })], true), 3).at
    const [none, half, all] = [at(0), at(50), at(100)]
    for (const [x, y] of [
      [40, 60],
      [100, 80],
      [150, 40],
    ] as const) {
      for (let c = 0; c < 4; c++) expect(half(x, y)[c]!).toBeCloseTo((none(x, y)[c]! + all(x, y)[c]!) / 2, 5)
    }
  })

  test('touches nothing beyond what it says', () => {
    for (const values of cases) {
      const card = pieceCard([finish(kind, values)])
      const drawing = engine['drawing'](card, { ring: { length: 10 }, frame: 3 }, 1)
      const touched = LISTS.touched(drawing, [card.pieces[0]!])
      const alone = { ...card, pieces: [card.pieces[0]!] }
      const { at } = floatsOf(engine, alone, 3)
      let beyond = 0
      for (let y = 0; y < H; y++) {
        for (let x = 0; x < W; x++) {
          if (at(x, y)[3] === 0) continue
          if (!touched || x + 1 < touched.left || x > touched.right || y + 1 < touched.top || y > touched.bottom)
            beyond++
        }
      }
      expect([JSON.stringify(values), beyond]).toEqual([JSON.stringify(values), 0])
    }
  })
})

test('values at which a finish is said to be idle leave every pixel to the bit, worked or not', () => {
  const bare = floatsOf(engine, washCard([], true), 3)
  const idle: [string, Record<string, unknown>][] = [
    ['blur', { radius: 0 }],
    ['blur', { form: 'along', length: 0 }],
    ['bloom', { amount: 0 }],
    ['grain', { amount: 0 }],
    ['exposure', { stops: 0 }],
    ['tone', {}],
    ['curve', {}],
    ['colour', {}],
    ['displace', { x: 0 }],
    ['turbulence', { amount: 0 }],
    ['move', {}],
    ['fringe', { amount: 0 }],
    ['vignette', { amount: 0 }],
    ['glint', { place: 0 }],
    ['edge', {}],
    ['bands', { share: 0 }],
    ['trails', { copies: 0 }],
    ['lines', { amount: 0 }],
    ['flare', { amount: 0 }],
  ]
  for (const [kind, values] of idle) {
    const { values: pixels } = floatsOf(engine, washCard([finish(kind, values)], true), 3)
    expect([kind, Buffer.compare(Buffer.from(pixels.buffer), Buffer.from(bare.values.buffer))]).toEqual([kind, 0])
  }
})

test('a picture of several moments is not taken for that of a card whose other keys were changed', () => {
  const card = (to: number, finishes: Finish[]): Card => {
    const on = { ...emptyCard(W, H, 10), shutter: { angle: 360, phase: 0 } }
    const x = {
      keys: [
        { frame: 0, value: 60 },
        { frame: 5, value: to },
      ],
    }
    const inner = withBox(
      on,
      { id: 'inner', width: 30, height: 30, x: x as never, y: 70 },
      { face: [coat('fill', 'i')] },
    ).pieces
    const group = { ...createPiece('group', on), x: 0, y: 0, pieces: inner, finishes } as Card['pieces'][number]
    return { ...on, pieces: [group] }
  }
  for (const finishes of [[], [finish('trails', { copies: 2, spacing: -2 })]]) {
    const one = new Engine()
    for (let again = 0; again < 3; again++) one.render(card(150, finishes), 0)
    const after = one.render(card(90, finishes), 0).pixels
    expect(Buffer.compare(after, forgetful.render(card(90, finishes), 0).pixels)).toBe(0)
  }
})

test('a wash that is held shows the same for all the frames that it is held', () => {
  const at = (frame: number, steps: number) =>
    engine.render(
      withWash({ ...emptyCard(W, H, 12), background: solid('#808080') }, [finish('grain', { every: 1 })], { steps }),
      frame,
    ).pixels
  expect(Buffer.compare(at(4, 3), at(3, 3))).toBe(0)
  expect(Buffer.compare(at(6, 3), at(5, 3))).not.toBe(0)
  expect(Buffer.compare(at(4, 1), at(3, 1))).not.toBe(0)
})
