import { describe, expect, test } from '@jest/globals'
import { dabsOf } from '#core/brushes/dabs'
import { USUAL } from '#core/brushes/definition'
import type { BrushStroke } from '#core/brushes/stroke'
import { strokeBounds } from '#core/brushes/stroke'
import { TIP_KINDS, tipOf, TIPS } from '#core/brushes/table'
import { chanceOf } from '#core/brushes/tips'
import { createMask, createPiece } from '#core/card/create'
import { expectCard, readCard } from '#core/card/read'
import type { BoxPiece, Card, GroupPiece, Mask, PaintingPiece } from '#core/card/schema'
import { Engine } from '#core/frame/engine'
import { coat, emptyCard, finish, floatsOf, solid, withPiece } from '../support/engine'
import { equalPictures, expectSamePicture } from '../support/same-picture'

const SIZE = { w: 256, h: 192 }

/** A stroke through some points, pressed evenly unless said otherwise. */
const stroke = (
  id: string,
  at: readonly (readonly [number, number, number?])[],
  values: Partial<BrushStroke> = {},
): BrushStroke => {
  const tip = values.tip ?? 'round-hard'
  return {
    ...{ id, tip, erase: false, colour: '#FFFFFF', size: 40, seed: 7, ...USUAL, ...tipOf(tip).starts },
    points: at.flatMap(([x, y, press = 1]) => [x, y, press]),
    ...values,
  }
}

const painting = (strokes: BrushStroke[], values: Partial<PaintingPiece> = {}, size = SIZE): Card =>
  expectCard(
    withPiece<PaintingPiece>(
      emptyCard(size.w, size.h, 20),
      'painting',
      { id: 'art', x: 0, y: 0, strokes, ...values },
      { face: [] },
    ),
  )

const engineOf = (keeps = true) => new Engine(undefined, undefined, { keeps })
const alphasOf = (card: Card, engine = engineOf()) => floatsOf(engine, card).values.filter((_, i) => i % 4 === 3)
const area = (card: Card) => alphasOf(card).reduce((sum, a) => sum + a, 0)

describe('a brush', () => {
  test('hard and round paints the area of its line with round ends', () => {
    // The dabs lie 2 % of 40 px apart: what they leave between them at the sides is below 0.02 px.
    const line = painting([
      stroke(
        's',
        [
          [60, 90],
          [190, 90],
        ],
        { spacing: 2 },
      ),
    ])
    expect(Math.abs(area(line) - (130 * 40 + Math.PI * 400)) / (130 * 40 + Math.PI * 400)).toBeLessThan(0.003)
    const dot = painting([stroke('s', [[60.3, 90.6]])])
    expect(Math.abs(area(dot) - Math.PI * 400) / (Math.PI * 400)).toBeLessThan(0.002)
  })

  test.each([1, 2, 3, 7.5, 40, 90])('hard and round covers of each pixel what a disc of %p px covers', (size) => {
    // The part of a pixel within a circle, by 2,000 lines through it.
    const [cx, cy, r] = [100.37, 80.81, size / 2]
    const part = (x: number, y: number) => {
      let sum = 0
      for (let k = 0; k < 2000; k++) {
        const half = Math.sqrt(Math.max(0, r * r - (y + (k + 0.5) / 2000 - cy) ** 2))
        sum += Math.max(0, Math.min(x + 1, cx + half) - Math.max(x, cx - half))
      }
      return sum / 2000
    }
    const alphas = alphasOf(painting([stroke('s', [[cx, cy]], { size })]))
    let most = 0
    for (let y = Math.floor(cy - r) - 2; y < cy + r + 2; y++)
      for (let x = Math.floor(cx - r) - 2; x < cx + r + 2; x++)
        most = Math.max(most, Math.abs(alphas[y * SIZE.w + x]! - part(x, y)))
    expect(most * 255).toBeLessThan(size < 2 ? 2.5 : 1)
  })

  test('goes over from a sharp edge to a soft one without a step', () => {
    // 5 % of 20 px are one px: just before it fades by a px, just after it.
    const around = [95.01, 94.99].map((hardness) => area(painting([stroke('s', [[128, 96]], { size: 40, hardness })])))
    expect(Math.abs(around[0]! / around[1]! - 1)).toBeLessThan(0.002)
  })

  test('soft and round covers the integral of its profile', () => {
    // ∫ t²(3 − 2t) with t = 1 − d/r over the disc is 2πr² ∫ (1 − t)·t²(3 − 2t) dt = 2πr²·(3/20).
    const dot = painting([stroke('s', [[128, 96]], { tip: 'round-soft', flow: 100, size: 100 })])
    expect(Math.abs(area(dot) / (2 * Math.PI * 2500 * 0.15) - 1)).toBeLessThan(0.001)
  })

  test('is symmetrical: a stroke from right to left is the one from left to right', () => {
    const paint = (from: number, to: number) =>
      alphasOf(
        painting([
          stroke(
            's',
            [
              [from, 96],
              [to, 96],
            ],
            { tip: 'round-soft', spacing: 20, size: 32 },
          ),
        ]),
      )
    // Whole steps from either end.
    const [there, back] = [paint(64, 192), paint(192, 64)]
    let most = 0
    for (let y = 0; y < SIZE.h; y++) {
      for (let x = 0; x < SIZE.w; x++)
        most = Math.max(most, Math.abs(there[y * SIZE.w + x]! - back[y * SIZE.w + SIZE.w - 1 - x]!))
    }
    expect(most).toBeLessThan(0.02)
    const mirrored = there.every(
      (a, i) => Math.abs(a - there[(SIZE.h - 1 - Math.floor(i / SIZE.w)) * SIZE.w + (i % SIZE.w)]!) < 1e-5,
    )
    expect(mirrored).toBe(true)
  })

  test('follows its pressure, its flow and its opacity', () => {
    const wide = (press: number) => area(painting([stroke('s', [[128, 96, press]], { pressSize: 100 })]))
    expect(wide(0.5) / wide(1)).toBeCloseTo(0.25, 2)
    expect(wide(0)).toBe(0)
    const { at } = floatsOf(engineOf(), painting([stroke('s', [[128, 96]], { flow: 30 })]))
    expect(at(128, 96)[3]).toBeCloseTo(0.3, 6)
    // Dabs that lie on each other fill up to the opacity of the stroke: 1 − 0.7ⁿ.
    const many = floatsOf(
      engineOf(),
      painting([
        stroke(
          's',
          [
            [120, 96],
            [136, 96],
          ],
          { flow: 30, opacity: 50, spacing: 10 },
        ),
      ]),
    )
    expect(many.at(128, 96)[3]).toBeCloseTo(0.5 * (1 - 0.7 ** 5), 5)
  })

  test('erases what it painted to nothing, where its flow is whole', () => {
    for (const tip of TIP_KINDS) {
      const line = [
        [40, 60],
        [120, 130],
        [210, 70],
      ] as const
      const painted = stroke('s', line, { tip })
      const wiped = stroke('w', line, { size: painted.size * 2 + 60, erase: true, spacing: 4 })
      expect(area(painting([painted]))).toBeGreaterThan(20)
      expect(area(painting([painted, wiped]))).toBe(0)
      // Erased first, nothing is taken away.
      expect(
        equalPictures(engineOf().render(painting([wiped, painted]), 0), engineOf().render(painting([painted]), 0)),
      ).toBe(true)
    }
  })

  test('keeps within its bounds, and makes tips that end before their border', () => {
    for (const { kind, raster } of TIPS) {
      const one = stroke(
        's',
        [
          [90, 100, 0.4],
          [150, 80, 1],
        ],
        { tip: kind, size: 60 },
      )
      const { left, top, right, bottom } = strokeBounds(one)
      const { at } = floatsOf(engineOf(), painting([one]))
      let beyond = 0
      for (let y = 0; y < SIZE.h; y++) {
        for (let x = 0; x < SIZE.w; x++) {
          if (x + 1 < left || x > right || y + 1 < top || y > bottom) beyond += at(x, y)[3]
        }
      }
      expect(beyond).toBe(0)
      const side = 128
      const tile = raster?.(side, chanceOf(TIP_KINDS.indexOf(kind) + 1))
      const border = Array.from({ length: side }, (_, i) => [i, (side - 1) * side + i, i * side, i * side + side - 1])
      if (tile) expect(Math.max(...border.flat().map((i) => tile[i]!))).toBeLessThan(0.02)
    }
  })

  test('turns with its line, and lays dabs at even distances', () => {
    const dabs = dabsOf(
      stroke(
        's',
        [
          [0, 0],
          [100, 0],
          [100, -80],
        ],
        { along: true, spacing: 25, turnBy: 0, pressSize: 0 },
      ),
    )
    expect(dabs).toHaveLength(19)
    expect([dabs[3]!.x, dabs[3]!.y, dabs[3]!.turn]).toEqual([30, 0, 0])
    expect([dabs[12]!.x, dabs[12]!.y]).toEqual([100, -20])
    expect(dabs[12]!.turn).toBeCloseTo(90, 9)
  })
})

describe('a painting', () => {
  const strokes = TIP_KINDS.map((tip, i) =>
    stroke(
      `s-${i}`,
      [
        [30, 30 + 18 * i, 0.3],
        [140, 50 + 10 * i],
        [230, 20 + 20 * i, 0.6],
      ],
      {
        ...{ tip, size: 22, seed: i, colour: ['#F6C667', '#E2683C80', '#1E6B6A'][i % 3]! },
        erase: i === 3,
      },
    ),
  )

  test('is the same in parts and with nothing kept, moved, turned, masked, in groups, and while it is painted', () => {
    const [keeps, bare] = [engineOf(), engineOf(false)]
    const way = {
      keys: [
        { frame: 0, value: 0 },
        { frame: 10, value: 25 },
      ],
    }
    const art = {
      ...createPiece('painting', emptyCard(8, 8)),
      ...{
        id: 'art',
        x: way,
        y: 8,
        rotation: 7,
        stretchX: 90,
        strokes,
        painted: {
          keys: [
            { frame: 0, value: 10 },
            { frame: 12, value: 100 },
          ],
        },
      },
      finishes: [finish('blur', { radius: 2 }, 'soft')],
      coats: {
        face: [coat('bevel', 'relief', { width: 4 })],
        behind: [coat('shadow', 'cast', { distance: 5, softness: 6 })],
      },
    } as unknown as PaintingPiece
    const mask = {
      ...createMask('painted', 'held'),
      strokes: strokes.map((one) => ({ ...one, id: `m-${one.id}`, size: 60 })),
      feather: 4,
      grow: 2,
      x: way,
    } as unknown as Mask
    const box = {
      ...createPiece('box', emptyCard(8, 8)),
      id: 'box',
      x: 128,
      y: 96,
      width: 220,
      height: 160,
      masks: [mask],
    } as BoxPiece
    const group = {
      ...createPiece('group', emptyCard(8, 8)),
      id: 'all',
      x: 0,
      y: way,
      pieces: [art, box],
    } as unknown as GroupPiece
    for (const shutter of [null, { angle: 180, phase: 0 }]) {
      const card = expectCard({ ...emptyCard(SIZE.w, SIZE.h, 20), shutter, pieces: [group] })
      for (const frame of [0, 4, 5, 13]) expectSamePicture(keeps, bare, card, frame, `frame ${frame}`)
    }
    // Stroke by stroke, and each of them point by point, as a hand paints.
    for (let n = 1; n <= strokes.length; n++) {
      for (const part of [3, 6, 9]) {
        const growing = strokes
          .slice(0, n)
          .map((one, i) => (i === n - 1 ? { ...one, points: one.points.slice(0, part) } : one))
        const card = painting(growing)
        expect(equalPictures(keeps.render(card, 0), bare.render(card, 0))).toBe(true)
      }
    }
  })

  test('is painted little by little: every dab in its turn', () => {
    const one = stroke(
      's',
      [
        [40, 96],
        [200, 96],
      ],
      { spacing: 50, pressSize: 0 },
    )
    const shown = (painted: number) => area(painting([one], { painted }))
    expect(shown(0)).toBe(0)
    expect(shown(100)).toBe(area(painting([one])))
    const half = painting([{ ...one, points: [40, 96, 1, 100, 96, 1] }])
    // Four of nine dabs.
    expect(shown((400 * 1) / 9)).toBeCloseTo(area(half), 3)
  })

  test('covers as a mask what it would paint', () => {
    const mask = { ...createMask('painted', 'held'), strokes } as unknown as Mask
    const box = { id: 'all', x: 128, y: 96, width: 4000, height: 4000, masks: [{ ...mask, x: -128, y: -96 } as Mask] }
    const held = expectCard(
      withPiece<BoxPiece>(emptyCard(SIZE.w, SIZE.h), 'box', box, {
        face: [coat('fill', 'f', { paint: solid('#FFFFFF') })],
      }),
    )
    const [cover, paint] = [alphasOf(held), alphasOf(painting(strokes))]
    expect(cover.reduce((most, a, i) => Math.max(most, Math.abs(a - paint[i]!)), 0)).toBeLessThan(2e-6)
  })

  test('is refused with a place where a stroke cannot be', () => {
    const faultOf = (change: object) => {
      const document = painting([stroke('s', [[1, 2]])])
      const piece = { ...document.pieces[0]!, strokes: [{ ...stroke('s', [[1, 2]]), ...change }] }
      return readCard({ ...document, pieces: [piece] }).faults?.[0]
    }
    expect(faultOf({ points: [1, 2] })).toMatchObject({ place: 'pieces[0].strokes[0].points' })
    expect(faultOf({ points: [] })).toMatchObject({ place: 'pieces[0].strokes[0].points' })
    expect(faultOf({ points: [1, 2, 3] })).toMatchObject({ place: 'pieces[0].strokes[0].points' })
    expect(faultOf({ tip: 'feather' })).toMatchObject({ place: 'pieces[0].strokes[0].tip' })
    expect(faultOf({ size: 1e9 })).toMatchObject({ place: 'pieces[0].strokes[0].size' })
    expect(faultOf({})).toBeUndefined()
  })
})
