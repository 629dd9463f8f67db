import { describe, expect, test } from '@jest/globals'
import { createPiece } from '#core/card/create'
import type { BoxPiece, Card, Coat, GroupPiece, PolygonPiece } from '#core/card/schema'
import { createMotor } from '#core/values/motors/schema'
import { coat, emptyCard, engineWithFonts, pixelAt, solid, withBox } from '../support/engine'

const engine = engineWithFonts()
const face = [coat('fill', 'fill', { paint: solid('#FFFFFF') })]
const box = (values: Partial<BoxPiece>, more: Partial<Card> = {}): Card => ({
  ...withBox(emptyCard(320, 120, 50), { id: 'box', x: 80, y: 60, width: 40, height: 40, ...values }, { face }),
  ...more,
})
const slide = (perFrame: number) => ({
  keys: [
    { frame: 0, value: 80 },
    { frame: 40, value: 80 + perFrame * 40 },
  ],
  loop: false,
})
const half = { angle: 180, phase: 0 }
const rowOf = (card: Card, frame: number) => {
  const picture = engine.render(card, frame, { bits: 16 })
  return Array.from({ length: 320 }, (_, x) => pixelAt(picture, x, 60)[3])
}

/** Share of pixel x that a box from a to b covers. */
const covered = (x: number, a: number, b: number) => Math.max(0, Math.min(x + 1, b) - Math.max(x, a))

describe('motion blur', () => {
  test.each([
    [4, half],
    [5, { angle: 360, phase: 0 }],
    [5, { angle: 180, phase: -90 }],
    [3, { angle: 720, phase: 0 }],
  ])('a box at %d px a frame is the exact integral over %o: a ramp', (speed, shutter) => {
    const frame = 10
    const row = rowOf(box({ x: slide(speed) }, { shutter }), frame)
    const open = frame + shutter.phase / 360
    const steps = 4000
    let largest = 0
    for (let x = 60; x < 200; x++) {
      let sum = 0
      for (let i = 0; i < steps; i++) {
        const middle = 80 + speed * (open + ((i + 0.5) / steps) * (shutter.angle / 360))
        sum += covered(x, middle - 20, middle + 20)
      }
      largest = Math.max(largest, Math.abs(row[x]! - sum / steps))
    }
    // Under a step of 8 bits, for exposures a pixel apart.
    expect(largest).toBeLessThan(1 / 255)
  })

  test('what stands still is exposed once, and is the same to the byte; so is a frame in which nothing moves', () => {
    expect(engine.render(box({}, { shutter: half }), 5).pixels).toEqual(engine.render(box({}), 5).pixels)
    const card = box({ x: slide(4) })
    expect(Buffer.compare(engine.render({ ...card, shutter: half }, 45).pixels, engine.render(card, 45).pixels)).toBe(0)
  })

  test('a piece can be left out, and a piece on twos is not blurred', () => {
    const sharp = engine.render(box({ x: slide(5) }), 10).pixels
    for (const values of [{ blurred: false }, { steps: 2 }]) {
      const picture = engine.render(box({ x: slide(5), ...values }, { shutter: half }), 10).pixels
      expect(Buffer.compare(picture, sharp)).toBe(0)
    }
  })

  test('a turning box is soft at its corners and whole in its middle; opacity fades over the exposure', () => {
    const turning = box(
      { rotation: { keys: [{ frame: 0, value: 0 }], motors: [{ ...createMotor('spin'), amount: 3600 }] }, width: 90 },
      { shutter: half },
    )
    const picture = engine.render(turning, 10, { bits: 16 })
    expect(pixelAt(picture, 80, 60)[3]).toBe(1)
    const tip = pixelAt(picture, 80 + 43, 60)[3]
    expect(tip).toBeGreaterThan(0.1)
    expect(tip).toBeLessThan(0.9)
    const fading = {
      keys: [
        { frame: 0, value: 0 },
        { frame: 10, value: 100 },
      ],
      loop: false,
    }
    const row = rowOf(box({ opacity: fading }, { shutter: { angle: 360, phase: 0 } }), 4)
    expect(row[80]).toBeCloseTo(0.45, 3)
  })

  test('a cut at a key leaves no ghost: the shutter opens with the frame', () => {
    const jump = {
      keys: [
        { frame: 0, value: 80, easing: 'hold' },
        { frame: 10, value: 240, easing: 'hold' },
      ],
      loop: false,
    }
    const row = rowOf(box({ x: jump }, { shutter: half }), 10)
    expect([row[80], row[240]]).toEqual([0, 1])
  })

  test('in pieces of the frame and on the seam the bytes are the same', () => {
    const card = box(
      {
        x: {
          keys: [
            { frame: 0, value: 80 },
            { frame: 25, value: 200 },
          ],
        },
      },
      { shutter: half },
    )
    const whole = engine.render(card, 49)
    const part = engine.render(card, 49, { region: { x: 64, y: 0, w: 128, h: 120 } })
    for (let y = 0; y < 120; y += 7) {
      const row = whole.pixels.subarray((y * 320 + 64) * 4, (y * 320 + 192) * 4)
      expect(Buffer.compare(row, part.pixels.subarray(y * 128 * 4, (y + 1) * 128 * 4))).toBe(0)
    }
    expect(Buffer.compare(engine.render(card, 50).pixels, engine.render(card, 0).pixels)).toBe(0)
  })

  /** The mean of many frames without a shutter, premultiplied, over the time that it is open. */
  function oneByOne(card: Card, frame: number, count: number): Float64Array {
    const still = { ...card, shutter: null }
    const open = card.shutter!
    const mean = new Float64Array(card.frame.width * card.frame.height * 4)
    for (let i = 0; i < count; i++) {
      const at = frame + (open.phase + (open.angle * (i + 0.5)) / count) / 360
      const values = premultiplied(still, at)
      for (let k = 0; k < mean.length; k++) mean[k]! += values[k]! / count
    }
    return mean
  }

  function premultiplied(card: Card, frame: number): Float32Array {
    const { buffer, byteOffset, byteLength } = engine.render(card, frame, {
      bits: 'float',
      alpha: 'premultiplied',
    }).pixels
    return new Float32Array(buffer, byteOffset, byteLength / 4)
  }

  function farthest(a: Float32Array, b: Float64Array): number {
    let most = 0
    for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i]! - b[i]!))
    return most
  }

  const swing = (from: number, to: number) => ({
    keys: [
      { frame: 0, value: from },
      { frame: 40, value: to },
    ],
    loop: false,
  })

  /** A sign on a string that swings, with a wheel on it that turns by itself. */
  function sign(shadows: Coat[], values: Partial<GroupPiece> = {}, onWheel: Partial<PolygonPiece> = {}): Card {
    const wheel = { ...onWheel, id: 'wheel', x: 0, y: 30, width: 56, height: 56, rotation: swing(0, 200) }
    const string = { id: 'string', x: 0, y: -60, width: 4, height: 120 }
    const line = coat('stroke', 'line', { width: 3, paint: solid('#E2683C') })
    const card = { ...emptyCard(160, 120, 50), shutter: half }
    return {
      ...card,
      pieces: [
        {
          ...(createPiece('group', card) as GroupPiece),
          ...{ id: 'sign', x: 80, y: 30, rotation: swing(60, -60), coats: { face: [], behind: shadows } },
          pieces: [
            {
              ...(createPiece('polygon', card) as PolygonPiece),
              ...wheel,
              coats: { face: [...face, line], behind: [] },
            },
            {
              ...(createPiece('box', card) as BoxPiece),
              ...string,
              coats: { face: [coat('fill', 'rope', { paint: solid('#8A5A22') })], behind: [] },
            },
          ],
          ...values,
        },
      ],
    }
  }
  const flash = {
    keys: [
      { frame: 10, value: 0 },
      { frame: 11, value: 100 },
    ],
    loop: false,
  }
  const soft = (id: string, values: Record<string, unknown> = {}) =>
    coat('shadow', id, { distance: 10, softness: 60, colour: '#C0392B', ...values })

  // 1.5 of 255 is what exposures that share their work may be wrong by; the same holds for how many there are.
  test.each<[string, Coat[], Partial<GroupPiece>, Partial<PolygonPiece>?]>([
    ['without coats, laid once as the mean of what it holds', [], {}],
    ['with a soft shadow, cast once by the mean', [soft('a')], {}],
    ['with a shadow that shows under it', [soft('a', { knockOut: false })], {}],
    ['with a firm shadow, cast by each exposure', [soft('a', { firmness: 60 })], {}],
    ['that is half clear', [soft('a')], { opacity: 50 }],
    ['that fades meanwhile', [soft('a')], { opacity: swing(0, 100) }],
    ['in which the wheel flashes under its shadow', [soft('a')], {}, { opacity: flash }],
  ])('a group %s is the mean of many frames', (_, coats, values, onWheel = {}) => {
    const card = sign(coats, values, onWheel)
    const picture = premultiplied(card, 10)
    expect(farthest(picture, oneByOne(card, 10, 160))).toBeLessThan(1.5 / 255)
  })

  test.each([0.02, 0.075, 0.09, 0.3, 1.4])(
    'a box that creeps %d px a frame is the mean of many frames too',
    (speed) => {
      const card = box({ x: slide(speed) }, { shutter: half })
      const picture = premultiplied(card, 10)
      expect(farthest(picture, oneByOne(card, 10, 60))).toBeLessThan(1.5 / 255)
    },
  )

  test('only what is seen counts for the number of exposures: what a long string does beyond the frame changes no byte', () => {
    const card = sign([])
    const longer = structuredClone(card)
    const rope = (longer.pieces[0] as GroupPiece).pieces[1] as BoxPiece
    Object.assign(rope, { height: 2000, y: -1000 })
    expect(Buffer.compare(engine.render(longer, 10).pixels, engine.render(card, 10).pixels)).toBe(0)
  })
})
