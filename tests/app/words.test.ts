import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals'
import { createCoat } from '#core/card/create'
import type { Coat } from '#core/card/schema'
import { COATS } from '#core/coats/table'
import { Engine } from '#core/frame/engine'
import { coatHeadline, coatPaint, coatTitle } from '~/composables/coat-words'
import { paintCss } from '~/composables/paint-css'
import { useParameter } from '~/composables/parameter'
import { aloneCard, withoutPart } from '~/composables/shown-card'
import { listParameters } from '#core/card/addresses'
import { setStored, storedAt } from '#core/edit/values'
import { GRADIENT_PARAMETERS, TEXTURE_PARAMETERS } from '#core/values/paints'
import { defaultsOf } from '#core/values/parameters'
import type { StoredPaint } from '#core/values/moving'
import { useBench } from '~/stores/bench'
import { useRibbon } from '~/stores/ribbon'
import { coat, pixelAt } from '../support/engine'
import { freshStores, standInServer, threeBoxes } from './stand-in'

const at = { ring: { length: 100 }, frame: 0 }

describe('a coat in words', () => {
  test.each(COATS.map(({ kind, label }) => [kind, label]))(
    '%s has a title, a headline and a paint as CSS',
    (kind, label) => {
      const made = createCoat(kind, 'new')
      expect(coatTitle(made).startsWith(label)).toBe(true)
      expect(coatTitle({ ...made, name: 'My own' })).toBe('My own')
      expect(coatHeadline(made, at)).toMatch(/^$|^-?[\d.]+ (px|%)$|^-?\d+°$/)
      expect(paintCss(coatPaint(made), at)).toMatch(/gradient\(/)
    },
  )

  test('the headline follows keys and units', () => {
    const stroke = (width: Coat['width']) => coatHeadline(coat('stroke', 's', { width }), { ...at, frame: 50 })
    expect(stroke(6.04)).toBe('6 px')
    expect(stroke({ unit: '%', value: 12.5 })).toBe('12.5 %')
    expect(
      stroke({
        keys: [
          { frame: 0, value: 0 },
          { frame: 100, value: 9 },
        ],
        loop: false,
      } as never),
    ).toBe('4.5 px')
  })
})

describe('a paint as CSS', () => {
  const gradient = (type: 'linear' | 'radial' | 'conic' | 'edge') =>
    ({
      ...defaultsOf(GRADIENT_PARAMETERS),
      ...{ type, form: 'circle', spread: 'pad', mix: 'srgb', hang: 'piece' },
      stops: [
        { at: 0, colour: '#FF0000' },
        { at: 100, colour: '#0000FF' },
      ],
    }) as unknown as StoredPaint

  test('solids and gradients; a bar always runs from left to right', () => {
    expect(paintCss({ type: 'solid', colour: '#12345678' }, at)).toBe('linear-gradient(#12345678 0 0)')
    expect(paintCss(gradient('radial'), at)).toMatch(/^radial-gradient/)
    expect(paintCss(gradient('conic'), at)).toMatch(/^conic-gradient/)
    for (const type of ['linear', 'radial', 'conic', 'edge'] as const) {
      expect(paintCss(gradient(type), at, true)).toMatch(/^linear-gradient\(90deg/)
    }
  })

  test.each(['noise', 'flow', 'grid', 'lines', 'brushed', 'paper', 'picture'] as const)(
    'a hint of the texture %s',
    (pattern) => {
      const paint = {
        type: 'texture',
        ...defaultsOf(TEXTURE_PARAMETERS),
        pattern,
        picture: 'a'.repeat(16),
        hang: 'piece',
      }
      const css = paintCss({ ...paint, colour: '#AABBCC', ground: '#112233' } as unknown as StoredPaint, at)
      expect(css).toContain(pattern === 'picture' ? '/api/pictures/' : '#AABBCC')
    },
  )
})

describe('what the stage shows', () => {
  const engine = new Engine()
  const spot = (card: ReturnType<typeof threeBoxes>, x: number) => pixelAt(engine.render(card, 0), x, 90)

  test('one piece alone; one coat of it alone, where it stands among the others', () => {
    const card = threeBoxes()
    const alone = aloneCard(card, { piece: 'front', part: null })
    expect([spot(alone, 300)[3], spot(alone, 200)[3]]).toEqual([1, 0])
    const stroke = aloneCard(card, { piece: 'front', part: 'stroke-front' })
    expect(spot(stroke, 300)[3]).toBe(0)
    expect(spot(stroke, 267)).toEqual(spot(card, 267))
    expect(aloneCard(card, null)).toBe(card)
    expect(aloneCard(card, { piece: 'gone', part: null })).toBe(card)
  })

  test('the card without one coat', () => {
    const card = threeBoxes()
    expect(spot(withoutPart(card, 'front', 'fill-front'), 300)[3]).toBe(0)
    expect(spot(withoutPart(card, 'front', 'fill-front'), 200)).toEqual(spot(card, 200))
  })
})

describe('a parameter in the hand', () => {
  afterEach(() => {
    jest.useRealTimers()
  })
  beforeEach(async () => {
    // What would be saved after a rest is not.
    jest.useFakeTimers()
    freshStores()
    standInServer({ 'GET /cards/card-1': { id: 'card-1', revision: 1, document: threeBoxes() } })
    await useBench().open('card-1')
  })
  const held = (address: string, reference: (piece: string) => number = () => 40) =>
    useParameter(() => listParameters(useBench().card!).find((place) => place.address === address)!, reference)
  const stored = (address: string) => storedAt(useBench().card!, address)

  test('is cut to its range, kept to thousandths, and no number is nothing', () => {
    const opacity = held('front/opacity')
    opacity.writeAmount(140)
    expect(stored('front/opacity')).toBe(100)
    opacity.writeAmount(33.33333)
    expect(stored('front/opacity')).toBe(33.333)
    opacity.writeAmount(NaN)
    expect(opacity.amount.value).toBe(33.333)
  })

  test('moves at keys: a dot sets them, a value at another frame adds one', () => {
    const x = held('front/x')
    expect(x.moving.value).toBe(false)
    x.key()
    expect([x.moving.value, x.keyHere.value]).toEqual([true, true])
    useRibbon().frame = 10
    expect(x.keyHere.value).toBe(false)
    x.writeAmount(500)
    expect(x.keyHere.value).toBe(true)
    expect(stored('front/x')).toMatchObject({
      keys: [
        { frame: 0, value: 300 },
        { frame: 10, value: 500 },
      ],
    })
    x.key()
    useRibbon().frame = 0
    x.key()
    expect(stored('front/x')).toBe(300)
  })

  test('is written on all selected pieces that have it, and told where they differ', () => {
    useBench().selectAll(['middle', 'front'])
    const x = held('front/x')
    expect(x.mixed.value).toBe(true)
    x.writeAmount(50)
    expect([stored('front/x'), stored('middle/x'), stored('back/x')]).toEqual([50, 50, 100])
    expect(x.mixed.value).toBe(false)
    const width = held('front/stroke-front/width')
    width.writeAmount(9)
    expect(stored('middle/stroke-middle/width')).toBe(9)
    expect(useBench().past).toHaveLength(2)
  })

  test('changes its unit without a change of what is seen, and goes back to the standard value', () => {
    const width = held('front/stroke-front/width')
    expect([width.percent.value, width.amount.value]).toEqual([false, 6])
    width.unit('%')
    expect([width.percent.value, width.amount.value]).toEqual([true, 15])
    width.reset()
    expect(stored('front/stroke-front/width')).not.toEqual({ unit: '%', value: 15 })
  })

  test('the unit of several pieces changes on each by its own size', () => {
    useBench().selectAll(['middle', 'front'])
    held('front/stroke-front/width', (piece) => (piece === 'front' ? 40 : 100)).unit('%')
    expect(stored('front/stroke-front/width')).toEqual({ unit: '%', value: 15 })
    expect(stored('middle/stroke-middle/width')).toEqual({ unit: '%', value: 5 })
    expect(stored('back/stroke-back/width')).toBe(4)
    expect(useBench().past).toHaveLength(1)
  })

  test('a motor shows as driven while it runs', () => {
    const rotation = () => held('front/rotation')
    const sway = { kind: 'sway', on: true, amount: 5, cycles: 1 }
    const put = (on: boolean) =>
      useBench().edit('Motor', (card) =>
        setStored(card, 'front/rotation', { keys: [{ frame: 0, value: 0 }], motors: [{ ...sway, on }] }),
      )
    put(true)
    expect(rotation().driven.value).toBe(true)
    put(false)
    expect(rotation().driven.value).toBe(false)
  })
})
