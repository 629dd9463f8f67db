import { describe, expect, test } from '@jest/globals'
import { copyKeys, pasteKeys } from '#core/edit/keys'
import type { Key } from '#core/values/moving'
import { addRanges, changeRange, moveRange } from '#core/edit/ranges'
import { duplicatePiece } from '#core/edit/stack'
import { storedAt, writeValue } from '#core/edit/values'
import { readCard } from '#core/card/read'
import type { Card, TypePiece } from '#core/card/schema'
import { seamReport } from '#core/judge/seam'
import { MOST_RANGES } from '#core/type/ranges'
import { RANGE_STARTS } from '#core/type/range-starts'
import { coat, emptyCard, withType } from '../support/engine'
import { letterRange as range } from '../support/ranges'

describe('letter motion on a card', () => {
  const card = withType(emptyCard(640, 360, 100), { wording: 'Lantern Regatta' }, { face: [coat('fill', 'fill-1')] })
  const [piece] = card.pieces as [TypePiece]
  const ranges = (of: Card, index = 0) => (of.pieces[index] as TypePiece).ranges

  test.each(RANGE_STARTS)('$label: a card that can be read, and a loop without a seam', (start) => {
    for (const zones of [null, { hold: 20, out: 70 }]) {
      const made = addRanges({ ...card, zones }, piece.id, start)
      expect(ranges(made)).toHaveLength(start.ranges.length)
      expect(readCard(made).faults).toBeNull()
      for (const { address, verdict } of seamReport(made))
        expect({ address, verdict }).not.toMatchObject({ verdict: 'jump' })
      expect(seamReport(made)).toHaveLength(start.ranges.length)
    }
  })

  test('what arrives is there at the hold and goes at its end; what leaves goes then and is back before the loop begins again', () => {
    const sweepOf = (form: 'arrive' | 'leave', zones: Card['zones']) => {
      const start = RANGE_STARTS.find((one) => one.ranges.some(({ values }) => values.form === form))!
      const own = start.ranges.findIndex(({ values }) => values.form === form)
      const { keys } = ranges(addRanges({ ...card, zones }, piece.id, start))[own]!.sweep as { keys: Key<number>[] }
      return keys.map(({ frame, value, easing }) => [frame, value, easing])
    }
    const zones = { hold: 20, out: 70 }
    expect(sweepOf('arrive', zones)).toEqual([
      [0, 0, 'linear'],
      [20, 100, 'hold'],
      [70, 100, 'linear'],
    ])
    // Without zones 1.2 s each: 30 frames.
    expect(sweepOf('arrive', null).map(([frame]) => frame)).toEqual([0, 30, 70])
    const own = { ...RANGE_STARTS[0]!, ranges: [{ name: 'Goes', values: { ...range({}), form: 'leave' as const } }] }
    const { keys } = ranges(addRanges({ ...card, zones }, piece.id, own))[0]!.sweep as { keys: Key<number>[] }
    expect(keys.map(({ frame, value }) => [frame, value])).toEqual([
      [0, 100],
      [20, 0],
      [70, 0],
    ])
  })

  test('a loop too short for keys gets a sweep that stands still', () => {
    const short = addRanges({ ...card, length: 3 }, piece.id, RANGE_STARTS[0]!)
    expect(ranges(short)[0]!.sweep).toBe(0)
    expect(readCard(short).faults).toBeNull()
  })

  test('copies get ids of their own; their values are reached by them', () => {
    const made = addRanges(card, piece.id, RANGE_STARTS[0]!)
    const { card: twice, id } = duplicatePiece(made, piece.id)
    expect(readCard(twice).faults).toBeNull()
    const copy = ranges(twice)[0]!
    expect(copy.id).not.toBe(ranges(twice, 1)[0]!.id)
    const written = writeValue(twice, `${id}/${copy.id}/y`, 0, 12)
    expect(ranges(written)[0]!.y).toBe(12)
    expect(ranges(written, 1)[0]!.y).toBe(90)
  })

  test('keys of a sweep are pasted on the same range of another piece', () => {
    const made = addRanges(card, piece.id, RANGE_STARTS[0]!)
    const { card: two, id } = duplicatePiece(made, piece.id)
    const other = ranges(two)[0]!.id
    const still = writeBare(two, `${id}/${other}/sweep`)
    const address = `${piece.id}/${ranges(two, 1)[0]!.id}/sweep`
    const copied = copyKeys(still, [
      { address, frame: 0 },
      { address, frame: 30 },
    ])
    const pasted = pasteKeys(still, copied, [id], 10).card
    expect(storedAt(pasted, `${id}/${other}/sweep`)).toMatchObject({ keys: [{ frame: 10 }, { frame: 40 }] })
  })

  test('ranges are changed, moved and taken away', () => {
    const made = addRanges(addRanges(card, piece.id, RANGE_STARTS[0]!), piece.id, RANGE_STARTS[1]!)
    const [first, second] = ranges(made).map(({ id }) => id)
    expect(ranges(moveRange(made, piece.id, second!, -1)).map(({ id }) => id)).toEqual([second, first])
    expect(ranges(moveRange(made, piece.id, second!, 5))).toBe(ranges(made))
    expect(ranges(moveRange(made, piece.id, first!, -1))).toBe(ranges(made))
    expect(ranges(moveRange(made, piece.id, first!, 1)).map(({ id }) => id)).toEqual([second, first])
    expect(ranges(moveRange(made, piece.id, 'gone', 1))).toBe(ranges(made))
    expect(ranges(changeRange(made, piece.id, first!, { on: false }))[0]!.on).toBe(false)
    expect(ranges(changeRange(made, piece.id, first!, null)).map(({ id }) => id)).toEqual([second])
  })

  test('no more than there may be; broken ones are named with their place', () => {
    const full = Array.from({ length: MOST_RANGES + 3 }).reduce<Card>(
      (c) => addRanges(c, piece.id, RANGE_STARTS[0]!),
      card,
    )
    expect(ranges(full)).toHaveLength(MOST_RANGES)
    const broken = {
      ...card,
      pieces: [{ ...piece, ranges: [{ ...range({}), order: 'sideways' }, range({ id: 'fill-1' })] }],
    }
    const places = readCard(broken).faults!.map(({ place }) => place)
    expect(places).toContain('pieces[0].ranges[0].order')
    const taken = { ...card, pieces: [{ ...piece, ranges: [range({ id: 'fill-1' })] }] }
    expect(
      readCard(taken)
        .faults!.map(({ message }) => message)
        .join(),
    ).toContain('is an id that is taken')
  })
})

/** A value that stands still, whatever moved it before. */
const writeBare = (card: Card, address: string): Card => {
  const [pieceId, rangeId] = address.split('/') as [string, string]
  return changeRange(card, pieceId, rangeId, { sweep: 0 })
}
