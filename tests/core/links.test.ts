import { expect, test } from '@jest/globals'
import type { Ring } from '#core/values/moment'
import { linksFrom, sourcesOf } from '#core/values/links'
import { createMotor } from '#core/values/motors/schema'
import type { StoredValue } from '#core/values/moving'

/** A value that follows others. */
const follows = (...sources: string[]): StoredValue => ({
  keys: [{ frame: 0, value: 0 }],
  motors: sources.map((source) => ({ ...createMotor('follow'), source })),
})

/** A ring in which each address follows those named. */
const ringOf = (values: Record<string, string[]>): Ring =>
  ({ read: (address: string) => (values[address] ? follows(...values[address]) : 5) }) as unknown as Ring

test('a value follows what its motors name that are on', () => {
  expect(sourcesOf(follows('a', 'b'))).toEqual(['a', 'b'])
  const off = { ...createMotor('follow'), source: 'a', on: false }
  const none = { ...createMotor('follow'), source: '' }
  expect(
    sourcesOf({ keys: [{ frame: 0, value: 0 }], motors: [off, none, createMotor('sway')] } as StoredValue),
  ).toEqual([])
  expect([sourcesOf(5), sourcesOf({ keys: [{ frame: 0, value: 1 }] } as StoredValue)]).toEqual([[], []])
})

test('links in a row are the longest way to what stands by itself', () => {
  const ring = ringOf({ a: ['b', 'd'], b: ['c'], c: ['e'], d: ['e'] })
  expect(['e', 'd', 'c', 'b', 'a'].map((at) => linksFrom(ring, at))).toEqual([0, 1, 1, 2, 3])
  // From the other end, and again: what is known stays true.
  const fresh = ringOf({ a: ['d', 'b'], b: ['c'], c: ['e'], d: ['e'] })
  expect(['a', 'b', 'd', 'a'].map((at) => linksFrom(fresh, at))).toEqual([3, 2, 1, 3])
})

test('a circle has no end, for those in it and for those who lead into it', () => {
  const circle = { a: ['b'], b: ['c'], c: ['b'] }
  expect(['a', 'b', 'c'].map((at) => linksFrom(ringOf(circle), at))).toEqual([Infinity, Infinity, Infinity])
  expect(linksFrom(ringOf({ a: ['a'] }), 'a')).toBe(Infinity)
  // Two ways to one place are no circle.
  expect(linksFrom(ringOf({ a: ['b', 'c'], b: ['d'], c: ['d'], d: [] }), 'a')).toBe(2)
})

test('a chain may be longer than the stack is deep', () => {
  const long = Object.fromEntries(Array.from({ length: 50_000 }, (_, i) => [`v${i}`, [`v${i + 1}`]]))
  expect(linksFrom(ringOf(long), 'v0')).toBe(50_000)
})
