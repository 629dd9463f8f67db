import { describe, expect, test } from '@jest/globals'
import { MOST_NUMBERS, MOST_STROKES } from '#core/brushes/schema'
import { USUAL } from '#core/brushes/definition'
import type { BrushStroke } from '#core/brushes/stroke'
import { strokesOf } from '#core/brushes/stroke'
import { createMask } from '#core/card/create'
import { expectCard } from '#core/card/read'
import type { Card, Mask, PaintingPiece } from '#core/card/schema'
import { clearStrokes, putStroke, strokePoints } from '#core/edit/strokes'
import { emptyCard, withPiece } from '../support/engine'

const stroke = (id: string, points = [1, 2, 1]): BrushStroke => ({
  ...{ id, tip: 'chalk', erase: false, colour: '#FFFFFF', size: 20, seed: 1, ...USUAL, points },
})
const card = withPiece<PaintingPiece>(emptyCard(64, 64), 'painting', {
  id: 'art',
  masks: [{ ...createMask('painted', 'held') } as Mask],
})
const art = { piece: 'art', mask: null }
const held = { piece: 'art', mask: 'held' }
const ids = (own: Card, mask: boolean) =>
  strokesOf(mask ? own.pieces[0]!.masks[0]! : own.pieces[0]!).map(({ id }) => id)

describe('strokes of a hand', () => {
  test('grow while they are painted, on the painting or on its mask alone', () => {
    const one = putStroke(putStroke(card, art, stroke('a')), art, stroke('a', [1, 2, 1, 5, 6, 1]))
    const two = putStroke(putStroke(one, held, stroke('m')), art, stroke('b'))
    expect([ids(two, false), ids(two, true)]).toEqual([['a', 'b'], ['m']])
    expect(strokesOf(two.pieces[0]!)[0]!.points).toHaveLength(6)
    expect(ids(clearStrokes(expectCard(two), art), false)).toEqual([])
    expect(ids(clearStrokes(two, art), true)).toEqual(['m'])
    // What is no painting takes none.
    const boxed = withPiece(card, 'box', { id: 'box' })
    expect(putStroke(boxed, { piece: 'box', mask: null }, stroke('a')).pieces).toEqual(boxed.pieces)
  })

  test('stop where a painting is full, and lose nothing', () => {
    const strokes = Array.from({ length: MOST_STROKES }, (_, i) => stroke(`s-${i}`))
    const full = { ...card, pieces: [{ ...card.pieces[0]!, strokes } as PaintingPiece] }
    expect(ids(putStroke(full, art, stroke('more')), false)).toHaveLength(MOST_STROKES)
    expect(ids(putStroke(full, art, stroke('more')), false).at(-1)).toBe(`s-${MOST_STROKES - 1}`)
  })

  test('keep their pressure, or take it from the speed of the hand; straight ones keep their ends', () => {
    const at = (x: number, time: number, pressure: number | null) => ({ x, y: 3, time, pressure })
    expect(strokePoints([at(4, 0, 0.3)])).toEqual([4, 3, 0.3])
    expect(strokePoints([at(4, 0, null)])).toEqual([4, 3, 1])
    const even = strokePoints([at(0, 0, 0.5), at(10, 9, 0.5), at(20, 18, 0.5)])
    expect(even).toEqual([0, 3, 0.5, 10, 3, 0.5, 20, 3, 0.5])
    const pressOf = (step: number) => strokePoints(Array.from({ length: 9 }, (_, i) => at(i * 10, i * step, null)))[14]!
    expect(pressOf(40)).toBeGreaterThan(pressOf(5))
    expect(strokePoints([at(0, 0, 1), at(5, 3, 1), at(60, 9, 1)], true)).toEqual([0, 3, 1, 60, 3, 1])
  })

  test('of any length fit into a card: longer ones keep their form with fewer points', () => {
    for (const count of [10_000, 10_001, 20_000, 29_999]) {
      const drawn = Array.from({ length: count }, (_, i) => ({ x: i, y: 0, time: i, pressure: 1 }))
      const points = strokePoints(drawn)
      expect(points.length).toBeLessThanOrEqual(MOST_NUMBERS)
      expect(points.slice(-3)).toEqual([count - 1, 0, 1])
      expectCard(putStroke(card, art, stroke('long', points)))
    }
  })
})
