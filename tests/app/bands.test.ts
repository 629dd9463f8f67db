import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { Bands } from '~/workers/bands'
import { DraftSizes } from '~/composables/draft-sizes'

describe('a picture shared in bands', () => {
  /** What each column of cells costs, and so each band. */
  const costOf = (columns: readonly number[], { x, w }: { x: number; w: number }) =>
    columns.slice(x / 64, Math.ceil((x + w) / 64)).reduce((sum, cost) => sum + cost, 0)

  test('the bands make up the whole, on the grid of parts, however engines and costs change', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.integer({ min: 1, max: 2000 }),
            fc.integer({ min: 1, max: 8 }),
            fc.double({ min: 0, max: 99, noNaN: true }),
          ),
          { minLength: 1, maxLength: 12 },
        ),
        (asked) => {
          const bands = new Bands()
          for (const [width, count, cost] of asked) {
            const split = bands.split(width, count)
            expect(split).toHaveLength(Math.min(count, Math.ceil(width / 64)))
            let end = 0
            for (const { x, w } of split) {
              expect([x, x % 64, w > 0]).toEqual([end, 0, true])
              end = x + w
            }
            expect(end).toBe(width)
            bands.took(split.map((_, i) => cost * (i + 1)))
          }
        },
      ),
    )
  })

  test('after a few pictures no band takes much longer than the others, where the grid allows', () => {
    const columns = [0, 0, 0, 0, 0, 4, 4, 4, 4, 4, 4, 2]
    const bands = new Bands()
    const longest = () => {
      const split = bands.split(columns.length * 64, 2)
      const costs = split.map((band) => costOf(columns, band))
      bands.took(costs)
      return Math.max(...costs)
    }
    expect(longest()).toBe(22)
    for (let i = 0; i < 6; i++) longest()
    expect(longest()).toBeLessThanOrEqual(16)
  })

  test('a split that is as good as another stays: engines keep what they made', () => {
    const bands = new Bands()
    const first = bands.split(768, 2)
    bands.took([10, 11])
    expect(bands.split(768, 2)).toBe(first)
  })
})

describe('sizes of pictures while a hand moves', () => {
  test('are whole where that is quick enough, on several engines sooner', () => {
    const sizes = new DraftSizes()
    sizes.tookFull(34)
    expect([sizes.next(1), sizes.next(2)]).toEqual([1 / 2, 1])
    sizes.tookFull(5)
    expect(sizes.next(1)).toBe(1)
  })

  test('become smaller until one is quick enough, and larger again when the card is quicker', () => {
    const sizes = new DraftSizes()
    sizes.tookFull(200)
    expect(sizes.next(1)).toBe(1 / 4)
    const quick = new DraftSizes()
    quick.tookFull(50)
    quick.took(1, 50)
    quick.took(1 / 2, 20)
    expect(quick.next(1)).toBe(1 / 2)
    quick.took(1 / 2, 8)
    expect(quick.next(1)).toBe(1)
    quick.took(1, 60)
    expect(quick.next(1)).toBe(1 / 2)
  })
})
