import { createHash } from 'node:crypto'
import { readdirSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { Engine } from '#core/frame/engine'
import { COATS } from '#core/coats/table'
import { pictureDifference } from '#core/judge/ring-difference'
import { paintSchema } from '#core/values/paints'
import type { Card } from '#core/card/schema'
import { withDemoSequences } from '../support/demo-sequences'
import { coat, demoCard, emptyCard, engineWithFonts, pixelAt, solid, withBox, withType } from '../support/engine'

const engine = engineWithFonts()
const hash = (card: Card, frame: number, on = engine) =>
  createHash('sha256').update(on.render(card, frame).pixels).digest('hex')

describe('the same card and frame give the same bytes', () => {
  test('from a fresh engine, from a used one, and with everything kept from before', () => {
    const card = demoCard('01-opening')
    const first = hash(card, 40, engineWithFonts())
    expect(hash(card, 40)).toBe(first)
    hash(demoCard('02-lower-third'), 40)
    hash(card, 41)
    // The second and third time planes come out of the store.
    expect(hash(card, 40)).toBe(first)
    expect(hash(card, 40)).toBe(first)
  })

  test('a frame beyond the loop is the one that it comes round to', () => {
    const card = demoCard('02-lower-third')
    expect(hash(card, card.length + 12)).toBe(hash(card, 12))
    expect(hash(card, -3)).toBe(hash(card, card.length - 3))
  })

  test('another size in between, and pixels used again, leave no trace', () => {
    const card = demoCard('02-lower-third')
    const first = hash(card, 30)
    const small = engine.render(card, 60, { scale: 0.25 })
    expect([small.width, small.height]).toEqual([480, 270])
    const used = engine.render(demoCard('01-opening'), 3).pixels
    expect(
      createHash('sha256')
        .update(engine.render(card, 30, { reuse: used }).pixels)
        .digest('hex'),
    ).toBe(first)
  })
})

test.each(readdirSync('demo/cards').map((file) => file.replace('.card.json', '')))(
  '%s closes its loop: the seam is no larger than its neighbours',
  (file) => {
    const card = demoCard(file)
    const frames = [-3, -2, -1, 0, 1, 2].map((frame) =>
      withDemoSequences(engine, () => engine.render(card, frame, { scale: 0.25 })),
    )
    const steps = frames.slice(1).map((picture, i) => pictureDifference(picture, frames[i]!).mean)
    const [before, just, seam, ...after] = steps
    expect(seam!).toBeLessThanOrEqual(Math.max(before!, just!, ...after) * 1.05)
  },
)

describe('a piece', () => {
  const fill = (colour: string) => coat('fill', 'f', { paint: solid(colour) })

  test('keeps its colours to the bit: no dithering where nothing was rounded', () => {
    const picture = engine.render(
      withBox(emptyCard(200, 100), { width: 80, height: 40 }, { face: [fill('#3D7FE1')] }),
      0,
    )
    for (let y = 32; y < 68; y++)
      for (let x = 62; x < 138; x++) expect(pixelAt(picture, x, y)).toEqual([0x3d / 255, 0x7f / 255, 0xe1 / 255, 1])
  })

  test('at half a pixel shares its edge with what is behind', () => {
    const picture = engine.render(
      withBox(emptyCard(200, 100), { width: 80, height: 40, x: 100.5 }, { face: [fill('#FFFFFF')] }),
      0,
    )
    expect(pixelAt(picture, 60, 50)[3]).toBeCloseTo(0.5, 2)
    expect(pixelAt(picture, 140, 50)[3]).toBeCloseTo(0.5, 2)
  })

  test('beyond the frame costs nothing and shows nothing; half beyond is cut at the frame', () => {
    const empty = engine.render(withBox(emptyCard(200, 100), { x: 5000 }, { face: [fill('#FFFFFF')] }), 0)
    expect(empty.pixels.every((value) => value === 0)).toBe(true)
    const half = engine.render(
      withBox(emptyCard(203, 101), { x: 203, y: 0, width: 100, height: 60 }, { face: [fill('#FFFFFF')] }),
      0,
    )
    expect(pixelAt(half, 202, 0)[3]).toBe(1)
    expect(pixelAt(half, 152, 29)[3]).toBe(0)
    expect(pixelAt(half, 153, 30)[3]).toBe(0)
  })

  test('a shadow from beyond the frame falls into it as if the frame were larger', () => {
    const values = { width: 200, height: 60 }
    const behind = [coat('shadow', 's', { distance: 0, softness: 50, knockOut: false })]
    const cut = engine.render(withBox(emptyCard(256, 128), { ...values, x: 320, y: 64 }, { behind }), 0, { bits: 16 })
    const whole = engine.render(withBox(emptyCard(512, 128), { ...values, x: 320, y: 64 }, { behind }), 0, { bits: 16 })
    for (let x = 180; x < 256; x += 5) expect(pixelAt(cut, x, 64)[3]).toBeCloseTo(pixelAt(whole, x, 64)[3], 3)
  })

  test('with percent lengths looks the same at every size', () => {
    const face = [fill('#FFFFFF'), coat('stroke', 's', { width: { unit: '%', value: 10 }, paint: solid('#FF0000') })]
    const at = (size: number, card: Card) =>
      engine.render(withType(card, { size, wording: 'H', font: 'anton' }, { face }), 0)
    const small = at(100, emptyCard(200, 200))
    const large = at(200, emptyCard(400, 400))
    let worst = 0
    for (let y = 0; y < 200; y++) {
      for (let x = 0; x < 200; x++) {
        const four = [0, 1].flatMap((dy) => [0, 1].map((dx) => pixelAt(large, 2 * x + dx, 2 * y + dy)[3]))
        worst = Math.max(worst, Math.abs(four.reduce((a, b) => a + b) / 4 - pixelAt(small, x, y)[3]))
      }
    }
    // A distance ramp and an average of four of them differ a little at corners.
    expect(worst).toBeLessThan(0.13)
  })

  test('that is off, clear, or scaled to nothing leaves the card empty', () => {
    for (const values of [{ on: false }, { opacity: 0 }, { scale: 0 }]) {
      const picture = engine.render(withBox(emptyCard(64, 64), values, { face: [fill('#FFFFFF')] }), 0)
      expect(picture.pixels.every((value) => value === 0)).toBe(true)
    }
  })

  test('a stroke of no width draws nothing', () => {
    const picture = engine.render(withBox(emptyCard(700, 300), {}, { face: [coat('stroke', 's', { width: 0 })] }), 0)
    expect(picture.pixels.every((value) => value === 0)).toBe(true)
  })
})

describe('every kind of coat, from its table', () => {
  test.each(COATS.map((definition) => [definition.kind, definition] as const))(
    '%s reaches no farther than it says',
    (kind, definition) => {
      const sides =
        definition.parameters.side?.type === 'choice'
          ? definition.parameters.side.options.map(({ value }) => value)
          : ['']
      const length = fc.integer({ min: 0, max: 40 })
      fc.assert(
        fc.property(
          fc.constantFrom(...sides),
          length,
          length,
          fc.integer({ min: 0, max: 100 }),
          fc.integer({ min: 0, max: 360 }),
          (side, a, b, firmness, direction) => {
            const names = Object.keys(definition.parameters)
            const values = {
              ...(side ? { side } : {}),
              ...(names.includes('width') ? { width: a, offset: b - 20 } : {}),
              ...(names.includes('softness')
                ? { softness: a, distance: b, firmness, direction, ownDirection: true }
                : {}),
            }
            const group = definition.group({ side })
            const laid = coat(kind, 'c', values)
            const coats = group === 'face' ? { face: [laid] } : { behind: [laid] }
            // On a card whose middle part is the other card: what is cut off at a too small box would differ.
            const small = engine.render(withBox(emptyCard(400, 400), { width: 60, height: 50 }, coats), 0)
            const large = engine.render(
              withBox(emptyCard(400 + 128, 400 + 128), { width: 60, height: 50, x: 264, y: 264 }, coats),
              0,
            )
            let worst = 0
            for (let y = 0; y < 400; y += 7) {
              for (let x = 0; x < 400; x += 5) {
                worst = Math.max(worst, Math.abs(pixelAt(small, x, y)[3] - pixelAt(large, x + 64, y + 64)[3]))
              }
            }
            expect(worst).toBeLessThanOrEqual(1 / 255 + 1e-9)
          },
        ),
        { numRuns: 6 },
      )
    },
  )

  test('gives its mask in the field that its side names', () => {
    for (const { kind, parameters } of COATS) {
      if (parameters.side?.type !== 'choice' || !parameters.side.options.some(({ value }) => value === 'inside'))
        continue
      const picture = engine.render(
        withBox(emptyCard(400, 300), { width: 100, height: 100 }, { face: [coat(kind, 'c', { side: 'inside' })] }),
        0,
      )
      for (let x = 0; x < 149; x++) expect(pixelAt(picture, x, 150)[3]).toBe(0)
    }
  })
})

describe('a gradient', () => {
  const ramp = (angle: number, hang: string) =>
    paintSchema.parse({
      type: 'linear',
      stops: [
        { at: 0, colour: '#000000' },
        { at: 100, colour: '#FFFFFF' },
      ],
      ...{ angle, hang },
    })
  const shown = (angle: number, hang: string, values = {}) =>
    engine.render(
      withBox(
        emptyCard(400, 200),
        { width: 200, height: 100, ...values },
        { face: [coat('fill', 'f', { paint: ramp(angle, hang) })] },
      ),
      0,
    )

  test('runs from its first stop to its last over the shape: 0° to the right, 90° upward', () => {
    const across = shown(0, 'piece')
    expect(pixelAt(across, 101, 100)[0]).toBeLessThan(0.02)
    expect(pixelAt(across, 200, 100)[0]).toBeCloseTo(0.5, 2)
    expect(pixelAt(across, 298, 100)[0]).toBeGreaterThan(0.98)
    const up = shown(90, 'piece')
    expect(pixelAt(up, 200, 52)[0]).toBeGreaterThan(0.96)
    expect(pixelAt(up, 200, 148)[0]).toBeLessThan(0.04)
  })

  test('that hangs on the piece moves and turns with it; on the card it stays', () => {
    expect(pixelAt(shown(0, 'piece', { x: 260 }), 260, 100)[0]).toBeCloseTo(0.5 + 0.5 / 200, 2)
    expect(pixelAt(shown(0, 'card', { x: 260 }), 260, 100)[0]).toBeCloseTo(260.5 / 400, 2)
    const turned = shown(0, 'piece', { rotation: 90 })
    expect(pixelAt(turned, 200, 10)[0]).toBeGreaterThan(0.9)
  })
})

test('a missing font names the piece and the font', () => {
  const card = withType(emptyCard(100, 100), { font: 'own-0123456789abcdef' }, { face: [coat('fill', 'f')] })
  expect(() => new Engine().render(card, 0)).toThrow(/pieces\[0\]\.font.*own-0123456789abcdef/)
})
