import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { closeLoop } from '#core/edit/close-loop'
import type { Moving } from '#core/values/moving'
import { createPiece } from '#core/card/create'
import type { BoxPiece, Card, PathPiece } from '#core/card/schema'
import { motionFaults } from '#core/judge/motion-faults'
import { pictureDifference, ringDifference } from '#core/judge/ring-difference'
import { seamReport } from '#core/judge/seam'
import { createMotor } from '#core/values/motors/schema'
import { DEMO_CARDS, coat, demoCard, emptyCard, engineWithFonts, solid, withBox } from '../support/engine'

const motor = (kind: string, values: object = {}) => ({ ...createMotor(kind), ...values })
const box = (values: Partial<BoxPiece>): Card =>
  withBox(
    emptyCard(320, 180, 50),
    { id: 'box', width: 60, height: 40, ...values },
    {
      face: [coat('fill', 'fill', { paint: solid('#F2A33C') })],
    },
  )
const keys = (...at: [number, number, string?][]) =>
  at.map(([frame, value, easing]) => ({ frame, value, ...(easing ? { easing } : {}) }))
const seamOf = (card: Card, address: string) => seamReport(card).find((entry) => entry.address === address)!

describe('the seam of one value', () => {
  const verdicts: [string, Moving<number>, string][] = [
    ['a ring of soft keys', { keys: keys([0, 0, 'ease-in-out'], [25, 90, 'ease-in-out']) }, 'closed'],
    ['straight ways with a key on the seam', { keys: keys([0, 0], [25, 90]) }, 'turn'],
    ['a straight way across the seam', { keys: keys([10, 0], [30, 90]) }, 'closed'],
    ['held ends that differ', { keys: keys([5, 0], [40, 90]), loop: false }, 'jump'],
    ['held ends that meet', { keys: keys([5, 20], [25, 90], [45, 20]), loop: false }, 'closed'],
    ['a key right before the seam', { keys: keys([0, 0], [49, 90]) }, 'jump'],
    ['jumps everywhere', { keys: keys([0, 0, 'hold'], [20, 50, 'hold'], [35, 20, 'hold']) }, 'held'],
    ['one whole turn', { keys: keys([0, 0]), motors: [motor('spin', { amount: 360 })] }, 'closed'],
    ['half a turn', { keys: keys([0, 0]), motors: [motor('spin', { amount: 180 })] }, 'jump'],
    ['a sway of one and a half', { keys: keys([0, 0]), motors: [motor('sway', { cycles: 1.25 })] }, 'jump'],
    ['any jitter', { keys: keys([0, 0]), motors: [motor('jitter', { rate: 7.3 })] }, 'closed'],
    ['a swing on the ring', { keys: keys([0, 0], [20, 90, 'hold']), motors: [motor('settle')] }, 'jump'],
    ['a formula of seconds', { keys: keys([0, 0]), motors: [motor('formula', { text: '10 * t' })] }, 'jump'],
  ]
  test.each(verdicts)('%s', (_, rotation, verdict) => {
    expect(seamOf(box({ rotation }), 'box/rotation').verdict).toBe(verdict)
  })

  test('a jump is unseen only where its piece is not seen on either side of the seam', () => {
    const jumping = (values: Partial<BoxPiece>) =>
      seamOf(box({ x: { keys: keys([5, 0], [40, 90]), loop: false }, ...values }), 'box/x').verdict
    expect(jumping({ span: { in: 5, out: 45 } })).toBe('unseen')
    expect(jumping({ span: { in: 0, out: 45 } })).toBe('jump')
    expect(jumping({ span: { in: 5, out: 50 } })).toBe('jump')
    // One that closes is closed, seen or not.
    const closing = { x: { keys: keys([0, 0], [25, 90]) }, span: { in: 5, out: 45 } }
    expect(seamOf(box(closing), 'box/x').verdict).toBe('turn')
    const fading = (...at: [number, number, string?][]) => jumping({ opacity: { keys: keys(...at), loop: false } })
    expect(fading([0, 0], [10, 100], [40, 100], [49, 0])).toBe('unseen')
    expect(fading([0, 100], [40, 100], [49, 0])).toBe('jump')
    expect(fading([0, 0], [10, 100])).toBe('jump')
  })

  test('that of a coat is unseen as well where the coat alone is clear, off or out of the loop', () => {
    const jumping = (values: object) => {
      const width = { keys: keys([5, 1], [40, 9]), loop: false }
      const stroke = coat('stroke', 'stroke', { paint: solid('#14323C'), width, ...values })
      const fill = coat('fill', 'fill', { paint: solid('#F2A33C') })
      const card = withBox(emptyCard(320, 180, 50), { id: 'box', width: 60, height: 40 }, { face: [fill, stroke] })
      return seamOf(card, 'box/stroke/width').verdict
    }
    expect(jumping({})).toBe('jump')
    expect(jumping({ opacity: 0 })).toBe('unseen')
    expect(jumping({ on: false })).toBe('unseen')
    expect(jumping({ opacity: { keys: keys([0, 0], [10, 100], [40, 100], [49, 0]), loop: false } })).toBe('unseen')
  })

  test('tells values, speeds and why', () => {
    const entry = seamOf(box({ x: { keys: keys([5, 0], [40, 90]), loop: false } }), 'box/x')
    expect(entry.value).toMatchObject({ after: 0, jump: -90 })
    expect(entry.why).toEqual(['its keys end at another value than they begin with'])
    const heldAt = (...at: [number, number, string?][]) => seamOf(box({ x: { keys: keys(...at) } }), 'box/x').why
    const held = 'the way from its last key to its first is held, and jumps at its end'
    expect(heldAt([0, 0], [30, 90, 'hold'])).toEqual([held])
    expect(heldAt([0, 50], [30, -90, 'hold'])).toEqual([held])
    // Held across the seam it jumps at its first key.
    expect(heldAt([10, 0], [30, 90, 'hold'])).toEqual([])
    expect(heldAt([0, 0], [49, 90, 'ease-in'])).toContain(
      'its last key stands right before the seam with another value than the first',
    )
    const straight = seamOf(box({ x: { keys: keys([0, 0], [25, 90]) } }), 'box/x')
    expect(straight.speed.before).toBeCloseTo(-3.6, 6)
    expect(straight.speed.after).toBeCloseTo(3.6, 6)
  })
})

describe('close the loop', () => {
  test('says what it will change, changes it, and nothing jumps any more', () => {
    const card = box({
      x: { keys: keys([0, 40], [20, 200]), loop: false },
      y: { keys: keys([0, 40], [48, 100]), loop: false },
      rotation: { keys: keys([0, 0]), motors: [motor('spin', { amount: 500 })] },
      scale: { keys: keys([0, 100]), motors: [motor('sway', { cycles: 2.3, amount: 5 })] },
      opacity: { keys: keys([0, 50, 'ease-in-out'], [25, 100, 'ease-in-out']) },
    })
    const { card: closed, changes, left } = closeLoop(card)
    expect(changes.map(({ address, says }) => [address, says])).toEqual([
      ['box/x', 'glides from its last key back to its first, across the seam'],
      ['box/y', 'its last key takes the value of its first, 40'],
      ['box/rotation', 'spins 1 whole turn in a loop instead of 1.389'],
      ['box/scale', 'sways 2 times in a loop instead of 2.3'],
    ])
    expect(left).toEqual([])
    expect(seamReport(closed).filter(({ verdict }) => verdict === 'jump')).toEqual([])
    expect(closed.pieces[0]!.opacity).toBe(card.pieces[0]!.opacity)
    expect(closeLoop(closed)).toMatchObject({ changes: [], card: closed })
  })

  test('what cannot be mended is told', () => {
    const { changes, left } = closeLoop(
      box({ x: { keys: keys([0, 0]), motors: [motor('formula', { text: 'v + 100 * t' })] } }),
    )
    expect(changes).toEqual([])
    expect(left[0]).toMatchObject({ address: 'box/x', why: [expect.stringMatching(/another value at the end/)] })
  })
})

test('a clear pixel differs in nothing; a step across the seam that is the largest shows', () => {
  const picture = (pixels: number[]) => ({ width: 1, height: 1, bits: 8 as const, pixels: Uint8Array.from(pixels) })
  expect(pictureDifference(picture([255, 0, 0, 0]), picture([0, 0, 255, 0]))).toEqual({ mean: 0, largest: 0 })
  expect(pictureDifference(picture([255, 0, 0, 255]), picture([0, 0, 0, 255]))).toEqual({ mean: 255 / 4, largest: 255 })
  for (const clear of [
    [0, 0, 0, 0],
    [9, 200, 9, 0],
  ]) {
    expect(pictureDifference(picture([255, 255, 255, 51]), picture(clear))).toEqual({ mean: 51, largest: 51 })
    expect(pictureDifference(picture(clear), picture([255, 255, 255, 51]))).toEqual({ mean: 51, largest: 51 })
  }
  expect(ringDifference([1, 2, 1, 1.5])).toMatchObject({ seam: 1.5, largest: { step: 2, frame: 1 }, shows: false })
  expect(ringDifference([1, 1, 1, 4]).shows).toBe(true)
})

describe('faults in motion are told at their place, and the rest plays on', () => {
  const faulty = (...motors: ReturnType<typeof motor>[]) => box({ x: { keys: keys([0, 100]), motors } })
  const messages: [string, Card, RegExp][] = [
    ['unreadable', faulty(motor('formula', { text: 'sin(' })), /cannot be read at character/],
    ['division by zero', faulty(motor('formula', { text: '1 / (f - 10)' })), /no number at frame 10/],
    ['no source', faulty(motor('follow')), /follows nothing/],
    ['source gone', faulty(motor('follow', { source: 'gone/x' })), /not on the card/],
    ['itself', faulty(motor('follow', { source: 'box/x' })), /go in a circle/],
  ]
  test.each(messages)('%s', (_, card, message) => {
    const [fault, ...more] = motionFaults(card)
    expect(fault).toMatchObject({ address: 'box/x', motor: 0, message: expect.stringMatching(message) })
    expect(more).toEqual([])
    expect(
      engineWithFonts()
        .render(card, 10)
        .pixels.some((v) => v > 0),
    ).toBe(true)
  })

  test('links in a circle over three values are told at each of them', () => {
    const link = (source: string) => ({ keys: keys([0, 100]), motors: [motor('follow', { source })] })
    const card = box({ x: link('box/y'), y: link('box/width'), width: link('box/x') })
    expect(motionFaults(card).map(({ address }) => address)).toEqual(['box/x', 'box/y', 'box/width'])
    expect(
      engineWithFonts()
        .render(card, 0)
        .pixels.some((v) => v > 0),
    ).toBe(true)
  })

  test('a path keyed with other points is told, across the seam as well', () => {
    const card = emptyCard(320, 180, 50)
    const path = (...data: string[]) => {
      const value = { keys: data.map((text, i) => ({ frame: i * 10, value: text })) }
      const piece = { ...createPiece('path', card), id: 'path', name: 'Path', path: value } as PathPiece
      return motionFaults({ ...card, pieces: [piece] })
    }
    expect(path('M 0 0 L 10 0', 'M 0 0 L 20 0')).toEqual([])
    const [fault] = path('M 0 0 L 10 0', 'M 0 0 L 20 0 L 5 5')
    expect(fault).toMatchObject({ address: 'path/path', motor: null, message: expect.stringMatching(/other points/) })
  })

  test('a motor that is off is not at fault', () => {
    expect(motionFaults(faulty(motor('formula', { text: 'sin(', on: false })))).toEqual([])
  })
})

test('no moving value of the demo jumps at the seam, and no motor is at fault', () => {
  for (const name of DEMO_CARDS) {
    const card = demoCard(name)
    expect(seamReport(card).filter(({ verdict }) => verdict === 'jump')).toEqual([])
    expect(motionFaults(card)).toEqual([])
  }
})

test('random cards of periodic motors: no value breaks off at the seam, and the frame after the last is the first', () => {
  const engine = engineWithFonts()
  const number = fc.integer({ min: -60, max: 60 })
  const bend = fc.option(fc.record({ in: number, out: number }), { nil: undefined })
  const moving = fc.record({
    keys: fc
      .uniqueArray(fc.integer({ min: 0, max: 49 }), { minLength: 1, maxLength: 4 })
      .chain((frames) =>
        fc.tuple(
          ...[...frames]
            .sort((a, b) => a - b)
            .map((frame) => fc.record({ frame: fc.constant(frame), value: number, bend })),
        ),
      ),
    motors: fc.array(
      fc.oneof(
        fc.record({ kind: fc.constant('sway'), cycles: fc.integer({ min: 1, max: 5 }) }),
        fc.record({ kind: fc.constant('jitter'), seed: fc.nat(99), rate: fc.integer({ min: 1, max: 12 }) }),
        fc.record({ kind: fc.constant('spin') }),
        fc.record({ kind: fc.constant('settle') }),
      ),
      { maxLength: 2 },
    ),
  })
  fc.assert(
    fc.property(moving, moving, (x, rotation) => {
      const full = (m: typeof x) => ({ ...m, motors: m.motors.map(({ kind, ...values }) => motor(kind, values)) })
      const card = box({
        rotation: full(rotation) as never,
        anchorX: full({ ...x, motors: x.motors.filter(({ kind }) => kind !== 'spin') }) as never,
      })
      // Rendering wraps frame numbers; what could break is the value just before the seam.
      for (const { value, step } of seamReport(card)) {
        expect(Math.abs(value.jump)).toBeLessThanOrEqual(0.02 * Math.max(step.largest, step.seam) + 1e-6)
      }
      expect(Buffer.compare(engine.render(card, card.length).pixels, engine.render(card, 0).pixels)).toBe(0)
    }),
    { numRuns: 25 },
  )
})
