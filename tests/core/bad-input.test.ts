import { describe, expect, test } from '@jest/globals'
import { createMask } from '#core/card/create'
import { expectCard, readCard } from '#core/card/read'
import type { BoxPiece, Card, Mask, PathPiece } from '#core/card/schema'
import { COATS } from '#core/coats/table'
import { Engine } from '#core/frame/engine'
import { MOST_PIXELS, PictureBook } from '#core/paint/pictures'
import { formFaults } from '#core/judge/form-faults'
import { coat, emptyCard, solid, step, withBox, withPiece } from '../support/engine'

const engine = new Engine()
const boxed = (kind: string, values: Record<string, unknown>): Card =>
  withBox(emptyCard(64, 64), { width: 30, height: 30 }, { face: [coat(kind, 'c', values)] })
const firstFault = (card: unknown) => readCard(card).faults?.[0]

describe('values that cannot be are refused at the file’s boundary', () => {
  test.each(
    COATS.flatMap(({ kind, parameters }) =>
      Object.entries(parameters).flatMap(([name, parameter]) =>
        'min' in parameter ? [[kind, name, parameter.min - 1, parameter.max + 1] as const] : [],
      ),
    ),
  )('%s %s beyond its range, or no number', (kind, name, low, high) => {
    for (const value of [low, high, NaN, Infinity, 'thick', { unit: 'em', value: 1 }, null]) {
      const fault = firstFault(boxed(kind, { [name]: value }))
      expect(fault?.place).toContain(`pieces[0].coats.face[0].${name}`)
      expect(fault?.remedy).not.toBe('')
    }
  })

  const gradient = (stops: unknown[]) => ({ type: 'linear', stops })
  test.each([
    ['a gradient of one stop', gradient([{ at: 0, colour: '#FFFFFF' }]), /stops/],
    ['a gradient without stops', gradient([]), /stops/],
    [
      'a stop beyond the end',
      gradient([
        { at: 0, colour: '#FFFFFF' },
        { at: 120, colour: '#000000' },
      ]),
      /at/,
    ],
    ['a paint that is none', { type: 'plaid' }, /paint/],
    ['a texture of a picture without one', { type: 'texture', pattern: 'picture' }, /picture/],
    ['a picture id that is a path', { type: 'texture', pattern: 'picture', picture: '../../etc/passwd' }, /picture/],
  ])('%s', (_, paint, place) => {
    const fault = firstFault(boxed('fill', { paint }))
    expect(fault?.place).toMatch(place)
    expect(fault?.message).not.toBe('')
  })

  test('a path that is none, and one that tries too much', () => {
    const card = emptyCard(64, 64)
    const path = (text: string) => ({ ...card, pieces: [{ id: 'p', kind: 'path', name: 'P', path: text }] })
    expect(firstFault(path('M 0 0 L wobble'))?.place).toBe('pieces[0].path')
    expect(firstFault(path(`M 0 0 ${'L 1 1 '.repeat(30_000)}`))?.place).toBe('pieces[0].path')
    expect(firstFault(path('M 0 0 A 5 5 0 0 1 10 10 Z'))).toBeUndefined()
  })
})

describe('pictures', () => {
  const id = 'picture-0123456789abcdef'
  const card = boxed('fill', {
    paint: {
      type: 'texture',
      pattern: 'picture',
      picture: id,
      colour: '#FFFFFF',
      ground: '#00000000',
      scale: 100,
      angle: 0,
      x: 0,
      y: 0,
      weight: 50,
      seed: 1,
      hang: 'piece',
    },
  })

  test('one that is missing names the coat and the picture', () => {
    expect(() => engine.render(card, 0)).toThrow(new RegExp(`box-1/c.*${id}`))
    // The engine goes on after it.
    expect(engine.render(boxed('fill', { paint: solid('#FFFFFF') }), 0).pixels.some((v) => v > 0)).toBe(true)
  })

  test('a huge one, and one whose pixels do not fit its size, are refused', () => {
    const book = new PictureBook()
    const pixels = new Uint8Array(16)
    expect(() => book.add(id, { width: MOST_PIXELS, height: 2, pixels })).toThrow(/million pixels/)
    expect(() => book.add(id, { width: 3, height: 3, pixels })).toThrow(/million pixels/)
  })

  test('one that is there tiles the shape: two colours side by side at its own size', () => {
    const book = new PictureBook()
    book.add(id, { width: 2, height: 1, pixels: Uint8Array.from([255, 0, 0, 255, 0, 0, 255, 255]) })
    const { pixels } = new Engine(undefined, book).render(card, 0)
    const at = (x: number) => [...pixels.subarray((32 * 64 + x) * 4, (32 * 64 + x) * 4 + 3)]
    // The middle of the picture stands in the middle of the shape, between pixels 31 and 32.
    const [red, blue] = [
      [255, 0, 0],
      [0, 0, 255],
    ]
    expect([at(30), at(31), at(32), at(33)]).toEqual([blue, red, blue, red])
  })
})

test('steps, links and paths that do nothing are named with a remedy; the rest of the card goes on', () => {
  let card = withPiece<BoxPiece>(emptyCard(200, 200), 'box', {
    ...{ id: 'box', name: 'Box', fitTo: ['box', 'nobody'], weave: 'box' },
    masks: [{ ...createMask('path', 'point'), mode: 'take', path: 'M 5 5' } as Mask],
    outlineSteps: [
      step('draw-on', {}, 'drawn'),
      step('slices', { by: 'heights', heights: '1 0 2' }, 'cut'),
      step('taper', { by: 'pressure' }, 'thin'),
      step('dashes', { dash: 0.5, gap: 0.7 }, 'fine'),
      step('line', {}, 'lined'),
    ],
  })
  card = expectCard(withPiece<PathPiece>(card, 'path', { id: 'dot', name: 'Dot', path: 'M 5 5' }, { face: [] }))
  const told = formFaults(card).map(({ address, message }) => [address, message])
  expect(told).toEqual([
    ['dot/path', expect.stringMatching(/single point/)],
    ['box/fine', expect.stringMatching(/more than 20000 of them/)],
    ['box/thin', expect.stringMatching(/pressure/)],
    ['box/cut', expect.stringMatching(/numbers above 0/)],
    ['box/drawn', expect.stringMatching(/no line/)],
    ['box/fitTo', expect.stringMatching(/“Box” leads back/)],
    ['box/fitTo', expect.stringMatching(/“nobody” is gone/)],
    ['box/weave', expect.stringMatching(/nothing of that kind/)],
    ['box/point', expect.stringMatching(/no area/)],
  ])
  expect(engine.render(card, 0).pixels.some((v) => v > 0)).toBe(true)
})
