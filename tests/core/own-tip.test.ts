import { describe, expect, test } from '@jest/globals'
import { USUAL } from '#core/brushes/definition'
import { ownRaster } from '#core/brushes/own-tip'
import type { BrushStroke } from '#core/brushes/stroke'
import { createMask } from '#core/card/create'
import { expectCard, readCard } from '#core/card/read'
import { picturesOf } from '#core/card/tree'
import type { Card, Mask, PaintingPiece, Piece } from '#core/card/schema'
import { withPictures } from '#core/edit/pictures'
import { Engine } from '#core/frame/engine'
import { coveredArea, emptyCard, solid, withBox, withPiece } from '../support/engine'
import { plain } from '../support/sequences'

const LEAF = 'picture-00000000000000aa'

const stroke = (values: Partial<BrushStroke> = {}): BrushStroke => ({
  ...{ id: 's', tip: LEAF, erase: false, colour: '#FFFFFF', size: 60, seed: 7, ...USUAL },
  points: [100, 60, 1],
  ...values,
})
const painting = (strokes: BrushStroke[]): Card =>
  expectCard(
    withPiece<PaintingPiece>(emptyCard(200, 120), 'painting', { id: 'art', x: 0, y: 0, strokes }, { face: [] }),
  )

/** The left half opaque, the right half of a cover. */
function halves(right: number, alpha: boolean) {
  const picture = plain(40, 20, [0, 0, 0, 255])
  for (let y = 0; y < 20; y++) {
    for (let x = 20; x < 40; x++) {
      const v = Math.round(255 * (1 - right))
      picture.pixels.set(alpha ? [0, 0, 0, 255 - v] : [v, v, v, 255], (y * 40 + x) * 4)
    }
  }
  return picture
}

describe('a picture as a tip', () => {
  test('covers by its alpha, or where all of it is opaque by its darkness, in the middle of a square', () => {
    for (const alpha of [true, false]) {
      const side = 64
      const raster = ownRaster(halves(0.4, alpha), side)
      // 40 × 20 px fill the width but for a pixel on each side.
      const sum = raster.reduce((all, v) => all + v, 0)
      const room = side - 2
      expect(Math.abs(sum - (room * (room / 2) * 1.4) / 2) / sum).toBeLessThan(0.005)
      expect([raster[32 * side + 10], raster[5 * side + 32]]).toEqual([1, 0])
      expect(raster[32 * side + 50]).toBeCloseTo(0.4, 2)
      for (let i = 0; i < side; i++) expect([raster[i], raster[i * side]]).toEqual([0, 0])
    }
  })

  test('a dab has its area at every size, and is the same with nothing kept and after other tips', () => {
    const engine = new Engine()
    engine.pictures.add(LEAF, halves(0.4, true))
    for (const size of [20, 60, 100]) {
      const card = painting([stroke({ size })])
      const found = coveredArea(engine.render(card, 0))
      const wanted = ((size * size) / 2) * 0.7 * (254 / 256) ** 2
      expect(Math.abs(found - wanted) / wanted).toBeLessThan(0.03)
    }
    // More own tips than are kept: each is made again when it is asked for.
    const ids = Array.from({ length: 11 }, (_, i) => `picture-00000000000000${String(10 + i)}`)
    const fresh = new Engine(undefined, undefined, { keeps: false })
    for (const one of [engine, fresh]) ids.forEach((id, i) => one.pictures.add(id, halves(i / 11, true)))
    const all = painting(ids.map((tip, i) => stroke({ id: `s-${i}`, tip, points: [20 + i * 15, 60, 1] })))
    const first = engine.render(all, 0)
    expect(Buffer.from(first.pixels).equals(Buffer.from(fresh.render(all, 0).pixels))).toBe(true)
    expect(Buffer.from(first.pixels).equals(Buffer.from(engine.render({ ...all }, 0).pixels))).toBe(true)
  })

  test('is among the pictures of the card, in paintings and in masks, and is renamed with them', () => {
    const mask = { ...createMask('painted', 'm'), strokes: [stroke({ id: 'other' })] } as unknown as Mask
    const card = withBox(painting([stroke(), stroke({ id: 'plain', tip: 'chalk' })]), { id: 'box', masks: [mask] }, {})
    expect(picturesOf(card)).toEqual([LEAF])
    const fresh = 'picture-00000000000000bb'
    expect(picturesOf(withPictures(card, new Map([[LEAF, fresh]])))).toEqual([fresh])
    const background = { ...card, background: solid('#000000') }
    expect(withPictures(background, new Map()).pieces).toEqual(background.pieces)
  })

  test('that is not here is named with its place; what is no id is refused', () => {
    const card = painting([stroke()])
    expect(() => new Engine().render(card, 0)).toThrow(/s, tip.*picture-00000000000000aa/)
    const odd = { ...card, pieces: [{ ...(card.pieces[0] as Piece), strokes: [stroke({ tip: 'picture-x' })] }] }
    expect(readCard(odd).faults?.[0]?.place).toMatch(/pieces\[0\]\.strokes\[0\]\.tip/)
  })
})
