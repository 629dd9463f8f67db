import { describe, expect, test } from '@jest/globals'
import { createMask, createPiece } from '#core/card/create'
import type { Card, GroupPiece, Mask, Piece } from '#core/card/schema'
import { freehandArea } from '#core/edit/freehand'
import { Engine } from '#core/frame/engine'
import { flatten } from '#core/outline/contour'
import { readPathData } from '#core/outline/svg-path'
import { maskAlone } from '#core/stage/mask-alone'
import { coveredArea, emptyCard, pixelAt, solid, withBox } from '../support/engine'

const mask = (kind: string, values: object = {}) => ({ ...createMask(kind, 'mask'), ...values }) as Mask
const held = (masks: Mask[], values: object = {}): Card =>
  withBox(
    { ...emptyCard(200, 120), background: solid('#804020') },
    { id: 'box', width: 60, height: 40, x: 90, y: 60, masks, ...values },
    {},
  )

describe('a mask alone', () => {
  const engine = new Engine()

  test('is white where it covers, beyond the piece too, and nothing else is there', () => {
    const card = held([mask('box', { width: 150, height: 30, x: 10 }), { ...mask('ellipse'), id: 'other' }], {
      opacity: 30,
    })
    const picture = engine.render(maskAlone(card, 'box', 'mask', 40)!, 0)
    expect(coveredArea(picture)).toBeCloseTo(150 * 30, 0)
    expect(pixelAt(picture, 30, 60)).toEqual([1, 1, 1, 1])
    expect(pixelAt(picture, 100, 80)[3]).toBe(0)
  })

  test('keeps its feather in % of the piece, its place in turned and grown pieces and in groups', () => {
    const shown = (feather: unknown) => {
      const one = mask('box', { width: 20, height: 20, x: 20, feather })
      const card = held([one], { rotation: 90, scale: 200 })
      const group = {
        ...createPiece('group', card),
        id: 'g',
        x: 10,
        y: 0,
        opacity: 20,
        pieces: card.pieces,
      } as GroupPiece
      return engine.render(maskAlone({ ...card, pieces: [group as Piece] }, 'box', 'mask', 40)!, 0)
    }
    // 20 px of a piece that is turned a quarter and twice as large: 40 px above its place.
    const sharp = shown(0)
    expect([pixelAt(sharp, 100, 20)[3], pixelAt(sharp, 140, 60)[3]]).toEqual([1, 0])
    expect(coveredArea(sharp)).toBeCloseTo(1600, 0)
    // By the piece's own size, not by that of the sheet that shows it.
    expect(shown({ value: 25, unit: '%' }).pixels).toEqual(shown(10).pixels)
  })

  test('of a wash counts in the frame; what is not there gives none', () => {
    const card = held([])
    const wash = {
      ...createPiece('wash', card),
      id: 'veil',
      masks: [mask('ellipse', { width: 100, height: 60, x: 100, y: 60 })],
    }
    const picture = engine.render(
      maskAlone({ ...card, pieces: [wash as Piece, ...card.pieces] }, 'veil', 'mask', 120)!,
      0,
    )
    expect(Math.abs(coveredArea(picture) - Math.PI * 50 * 30)).toBeLessThan(20)
    expect(maskAlone(card, 'box', 'none', 1)).toBeNull()
    expect(maskAlone(card, 'away', 'mask', 1)).toBeNull()
  })
})

test('an area that is drawn around by hand is closed, with few points close to the line (a circle)', () => {
  const drawn = Array.from({ length: 120 }, (_, i) => {
    const turn = (2 * Math.PI * i) / 130
    return { x: 100 * Math.cos(turn), y: 100 * Math.sin(turn), time: i * 8, pressure: null }
  })
  const data = freehandArea(drawn, 1.5)!
  const commands = readPathData(data, 'mask')
  expect(commands.length).toBeLessThan(14)
  expect(data).toMatch(/Z$/)
  for (const { points } of flatten(commands, 0.1)) {
    for (let i = 0; i < points.length; i += 2) {
      const radius = Math.hypot(points[i]!, points[i + 1]!)
      // Where the hand let go before it came round, a straight line closes it.
      expect(radius).toBeLessThan(103)
      expect(radius).toBeGreaterThan(94)
    }
  }
  expect(freehandArea(drawn.slice(0, 1), 1)).toBeNull()
})
