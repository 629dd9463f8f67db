import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import { expectCard } from '#core/card/read'
import type { Card } from '#core/card/schema'
import { createPiece } from '#core/card/create'
import { shownPictures } from '#core/pieces/sequence'
import { momentOf } from '#core/time/ring'
import { paintSchema } from '#core/values/paints'
import {
  coat,
  emptyCard,
  engineWithFonts,
  finish,
  floatsOf,
  solid,
  stepCard,
  withBox,
  withWash,
} from '../support/engine'
import { equalPictures } from '../support/same-picture'

// What the documents say of values, held against the picture.

const engine = engineWithFonts()
const fault = (name: string) => expectCard(JSON.parse(readFileSync(`tests/reference/faults/${name}.card.json`, 'utf8')))

describe('displace', () => {
  const scene = (colour: string, values: object = {}) => {
    const map = paintSchema.parse(solid(colour))
    return stepCard([finish('displace', { map, x: 200, edges: 'held', ...values })])
  }
  const shown = (card: Card, blending: Card['blending']) => engine.render({ ...card, blending }, 0, { bits: 16 })

  test.each(['#808080', '#7F7F7F'])(
    'the middle greys of eight bits move nothing, to the bit: %s (common practice, no published source)',
    (colour) => {
      for (const blending of ['display', 'linear'] as const) {
        expect(equalPictures(shown(scene(colour), blending), shown(stepCard([]), blending))).toBe(true)
      }
    },
  )

  test('nor does the value with which it begins', () => {
    const card = fault('displace-neutral-grey')
    const before = { ...card, pieces: [{ ...card.pieces[0]!, finishes: [] }] }
    expect(equalPictures(engine.render(card, 0), engine.render(before, 0))).toBe(true)
  })

  test('white and black go all the way, each its own', () => {
    // The step at x = 128 of 256 px: white to its right. White moves the picture left, black right.
    const values = { x: 40 }
    const [white, black] = [scene('#FFFFFF', values), scene('#000000', values)].map((card) => floatsOf(engine, card))
    for (const [shown, edge] of [
      [white!, 88],
      [black!, 168],
    ] as const) {
      expect(shown.at(edge - 2, 90)[0]).toBeLessThan(0.01)
      expect(shown.at(edge + 1, 90)[0]).toBeGreaterThan(0.99)
    }
  })
})

describe('a very large way of growth', () => {
  test.each([4000, 12_000, 15_000, 20_000])('an outline grows by %s px and covers the frame', (by) => {
    const card = fault('grow-20000')
    const [piece] = card.pieces as unknown as [{ outlineSteps: object[] }]
    const grown = {
      ...card,
      pieces: [{ ...piece, outlineSteps: [{ ...piece.outlineSteps[0]!, by }] }],
    } as unknown as Card
    const { pixels } = engine.render(grown, 0)
    expect(pixels.every((value) => value === 255)).toBe(true)
  })

  test.each([4000, 4600, 5000, 20_000])('a mask grown by %s px holds nothing back', (grow) => {
    const card = fault('mask-grow-5000')
    const [piece] = card.pieces as unknown as [{ masks: object[] }]
    const grown = { ...card, pieces: [{ ...piece, masks: [{ ...piece.masks[0]!, grow }] }] } as unknown as Card
    const { pixels } = engine.render(expectCard(grown), 0)
    expect(pixels.every((value) => value === 255)).toBe(true)
  })
})

describe('lengths in px', () => {
  /** Where the right edge of a hard box lies in the middle row, moved by finishes. */
  const edgeOf = (card: Card) => {
    const { at } = floatsOf(engine, card)
    let covered = 0
    for (let x = 100; x < 300; x++) covered += at(x, 100)[3]
    return 100 + covered
  }
  const face = [coat('fill', 'f', { paint: solid('#FFFFFF') })]
  const shift = [finish('move', { x: 10 })]
  const box = (values: object) =>
    withBox(
      { ...emptyCard(320, 200), background: null },
      { x: 100, y: 100, width: 40, height: 40, ...values },
      { face },
    )

  test('of a finish are those of its piece: a piece of twice the size has them twice as long', () => {
    expect(edgeOf(box({ finishes: shift }))).toBeCloseTo(130, 3)
    expect(edgeOf(box({ scale: 200, finishes: shift }))).toBeCloseTo(160, 3)
  })

  test('and in a group of twice the size, on a piece or in a wash, twice as long too', () => {
    const grouped = (pieces: Card['pieces']) => {
      const card = emptyCard(320, 200)
      const group = {
        ...createPiece('group', card),
        id: 'g',
        x: 100,
        y: 100,
        scale: 200,
        pieces,
        coats: { face: [], behind: [] },
      }
      return expectCard({ ...card, background: null, pieces: [group] })
    }
    const inner = { x: 0, y: 0 }
    const [piece] = box({ ...inner, finishes: shift }).pieces
    expect(edgeOf(grouped([piece!]))).toBeCloseTo(160, 3)
    const washed = withWash(box(inner), shift)
    expect(edgeOf(grouped(washed.pieces))).toBeCloseTo(160, 3)
  })
})

describe('grain', () => {
  test.each([
    ['even', 1],
    ['bell', 2],
  ])('of one pixel, %s: no value is moved farther than %s times its amount', (spread, times) => {
    const amount = 10
    const grained = withWash({ ...emptyCard(256, 256), background: solid('#808080') }, [
      finish('grain', { amount, spread }),
    ])
    const { values } = floatsOf(engine, grained)
    const middle = 128 / 255
    let most = 0
    for (let i = 0; i < values.length; i += 4) most = Math.max(most, Math.abs(values[i]! - middle))
    expect(most).toBeLessThanOrEqual((times * amount) / 100 + 1e-6)
    // And some come near to it.
    expect(most).toBeGreaterThan((0.85 * times * amount) / 100)
  })
})

test('between two pictures of a sequence the nearest in time is shown, half-way the one that has begun', () => {
  const card = emptyCard(64, 64, 20)
  const played = {
    ...createPiece('sequence', card),
    ...{ sequence: { id: 'sequence-0123456789abcdef', frames: 6 }, rate: { numerator: 10, denominator: 1 } },
    ...{ clock: 'own', clockEnd: 'again', between: 'nearest' },
  }
  const shown = Array.from({ length: 10 }, (_, frame) => shownPictures(played as never, momentOf(card, frame)))
  // 10 pictures a second on a card of 25: picture 0.4 · frame.
  expect(shown.map(([one]) => one!.index)).toEqual([0, 0, 1, 1, 2, 2, 2, 3, 3, 4])
})
