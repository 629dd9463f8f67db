import { describe, expect, test } from '@jest/globals'
import type { BoxPiece, Card } from '#core/card/schema'
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
})
