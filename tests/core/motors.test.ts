import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { expectCard, readCard } from '#core/card/read'
import type { Card } from '#core/card/schema'
import { mapped } from '#core/edit/mapped'
import { setStored, storedAt, toggleKey, writeValue } from '#core/edit/values'
import { evaluateCard } from '#core/time/evaluate'
import type { Key, Moving, StoredValue } from '#core/values/moving'
import type { Moment } from '#core/values/moment'
import { motoredNumber, numberAt } from '#core/values/moved'
import { createMotor } from '#core/values/motors/schema'
import { motorOf, MOTORS } from '#core/values/motors/table'
import { ringNoise } from '#core/values/ring-noise'
import { emptyCard, withBox } from '../support/engine'

const still = (value: number): Key<number>[] => [{ frame: 0, value }]
const motor = (kind: string, values: object = {}) => ({ ...createMotor(kind), ...values })
const driven = (keys: Key<number>[], ...motors: ReturnType<typeof motor>[]): Moving<number> => ({ keys, motors })

const LENGTH = 100
const RATE = 25
/** A moment of a card that holds values at addresses. */
const reads = (frame: number, read: NonNullable<Moment['ring']['read']>): Moment => ({
  ring: { length: LENGTH, rate: RATE, read },
  frame,
})
const at = (frame: number): Moment => ({ ring: { length: LENGTH, rate: RATE }, frame })
const value = (moving: Moving<number>, frame: number) => numberAt(moving, at(frame))

test('a spin makes its turns in the loop; only whole ones close, and it says so', () => {
  const spin = driven(still(10), motor('spin', { amount: 720 }))
  expect(value(spin, 25)).toBeCloseTo(10 + 180, 9)
  const place = { length: LENGTH, rate: RATE, ring: true, keys: [0], before: () => 0, lookup: () => null }
  const { gap, mend } = motorOf('spin')
  expect(gap({ amount: 720, per: 'loop' } as never, { ...place, turn: 360 })).toBeNull()
  expect(gap({ amount: 540, per: 'loop' } as never, { ...place, turn: 360 })).toMatch(/1.5 turns/)
  expect(gap({ amount: 90, per: 'second' } as never, { ...place, turn: 360 })).toBeNull()
  expect(gap({ amount: 720, per: 'loop' } as never, { ...place, turn: null })).toMatch(/jumps back/)
  const mended = mend!({ amount: 530, per: 'loop' } as never, { ...place, turn: 360 })!
  expect(mended.values.amount).toBe(360)
  expect(mended.says).toMatch(/1 whole turn in a loop instead of 1.472/)
})

test('a sway is a sine: at a quarter of its cycle it is at its far end', () => {
  const sway = driven(still(5), motor('sway', { amount: 20, cycles: 2 }))
  expect(value(sway, 12.5)).toBeCloseTo(25, 9)
  expect(value(sway, 37.5)).toBeCloseTo(-15, 9)
  expect(value(sway, 25)).toBeCloseTo(5, 9)
})

describe('ring noise', () => {
  const any = [fc.integer({ min: 2, max: 60 }), fc.integer({ min: 0, max: 65_535 })] as const

  test('comes round in value and slope, the same for the same seed', () => {
    fc.assert(
      fc.property(...any, (points, seed) => {
        const { smooth } = ringNoise(points, seed)
        const h = 1e-5
        expect(smooth(1 - 1e-12)).toBeCloseTo(smooth(0), 8)
        const before = (smooth(1 - h) - smooth(1 - 2 * h)) / h
        const after = (smooth(h) - smooth(0)) / h
        expect(Math.abs(after - before)).toBeLessThan(1e-3 * points * points)
        expect(ringNoise(points, seed).smooth(0.37)).toBe(smooth(0.37))
      }),
    )
    expect(ringNoise(8, 1).smooth(0.37)).not.toBe(ringNoise(8, 2).smooth(0.37))
  })

  test('its mean is 0 and its largest distance from it is 1', () => {
    fc.assert(
      fc.property(...any, (points, seed) => {
        const { smooth, jumps } = ringNoise(points, seed)
        // 240 samples a piece: Simpson's rule is exact for cubics.
        const values = Array.from({ length: points * 240 }, (_, i) => smooth((i + 0.5) / (points * 240)))
        expect(Math.abs(values.reduce((sum, v) => sum + v, 0) / values.length)).toBeLessThan(1e-4)
        const largest = Math.max(...values.map(Math.abs))
        expect(largest).toBeLessThanOrEqual(1 + 1e-9)
        expect(largest).toBeGreaterThan(0.999)
        const levels = Array.from({ length: points }, (_, i) => jumps(i / points))
        expect(Math.abs(levels.reduce((sum, v) => sum + v, 0))).toBeLessThan(1e-9 * points)
        expect(Math.max(...levels.map(Math.abs))).toBeCloseTo(1, 9)
      }),
    )
  })
})

describe('settle', () => {
  const arriving: Key<number>[] = [
    { frame: 0, value: 0, easing: 'linear' },
    { frame: 20, value: 100, easing: 'hold' },
  ]

  test('is the damped oscillation in closed form (x″ + 2dx′ + (d² + w²)x = 0 from x′ = the speed of arrival)', () => {
    const open: Moving<number> = {
      ...driven(arriving, motor('settle', { frequency: 1.5, decay: 3 })),
      loop: false,
    }
    const speed = (100 / 20) * RATE
    const w = 2 * Math.PI * 1.5
    for (const frame of [21, 24, 30, 47.5, 90]) {
      const t = (frame - 20) / RATE
      expect(value(open, frame)).toBeCloseTo(100 + (speed / w) * Math.exp(-3 * t) * Math.sin(w * t), 6)
    }
    expect(value(open, 10)).toBeCloseTo(50, 9)
  })

  test('on the ring what is left of the swing goes on across the seam', () => {
    const ring = driven(arriving, motor('settle', { frequency: 0.6, decay: 0.4 }))
    const rest = (frame: number) => value(ring, frame) - value({ keys: arriving }, frame)
    const [a, b, c] = [99.98, 99.99, 0].map(rest)
    expect(Math.abs(a!)).toBeGreaterThan(0.1)
    expect(c! - b!).toBeCloseTo(b! - a!, 3)
    // The sum over many turns, done the long way.
    const w = 2 * Math.PI * 0.6
    const long = Array.from({ length: 200 }, (_, n) => (50 - 20 + n * LENGTH) / RATE)
      .map((t) => (125 / w) * Math.exp(-0.4 * t) * Math.sin(w * t))
      .reduce((sum, v) => sum + v, 0)
    expect(rest(50)).toBeCloseTo(long, 6)
  })

  test('a movement that comes to rest by itself does not swing', () => {
    const soft = driven([{ ...arriving[0]!, easing: 'ease-out' }, arriving[1]!], motor('settle'))
    expect(Math.abs(value(soft, 26) - 100)).toBeLessThan(0.4)
  })
})

test('repeat: again, to and fro, and on from where it ended', () => {
  const keys = [
    { frame: 10, value: 0 },
    { frame: 30, value: 40 },
  ]
  const way = (name: string) => driven(keys, motor('repeat', { way: name }))
  expect([15, 35, 55, 95].map((f) => value(way('again'), f))).toEqual([10, 10, 10, 10])
  expect([15, 35, 55].map((f) => value(way('to-and-fro'), f))).toEqual([10, 30, 10])
  expect([15, 35, 55].map((f) => value(way('carry-on'), f))).toEqual([10, 50, 90])
  const gap = (name: string, length: number) =>
    motorOf('repeat').gap({ way: name } as never, {
      ...{ length, rate: RATE, ring: true, turn: null, lookup: () => null },
      ...{ keys: [10, 30], before: (f: number) => (f - 10) * 2 },
    })
  expect(gap('again', 100)).toBeNull()
  expect(gap('again', 90)).toMatch(/4.5 times/)
  expect(gap('to-and-fro', 100)).toMatch(/2.5 times/)
  expect(gap('to-and-fro', 120)).toBeNull()
  expect(gap('carry-on', 100)).toMatch(/carries on by 200/)
})

test('24 frames on twos show 12 values (common practice, no published source)', () => {
  const ramp: Key<number>[] = [
    { frame: 0, value: 0 },
    { frame: 99, value: 99 },
  ]
  const twos = driven(ramp, motor('step', { frames: 2 }))
  expect(new Set(Array.from({ length: 24 }, (_, f) => value(twos, f))).size).toBe(12)
})

describe('follow', () => {
  const reading = (values: Record<string, StoredValue>) => (address: string) => values[address]

  test('takes another value, later, times a gain, plus an offset', () => {
    const source: Moving<number> = {
      keys: [
        { frame: 0, value: 0 },
        { frame: 50, value: 50 },
      ],
    }
    const late = driven(still(7), motor('follow', { source: 'a/x', delay: 5, gain: 200, offset: 1 }))
    expect(numberAt(late, reads(25, reading({ 'a/x': source })))).toBeCloseTo(2 * 20 + 1, 9)
    const added = driven(still(7), motor('follow', { source: 'a/x', way: 'added' }))
    expect(numberAt(added, reads(25, reading({ 'a/x': { unit: '%', value: 3 } })))).toBe(10)
    // Nothing there, or no number: the value itself.
    for (const values of [{}, { 'a/x': '#FFFFFF' }, { 'a/x': true }]) {
      expect(numberAt(late, reads(25, reading(values)))).toBe(7)
    }
  })

  test('links in a circle end: each keeps a finite value', () => {
    const a = driven(still(1), motor('follow', { source: 'b', way: 'added' }))
    const b = driven(still(10), motor('follow', { source: 'c', way: 'added' }))
    const c = driven(still(100), motor('follow', { source: 'a', way: 'added' }))
    expect(numberAt(a, reads(0, reading({ a, b, c })))).toBeLessThan(1000)
  })
})

test('a formula that gives no number is passed over', () => {
  const divides = driven(still(4), motor('formula', { text: '1 / (f - 10)' }))
  expect(value(divides, 10)).toBe(4)
  expect(value(divides, 12)).toBe(0.5)
  expect(value(driven(still(4), motor('formula', { text: 'sqrt(' })), 3)).toBe(4)
})

test('motors work on what the one before gives; one that is off does nothing; bare means the keys alone', () => {
  const twice = driven(still(3), motor('formula', { text: 'v * 2' }), motor('formula', { text: 'v + 1' }))
  expect(value(twice, 0)).toBe(7)
  const once = driven(still(3), { ...twice.motors![0]!, on: false }, twice.motors![1]!)
  expect(value(once, 0)).toBe(4)
  expect(numberAt(twice, { ...at(0), bare: true })).toBe(3)
})

test('every motor with any values gives a finite number at any frame, the same at n and n + loop', () => {
  const values = fc.record({
    kind: fc.constantFrom(...MOTORS.map(({ kind }) => kind)),
    share: fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 6, maxLength: 6 }),
    frame: fc.integer({ min: 0, max: 25_599 }).map((f) => f / 256),
    loop: fc.boolean(),
  })
  fc.assert(
    fc.property(values, ({ kind, share, frame, loop }) => {
      const { parameters } = motorOf(kind)
      const set = Object.entries(parameters).map(([name, p], i) => {
        const s = share[i % share.length]!
        if (p.type === 'choice') return [name, p.options[Math.floor(s * 0.999 * p.options.length)]!.value]
        return [name, 'min' in p ? p.min + (p.max - p.min) * s : p.default]
      })
      const keys = [
        { frame: 10, value: 5 },
        { frame: 40, value: -20, easing: 'hold' },
      ]
      const moving = { keys, loop, motors: [motor(kind, Object.fromEntries(set))] }
      const here = value(moving, frame)
      expect(Number.isFinite(here)).toBe(true)
      const turns = motoredNumber(moving, at(0))
      expect(Math.abs(turns(frame + LENGTH) - here)).toBeLessThanOrEqual(1e-6 * Math.max(1, Math.abs(here)))
    }),
    { numRuns: 400 },
  )
})

describe('values of motors that move', () => {
  const swaying = (amount: unknown): Card => {
    const way = driven(still(100), { ...motor('sway', { cycles: 10 }), amount })
    return withBox(emptyCard(300, 100, LENGTH), { id: 'b', width: 20, height: 20, x: way, y: 50 }, {})
  }
  const fade = {
    keys: [
      { frame: 0, value: 0 },
      { frame: 40, value: 60, easing: 'hold' },
    ],
    loop: false,
  }
  const valueOf = (card: Card, address: string, frame: number) =>
    evaluateCard(card, frame).find((entry) => entry.address === address)!.value as number

  test('are taken as they are at the frame: an amount that grows is a swing that grows', () => {
    const card = expectCard(swaying(fade))
    for (const frame of [0, 3, 10, 21, 40, 44]) {
      const share = Math.min(1, frame / 40) * 60
      const swing = Math.sin((2 * Math.PI * 10 * frame) / LENGTH)
      expect(valueOf(card, 'b/x', frame)).toBeCloseTo(100 + share * swing, 6)
      expect(valueOf(card, 'b/x/motors/0/amount', frame)).toBeCloseTo(share, 9)
    }
  })

  test('have addresses, take keys and units, and are kept within their range', () => {
    const keyed = toggleKey(swaying(20), 'b/x/motors/0/amount', 7)
    expect(storedAt(keyed, 'b/x/motors/0/amount')).toMatchObject({ keys: [{ frame: 7, value: 20 }] })
    const two = writeValue(keyed, 'b/x/motors/0/amount', 12, 44)
    expect(valueOf(two, 'b/x/motors/0/amount', 12)).toBe(44)
    expect(expectCard(JSON.parse(JSON.stringify(two)))).toEqual(expectCard(two))
    // A value on another scale takes its motors' keys along.
    const small = driven(still(1), { ...motor('sway'), amount: fade })
    const [grown] = mapped(small, (v: unknown) => (v as number) * 3).motors as unknown as { amount: typeof fade }[]
    expect(grown!.amount.keys.map(({ value }) => value)).toEqual([0, 180])
    const low = {
      keys: [
        { frame: 0, value: 0, easing: 'cubic-bezier(0.5, -9, 0.5, 1)' },
        { frame: 40, value: 10 },
      ],
    }
    const settling = driven(still(5), { ...motor('settle'), amount: low })
    expect(numberAt(settling, at(10))).toBe(5)
  })

  test('how fast a motor goes stands still; a motor on a motor is refused', () => {
    const paced = swaying(20)
    const broken = setStored(paced, 'b/x/motors/0/cycles', fade)
    expect(readCard(broken).faults![0]!.place).toContain('motors[0].cycles')
    const nested = setStored(paced, 'b/x/motors/0/amount', { ...fade, motors: [motor('sway')] })
    expect(readCard(nested).faults![0]!.place).toContain('motors[0].amount')
  })
})
