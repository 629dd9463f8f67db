import { beforeEach, expect, test } from '@jest/globals'
import { createPinia, setActivePinia } from 'pinia'
import { PANELS, usePanels } from '~/stores/panels'

// How much room the panels take.

beforeEach(() => {
  setActivePinia(createPinia())
})

test('the ribbon takes little while nothing moves, more for lanes, most for open curves', () => {
  const panels = usePanels()
  const [still, lanes, curves] = (['nothing', 'lanes', 'curves'] as const).map((shows) => panels.ribbonHeight(shows))
  expect(lanes).toBe(PANELS.ribbon.size)
  expect(still).toBeGreaterThanOrEqual(PANELS.ribbon.least)
  expect(still).toBeLessThan(lanes!)
  expect(curves).toBeGreaterThan(lanes!)
})

test('once it was dragged it stays so, but for curves that need their room; as it ships it follows again', () => {
  const panels = usePanels()
  panels.resize('ribbon', 300)
  expect(panels.ribbonHeight('nothing')).toBe(300)
  expect(panels.ribbonHeight('lanes')).toBe(300)
  expect(panels.ribbonHeight('curves')).toBeGreaterThan(300)
  panels.reset('ribbon')
  expect(panels.ribbonHeight('nothing')).toBeLessThan(panels.ribbonHeight('lanes'))
})

test('a panel goes as far as it may, and is unfolded by being dragged', () => {
  const panels = usePanels()
  panels.fold('stack')
  expect(panels.shown('stack')).toBe(false)
  panels.resize('stack', 10_000)
  expect([panels.sizeOf('stack'), panels.shown('stack')]).toEqual([PANELS.stack.most, true])
  // One that stands is not folded by it.
  panels.resize('stack', PANELS.stack.size)
  expect(panels.shown('stack')).toBe(true)
  panels.reset('stack')
  expect([panels.sizeOf('stack'), panels.shown('stack')]).toEqual([PANELS.stack.size, true])
  panels.fold('stack')
  panels.reset('stack')
  expect(panels.shown('stack')).toBe(true)
  panels.resize('stack', 0)
  expect(panels.sizeOf('stack')).toBe(PANELS.stack.least)
  panels.whole = true
  expect(panels.shown('stack')).toBe(false)
})
