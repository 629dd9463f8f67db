import { expect, test } from '@jest/globals'
import { createMask } from '#core/card/create'
import { expectCard } from '#core/card/read'
import type { Mask } from '#core/card/schema'
import { Engine } from '#core/frame/engine'
import { erf } from '../support/erf'
import { coat, emptyCard, floatsOf, solid, withBox } from '../support/engine'

const white = (mask: Mask) =>
  expectCard(
    withBox(
      emptyCard(256, 192),
      { x: 128, y: 96, width: 4000, height: 4000, masks: [mask] },
      { face: [coat('fill', 'f', { paint: solid('#FFFFFF') })] },
    ),
  )

test('a feathered edge is the error function of half the feather (Abramowitz & Stegun 7.1)', () => {
  const engine = new Engine()
  for (const feather of [6, 40, 90]) {
    // The right edge of the box lies at 128; its other sides are far away.
    const mask = { ...createMask('box', 'm'), x: -2000, width: 4000, height: 4000, feather } as unknown as Mask
    const { at } = floatsOf(engine, white(mask))
    for (let x = 60; x < 200; x += 5) {
      // Samples a pixel apart stand for bins: Sheppard's correction for grouping.
      const spread = Math.sqrt(2 * ((feather / 2) ** 2 - 1 / 12))
      const truth = 0.5 * (1 - erf((x + 0.5 - 128) / spread))
      expect(Math.abs(at(x, 96)[3] - truth) * 255).toBeLessThan(0.25)
    }
  }
})

test('a grown mask has the area of Steiner: A + P·d + π·d² for a convex one', () => {
  const engine = new Engine()
  const areaOf = (grow: number) => {
    const path = 'M -60 -40 L 70 -30 L 20 60 Z'
    const { values } = floatsOf(engine, white({ ...createMask('path', 'm'), path, grow } as unknown as Mask))
    let area = 0
    for (let i = 3; i < values.length; i += 4) area += values[i]!
    return area
  }
  const sides: [number, number][] = [
    [-60, -40],
    [70, -30],
    [20, 60],
  ]
  const perimeter = sides.reduce((sum, [x, y], i) => {
    const [u, v] = sides[(i + 1) % 3]!
    return sum + Math.hypot(u - x, v - y)
  }, 0)
  const plain = areaOf(0)
  expect(plain).toBeCloseTo(Math.abs(130 * 100 - 10 * 80) / 2, 1)
  for (const d of [5, 18]) expect(Math.abs(areaOf(d) - (plain + perimeter * d + Math.PI * d * d))).toBeLessThan(1)
})
