import { describe, expect, test } from '@jest/globals'
import type { Card, EllipsePiece, OutlineStep, PathPiece, TypePiece } from '#core/card/schema'
import { expectCard } from '#core/card/read'
import { Engine } from '#core/frame/engine'
import type { StepDefinition } from '#core/steps/definition'
import { STEPS, stepOf } from '#core/steps/table'
import type { Parameter } from '#core/values/parameter-kinds'
import { endsOf } from '../support/ends'
import { coat, emptyCard, fontBytes, solid, step, withPiece } from '../support/engine'
import { equalPictures, expectSamePicture } from '../support/same-picture'

const SIZE = { w: 256, h: 192 }
const LOOK = {
  face: [
    coat('stroke', 'stroke', { width: 3, side: 'outside', paint: solid('#1E6B6A') }),
    coat('bevel', 'bevel', { width: 6 }),
    coat('fill', 'fill', { paint: { ...solid('#F6C667') } }),
  ],
  behind: [coat('shadow', 'shadow', { distance: 6, softness: 8 })],
}

function engineOf(keeps = true): Engine {
  const engine = new Engine(undefined, undefined, { keeps })
  engine.fonts.add('anton', fontBytes('anton'))
  return engine
}

/** Words, a ring half outside, and a drawn path, all with the same steps. */
function cardWith(steps: OutlineStep[], length = 12): Card {
  const named = (k: number) => steps.map((one) => ({ ...one, id: `${one.id}-${k}` }))
  let card = emptyCard(SIZE.w, SIZE.h, length)
  const own = (k: number) => ({
    face: LOOK.face.map((one) => ({ ...one, id: `${one.id}-${k}` })),
    behind: LOOK.behind.map((one) => ({ ...one, id: `${one.id}-${k}` })),
  })
  const words = { id: 'words', wording: 'Ri b', font: 'anton', size: 80, y: 60, outlineSteps: named(1) }
  card = withPiece<TypePiece>(card, 'type', words, own(1))
  card = withPiece<EllipsePiece>(
    card,
    'ellipse',
    { id: 'ring', x: 10, width: 90, height: 60, outlineSteps: named(2) },
    own(2),
  )
  const path = 'M -60 20 C -20 -60 20 60 60 -20'
  const pressure = [0.1, 1, 0.4]
  const drawn = { id: 'drawn', y: 150, path, thickness: 14, pressure, outlineSteps: named(3) }
  return expectCard(withPiece<PathPiece>(card, 'path', drawn, own(3)))
}

/** Before what works on lines alone there is a line. */
const withLine = (one: OutlineStep) =>
  stepOf(one.kind).works === 'lines' ? [one, step('line', { thickness: 5 }, 'line-before')] : [one]

const needed = ({ when }: Parameter): Record<string, unknown> =>
  when && 'is' in when ? { [when.parameter]: when.is[0] } : {}

function casesOf({ kind, parameters }: StepDefinition): OutlineStep[] {
  return Object.entries(parameters).flatMap(([name, parameter]) => {
    const texts = kind === 'slices' ? ['1 2 3', '0', 'x'] : ['']
    // Lengths stay on a scale that a small frame can show.
    const near = (end: unknown) => (typeof end === 'number' && parameter.type === 'length' ? Math.sign(end) * 60 : end)
    const ends = parameter.type === 'text' ? texts : endsOf(parameter).map(near)
    return ends.map((end) => step(kind, { ...needed(parameter), [name]: end }))
  })
}

describe.each(STEPS.map((definition) => [definition.kind, definition] as const))('%s', (kind, definition) => {
  test('whatever its values are: a picture, the same in parts and with nothing kept', () => {
    const [engine, bare] = [engineOf(), engineOf(false)]
    for (const one of casesOf(definition)) {
      expectSamePicture(engine, bare, cardWith(withLine(one)), 3, JSON.stringify(one))
    }
  })

  test('switched off it changes nothing, to the bit; on it does', () => {
    const engine = engineOf()
    const shaken = kind === 'slices' ? { along: 12 } : kind === 'draw-on' ? { end: 40 } : {}
    const base = withLine(step(kind)).slice(1)
    const plain = engine.render(cardWith(base), 0)
    const off = step(kind, { ...shaken, on: false })
    expect(equalPictures(engine.render(cardWith([off, ...base]), 0), plain)).toBe(true)
    const on = engine.render(cardWith([step(kind, shaken), ...base]), 0)
    expect(equalPictures(on, plain)).toBe(false)
  })

  test('each letter for itself or the whole: both are there on type alone', () => {
    const engine = engineOf()
    const moved = { along: 12, end: 60, form: kind === 'warp' ? 'arc' : undefined }
    const values = Object.fromEntries(Object.entries(moved).filter(([name]) => name in definition.parameters))
    const at = (each: string) => engine.render(cardWith(withLine(step(kind, { ...values, each }))), 0)
    const [whole, letters] = [at('whole'), at('letters')]
    const below = 140 * SIZE.w * 4
    // The path and most of the ring lie below: they know no letters.
    expect(Buffer.from(whole.pixels.subarray(below)).equals(Buffer.from(letters.pixels.subarray(below)))).toBe(true)
  })
})

test.each([
  ['rough', { every: 5 }],
  ['slices', { order: 'chance', along: 14, every: 5 }],
])('%s by chance: new every so many frames, and closed over the loop', (kind, values) => {
  const engine = engineOf()
  const card = cardWith([step(kind, values)])
  const shots = Array.from({ length: 13 }, (_, frame) => engine.render(card, frame).pixels.slice())
  const same = (a: number, b: number) => Buffer.from(shots[a]!).equals(Buffer.from(shots[b]!))
  expect([same(0, 4), same(4, 5), same(5, 9), same(9, 10), same(0, 12)]).toEqual([true, false, true, false, true])
  // Another seed of the card, another throw.
  expect(Buffer.from(engine.render({ ...card, seed: 99 }, 0).pixels).equals(Buffer.from(shots[0]!))).toBe(false)
})

test('paints and lengths in % keep counting by the outline at rest while a step moves', () => {
  const engine = engineOf()
  const gradient = {
    type: 'linear',
    stops: [
      { at: 0, colour: '#FF0000' },
      { at: 100, colour: '#0000FF' },
    ],
  }
  const at = (end: number) => {
    const steps = [step('draw-on', { end }), step('line', { thickness: { unit: '%', value: 30 } })]
    const values = { id: 'e', width: 100, height: 100, outlineSteps: steps }
    const card = withPiece<EllipsePiece>(emptyCard(200, 200), 'ellipse', values, {
      face: [coat('fill', 'f', { paint: gradient })],
    })
    return engine.render(expectCard(card), 0, { bits: 16 })
  }
  const [half, whole] = [at(50), at(100)].map(({ pixels }) => new Uint16Array(pixels.buffer))
  let seen = 0
  for (let i = 3; i < half!.length; i += 4) {
    if (half![i] !== 65535 || whole![i] !== 65535) continue
    seen++
    expect(Math.abs(half![i - 3]! - whole![i - 3]!)).toBeLessThan(4)
  }
  expect(seen).toBeGreaterThan(3000)
})

test('motion blur measures what moves within an outline that stays where it is', () => {
  const engine = engineOf()
  const phase = {
    keys: [
      { frame: 0, value: 0, easing: 'linear' },
      { frame: 11, value: 2 },
    ],
    loop: false,
  }
  const waved = {
    width: 200,
    height: 90,
    outlineSteps: [step('warp', { form: 'wave', height: 12, length: 60, phase })],
  }
  const card = expectCard(withPiece<EllipsePiece>(emptyCard(SIZE.w, SIZE.h, 12), 'ellipse', { id: 'e', ...waved }))
  const sharp = engine.render(card, 4)
  const soft = engine.render({ ...card, shutter: { angle: 360, phase: 0 } }, 4)
  const half = ({ pixels }: { pixels: Uint8Array }) =>
    pixels.reduce((n, v, i) => n + (i % 4 === 3 && v > 20 && v < 235 ? 1 : 0), 0)
  expect(half(soft)).toBeGreaterThan(2 * half(sharp))
})
