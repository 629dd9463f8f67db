import { beforeEach, describe, expect, test } from '@jest/globals'
import { USUAL } from '#core/brushes/definition'
import { TIPS, TIP_KINDS } from '#core/brushes/table'
import { createMask } from '#core/card/create'
import type { Card, Mask, PaintingPiece } from '#core/card/schema'
import { useBench } from '~/stores/bench'
import { useBrush } from '~/stores/brush'
import { withPiece } from '../support/engine'
import { freshStores, standInServer, threeBoxes } from './stand-in'

// The brush in hand: what it is set to, and what it paints on.

const OWN = 'picture-0123456789abcdef'
const stroke = (id: string, tip = 'chalk') => ({
  ...{ id, tip, erase: false, colour: '#000000', size: 20, seed: 1, points: [0, 0, 1] },
  ...USUAL,
})

/** A painting in front of three boxes, the front one of which is held by a painted mask and by a box. */
function card(): Card {
  const boxes = threeBoxes()
  const masks = [
    { ...createMask('painted', 'by-hand'), strokes: [stroke('stroke-1', OWN)] },
    createMask('box', 'by-box'),
  ] as Mask[]
  const held = { ...boxes, pieces: boxes.pieces.map((one) => (one.id === 'front' ? { ...one, masks } : one)) }
  const strokes = [stroke('stroke-1'), stroke('stroke-3')]
  return withPiece<PaintingPiece>(held, 'painting', { id: 'painting', strokes } as Partial<PaintingPiece>)
}

async function opened() {
  standInServer({ 'GET /cards/card-1': { id: 'card-1', revision: 1, document: card() } })
  const bench = useBench()
  await bench.open('card-1')
  return { bench, brush: useBrush() }
}

beforeEach(freshStores)

describe('a brush', () => {
  test('begins as its tip does; what is set of it stays with that tip', async () => {
    const { brush } = await opened()
    for (const { kind, starts } of TIPS) {
      brush.tip = kind
      expect(brush.settings).toEqual({ ...USUAL, ...starts })
    }
    brush.tip = 'chalk'
    brush.set({ spacing: 31 })
    brush.set({ flow: 44 })
    expect(brush.settings).toMatchObject({ spacing: 31, flow: 44 })
    brush.tip = TIP_KINDS[0]!
    expect(brush.settings.spacing).not.toBe(31)
    brush.tip = 'chalk'
    brush.asShipped()
    expect(brush.settings).toEqual({ ...USUAL, ...TIPS.find(({ kind }) => kind === 'chalk')!.starts })
  })

  test('is made wider and narrower within its limits: to tenths below ten, to whole pixels above', async () => {
    const { brush } = await opened()
    brush.size = 4
    brush.resize(1.13)
    expect(brush.size).toBe(4.5)
    brush.size = 40
    brush.resize(1.13)
    expect(brush.size).toBe(45)
    for (let i = 0; i < 90; i++) brush.resize(1.15)
    expect(brush.size).toBe(2000)
    for (let i = 0; i < 90; i++) brush.resize(1 / 1.15)
    expect(brush.size).toBe(0.5)
  })

  test('is made harder and softer between 0 and 100', async () => {
    const { brush } = await opened()
    brush.set({ hardness: 95 })
    brush.harden(10)
    expect(brush.settings.hardness).toBe(100)
    brush.harden(-130)
    expect(brush.settings.hardness).toBe(0)
  })

  test('of a picture is taken in hand, stands in the tray once, and leaves it for the first tip', async () => {
    const { brush } = await opened()
    brush.takeOwn('picture-00000000000000aa')
    brush.takeOwn('picture-00000000000000aa')
    expect(brush.tip).toBe('picture-00000000000000aa')
    // Beside it those that the card is painted with already.
    expect(brush.own).toEqual(['picture-00000000000000aa', OWN])
    brush.dropOwn('picture-00000000000000aa')
    expect([brush.tip, brush.own]).toEqual([TIP_KINDS[0], [OWN]])
  })
})

describe('what it paints on', () => {
  test('is the painting that is selected alone', async () => {
    const { bench, brush } = await opened()
    bench.select('painting')
    expect(brush.target).toEqual({ piece: 'painting', mask: null })
    bench.toggleSelected('back')
    expect(brush.target).toBeNull()
    bench.select('back')
    expect(brush.target).toBeNull()
  })

  test('is the painted mask that is selected, and no other mask', async () => {
    const { bench, brush } = await opened()
    bench.select('front', 'by-hand')
    expect(brush.target).toEqual({ piece: 'front', mask: 'by-hand' })
    bench.select('front', 'by-box')
    expect(brush.target).toBeNull()
  })

  test('gets strokes whose ids and seeds are free', async () => {
    const { bench, brush } = await opened()
    bench.select('painting')
    brush.tip = 'chalk'
    brush.erase = true
    brush.colour = '#102030'
    brush.size = 12
    const made = brush.begun([1, 2, 0.5])
    expect(made).toEqual({
      ...{ id: 'stroke-4', tip: 'chalk', erase: true, colour: '#102030', size: 12, seed: 4, points: [1, 2, 0.5] },
      ...brush.settings,
    })
    expect(brush.strokes.map(({ id }) => id)).not.toContain(made.id)
  })
})
