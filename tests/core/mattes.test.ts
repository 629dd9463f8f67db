import { describe, expect, test } from '@jest/globals'
import { createMask, createPiece } from '#core/card/create'
import { expectCard } from '#core/card/read'
import type { BoxPiece, Card, EllipsePiece, GroupPiece, Mask, Piece, TypePiece } from '#core/card/schema'
import { Engine } from '#core/frame/engine'
import { toDisplay, toLinear } from '#core/values/oklab'
import { readColour } from '#core/values/colour'
import { coat, emptyCard, finish, floatsOf, fontBytes, solid, withPiece } from '../support/engine'
import { erf } from '../support/erf'
import { equalPictures, expectSamePicture } from '../support/same-picture'

const SIZE = { w: 256, h: 192 }

function engineOf(keeps = true): Engine {
  const engine = new Engine(undefined, undefined, { keeps })
  engine.fonts.add('anton', fontBytes('anton'))
  return engine
}

const matte = (values: Record<string, unknown> = {}, id = 'matte-1') =>
  ({ ...createMask('matte', id), source: 'source', ...values }) as Mask

const fill = (id: string, colour: string) => coat('fill', id, { paint: solid(colour) })
const glow = coat('glow', 'source-glow', { reach: 20, paint: solid('#FF2000') })

/** Words with a glow, half clear; and a box over the whole frame that is seen within them. */
function card(masks: Mask[], source: Partial<TypePiece> = {}, own: Partial<BoxPiece> = {}): Card {
  const words = { id: 'source', wording: 'Rib', font: 'anton', size: 110, x: 128, y: 130, opacity: 70, ...source }
  const under = withPiece<TypePiece>(emptyCard(SIZE.w, SIZE.h, 20), 'type', words, {
    face: [fill('source-fill', '#F6C667')],
    behind: [glow],
  })
  const all = { id: 'all', x: 128, y: 96, width: 4000, height: 4000, masks, ...own }
  return expectCard(withPiece<BoxPiece>(under, 'box', all, { face: [fill('own-fill', '#3060C0')] }))
}

const only = (own: Card, id: string): Card => ({ ...own, pieces: own.pieces.filter((piece) => piece.id === id) })
const without = (own: Card, id: string): Card => ({
  ...own,
  pieces: own.pieces.map((piece) => (piece.id === id ? { ...piece, on: false } : piece)),
})
const alphas = (own: Card, frame = 0) => floatsOf(engineOf(), own, frame).values.filter((_, i) => i % 4 === 3)

function expectAlphas(own: Card, expected: (i: number) => number): void {
  const found = alphas(without(own, 'source'))
  let most = 0
  for (const [i, a] of found.entries()) most = Math.max(most, Math.abs(a - expected(i)))
  expect(most).toBeLessThan(2e-6)
}

describe('a matte', () => {
  test('by alpha, and by its inverse, is the alpha of the other piece, shown or not', () => {
    const source = alphas(only(card([]), 'source'))
    expect(Math.max(...source)).toBeCloseTo(0.7, 5)
    expectAlphas(card([matte({ by: 'alpha' })]), (i) => source[i]!)
    expectAlphas(card([matte({ by: 'alpha', inverted: true })]), (i) => 1 - source[i]!)
    expectAlphas(card([matte({ by: 'alpha', opacity: 40 })]), (i) => 0.4 * source[i]!)
    // Whether the source is shown changes what lies below, not what is seen within it.
    const seen = (span: Piece['span'], on: boolean) => {
      const own = card([matte({ by: 'alpha' })], { span, on })
      return engineOf().render(
        { ...own, pieces: [own.pieces[0]!, { ...own.pieces[1]!, coats: { face: [], behind: [] } }] },
        3,
      )
    }
    expect(equalPictures(seen(null, true), seen({ in: 10, out: 12 }, false))).toBe(true)
  })

  test('by the face is its plain shape: no glow, no finish', () => {
    const own = card([matte({ by: 'face' })])
    const plain = only(own, 'source')
    const shape = { ...plain.pieces[0]!, coats: { face: [fill('source-fill', '#000000')], behind: [] } }
    const source = alphas({ ...plain, pieces: [shape] })
    expectAlphas(own, (i) => source[i]!)
    const blurred = card([matte({ by: 'face' })], { finishes: [finish('blur', { radius: 9 })] })
    expectAlphas(blurred, (i) => source[i]!)
  })

  test('by lightness is BT.709 luma of display values times alpha, in either light', () => {
    // ITU-R BT.709-6, item 3.2.
    for (const colour of ['#FF0000', '#00FF00', '#0000FF', '#8040C080']) {
      const [r, g, b, a] = readColour(colour)!.map((v, c) => (c < 3 ? toDisplay(toLinear(v)) : v)) as number[]
      const luma = (0.2126 * r! + 0.7152 * g! + 0.0722 * b!) * a!
      for (const blending of ['display', 'linear'] as const) {
        const all = { id: 'source', x: 128, y: 96, width: 90, height: 4000 }
        const under = withPiece<BoxPiece>(emptyCard(SIZE.w, SIZE.h), 'box', all, { face: [fill('f', colour)] })
        const own = withPiece<BoxPiece>(
          { ...under, blending },
          'box',
          { id: 'all', x: 128, y: 96, width: 4000, height: 4000, masks: [matte({ by: 'lightness' })] },
          { face: [fill('g', '#FFFFFF')] },
        )
        const { at } = floatsOf(engineOf(), without(expectCard(own), 'source'))
        expect(at(128, 96)[3]).toBeCloseTo(luma, 3)
        expect(at(20, 96)[3]).toBe(0)
      }
    }
  })

  test('fades across its edge as the error function does, and grows by distance', () => {
    const half = { id: 'source', kind: 'box', x: -400, y: 96, width: 1056, height: 4000, opacity: 100 }
    const at = (values: Record<string, unknown>) => {
      const under = withPiece<BoxPiece>(emptyCard(SIZE.w, SIZE.h), 'box', half as Partial<BoxPiece>)
      const all = { id: 'all', x: 128, y: 96, width: 4000, height: 4000, masks: [matte(values)] }
      const own = expectCard(withPiece<BoxPiece>(under, 'box', all, { face: [fill('g', '#FFFFFF')] }))
      return floatsOf(engineOf(), without(own, 'source')).at
    }
    // Abramowitz & Stegun 7.1: a straight edge at x = 128 under a Gaussian of half the feather.
    const soft = at({ feather: 24 })
    for (const x of [90, 110, 127, 140, 160]) {
      expect(Math.abs(soft(x, 96)[3] - (1 - erf((x + 0.5 - 128) / (12 * Math.SQRT2))) / 2)).toBeLessThan(0.25 / 255)
    }
    const grown = at({ grow: 20 })
    expect([grown(147, 96)[3], grown(149, 96)[3]]).toEqual([1, 0])
    const shrunk = at({ grow: -20.5 })
    expect([shrunk(106, 96)[3], shrunk(109, 96)[3]]).toEqual([1, 0])
    expect(shrunk(107, 96)[3]).toBeCloseTo(0.5, 4)
  })

  test('that moves is exposed with what it holds, as a mask of the same form is', () => {
    const keys = {
      keys: [
        { frame: 0, value: 60 },
        { frame: 10, value: 200 },
      ],
    }
    const shutter = { angle: 180, phase: 0 }
    const disc = { id: 'source', x: keys, y: 96, width: 90, height: 90, on: false } as unknown as Partial<EllipsePiece>
    const all = { id: 'all', x: 128, y: 96, width: 150, height: 120 }
    const own = (masks: Mask[]) => {
      const under = withPiece<EllipsePiece>({ ...emptyCard(SIZE.w, SIZE.h, 20), shutter }, 'ellipse', disc)
      return expectCard(withPiece<BoxPiece>(under, 'box', { ...all, masks }, { face: [fill('g', '#FFFFFF')] }))
    }
    const round = {
      ...createMask('ellipse', 'round'),
      width: 90,
      height: 90,
      x: keys,
      y: 96,
      space: 'card',
    } as unknown as Mask
    for (const frame of [3, 5]) {
      const [within, masked] = [alphas(own([matte()]), frame), alphas(own([round]), frame)]
      let most = 0
      for (const [i, a] of within.entries()) most = Math.max(most, Math.abs(a - masked[i]!))
      expect(most).toBeLessThan(1e-5)
    }
    // At rest it takes one exposure: what is kept is taken again.
    const still = own([matte()])
    expect(engineOf().render({ ...still, shutter: null }, 15).pixels.length).toBeGreaterThan(0)
  })

  test('serves many, through groups, finishes before and after it, and washes', () => {
    const [keeps, bare] = [engineOf(), engineOf(false)]
    const way = {
      keys: [
        { frame: 0, value: 40 },
        { frame: 10, value: 131 },
      ],
    }
    const own = card([matte()], { x: way as never })
    const second = {
      ...createPiece('ellipse', own),
      ...{ id: 'second', x: 90, y: 60, width: 120, height: 90 },
      finishes: [finish('blur', { radius: 8 }, 'soft')],
      masks: [matte({ stage: 'after' }, 'matte-2'), matte({ stage: 'before', by: 'alpha' }, 'matte-3')],
    } as Piece
    const group = {
      ...createPiece('group', own),
      id: 'all-of-it',
      x: way,
      y: 4,
      pieces: [second],
    } as unknown as GroupPiece
    const wash = {
      ...createPiece('wash', own),
      ...{ id: 'wash', finishes: [finish('tint', {}, 'tinted')], masks: [matte({ by: 'lightness' }, 'matte-4')] },
    } as Piece
    for (const shutter of [null, { angle: 180, phase: 0 }]) {
      const all = expectCard({ ...own, shutter, pieces: [wash, group, ...own.pieces] })
      for (let frame = 0; frame < 14; frame++) expectSamePicture(keeps, bare, all, frame, `frame ${frame}`)
    }
  })

  test('in a circle, or within nothing, leaves the piece as it is', () => {
    const free = engineOf().render(card([]), 0)
    for (const source of [null, 'nobody', 'all']) {
      expect(equalPictures(engineOf().render(card([matte({ source })]), 0), free)).toBe(true)
    }
    const circle = card([matte()], { masks: [matte({ source: 'all' }, 'back')] })
    expect(equalPictures(engineOf().render(circle, 0), free)).toBe(true)
  })
})
