import { describe, expect, test } from '@jest/globals'
import { paintAs, paintSchema } from '#core/values/paints'
import type { StoredPaint } from '#core/values/moving'
import type { Coat } from '#core/card/schema'
import { Engine } from '#core/frame/engine'
import { coat, emptyCard, engineWithFonts, pixelAt, solid, withBox } from '../support/engine'

const engine = engineWithFonts()
const paint = (values: object) =>
  paintSchema.parse({
    stops: [
      { at: 0, colour: '#000000' },
      { at: 100, colour: '#FFFFFF' },
    ],
    ...values,
  }) as StoredPaint
const BOX = { width: 200, height: 100 }

function shown(values: StoredPaint, box: object = {}, extra: Coat[] = []) {
  const face = [...extra, coat('fill', 'f', { paint: values })]
  return engine.render(withBox(emptyCard(400, 200), { ...BOX, ...box }, { face }), 0, { bits: 16 })
}
const grey = (picture: ReturnType<typeof shown>, x: number, y: number) => pixelAt(picture, x, y)[0]

describe('a radial gradient', () => {
  test('as a circle reaches its last colour at the farthest side, the same all round', () => {
    const picture = shown(paint({ type: 'radial', form: 'circle' }))
    expect(grey(picture, 200, 100)).toBeLessThan(0.01)
    expect(grey(picture, 250, 100)).toBeCloseTo(0.505, 2)
    expect(grey(picture, 298, 100)).toBeGreaterThan(0.98)
    expect(grey(picture, 200, 148)).toBeCloseTo(0.485, 2)
  })

  test('as an ellipse reaches it at every side', () => {
    const picture = shown(paint({ type: 'radial', form: 'ellipse' }))
    expect(grey(picture, 298, 100)).toBeGreaterThan(0.98)
    expect(grey(picture, 200, 148)).toBeGreaterThan(0.96)
    expect(grey(picture, 200, 125)).toBeCloseTo(0.51, 1)
  })

  test('turns and moves with the piece it hangs on', () => {
    const turned = shown(paint({ type: 'radial', form: 'ellipse', x: 100, y: 50 }), { rotation: 90 })
    // The right side has become the upper one.
    expect(grey(turned, 200, 3)).toBeLessThan(0.04)
    expect(grey(turned, 200, 197)).toBeGreaterThan(0.96)
  })
})

describe('a conic gradient', () => {
  test('runs clockwise from its angle (CSS Images 4 §3.3)', () => {
    const picture = shown(paint({ type: 'conic', angle: 90 }))
    // From upward: a quarter at the right, half below, three quarters at the left.
    expect(grey(picture, 260, 100)).toBeCloseTo(0.25, 1)
    expect(grey(picture, 200, 140)).toBeCloseTo(0.5, 1)
    expect(grey(picture, 140, 99)).toBeCloseTo(0.75, 1)
  })
})

describe('beyond its ends', () => {
  const at = (spread: string) => shown(paint({ type: 'linear', angle: 0, scale: 50, spread }))

  test('a gradient is held, mirrored or repeated', () => {
    // At 50 % it runs from x = 150 to 250.
    expect(grey(at('pad'), 120, 100)).toBe(0)
    expect(grey(at('pad'), 280, 100)).toBe(1)
    expect(grey(at('reflect'), 120, 100)).toBeCloseTo(0.295, 2)
    expect(grey(at('reflect'), 280, 100)).toBeCloseTo(0.695, 2)
    expect(grey(at('repeat'), 120, 100)).toBeCloseTo(0.705, 2)
    expect(grey(at('repeat'), 280, 100)).toBeCloseTo(0.305, 2)
  })
})

describe('a gradient along the edge', () => {
  const edge = paint({ type: 'edge' })

  test('runs from the edge to the deepest place of a fill', () => {
    const picture = shown(edge)
    expect(grey(picture, 101, 100)).toBeCloseTo(1.5 / 50, 2)
    expect(grey(picture, 125, 100)).toBeCloseTo(25.5 / 50, 2)
    expect(grey(picture, 200, 99)).toBeGreaterThan(0.97)
    // The same from every side.
    expect(grey(picture, 200, 60)).toBeCloseTo(10.5 / 50, 2)
  })

  test('runs across a stroke, from its inner to its outer side', () => {
    const stroke = coat('stroke', 's', { width: 40, paint: edge })
    const picture = shown(paint({ type: 'linear' }), {}, [stroke])
    expect(grey(picture, 300 + 4, 100)).toBeCloseTo(4.5 / 40, 2)
    expect(grey(picture, 300 + 30, 100)).toBeCloseTo(30.5 / 40, 2)
  })

  test('runs down a glow', () => {
    const values = { reach: 40, measure: 'even', falloff: 'linear', paint: edge, knockOut: false }
    const card = withBox(emptyCard(400, 200), BOX, { behind: [coat('glow', 'g', values)] })
    const picture = engine.render(card, 0, { bits: 16 })
    expect(grey(picture, 310, 100)).toBeCloseTo(10.5 / 40, 2)
    expect(grey(picture, 330, 100)).toBeCloseTo(30.5 / 40, 2)
  })
})

describe('textures', () => {
  const texture = (values: object) =>
    paintSchema.parse({ type: 'texture', ground: '#000000', ...values }) as StoredPaint

  test('lines are half as wide as their distance at 50 %, and keep their share at every scale and angle', () => {
    for (const values of [{}, { scale: 37 }, { angle: 33 }, { scale: 260, angle: 80 }]) {
      const picture = shown(texture({ pattern: 'lines', weight: 50, ...values }), { width: 380, height: 180 })
      let sum = 0
      for (let y = 15; y < 185; y++) for (let x = 15; x < 385; x++) sum += grey(picture, x, y)
      expect(sum / (370 * 170)).toBeCloseTo(0.5, 1)
    }
  })

  test('a grid of 25 % covers 1 − 0.75² of the area', () => {
    const picture = shown(texture({ pattern: 'grid', weight: 25 }), { width: 320, height: 160 })
    let sum = 0
    for (let y = 36; y < 164; y++) for (let x = 56; x < 344; x++) sum += grey(picture, x, y)
    expect(sum / (128 * 288)).toBeCloseTo(1 - 0.75 ** 2, 2)
  })

  test.each(['noise', 'brushed', 'paper'])('%s is another throw for another seed, the same for the same', (pattern) => {
    const pixels = (seed: number) => shown(texture({ pattern, seed })).pixels
    expect(pixels(3)).toEqual(pixels(3))
    expect(pixels(3)).not.toEqual(pixels(4))
  })

  test.each(['noise', 'brushed', 'paper'])('%s repeats after its tile without a seam', (pattern) => {
    // 512 px at 100 %; at 25 % four tiles lie in the box.
    const picture = shown(texture({ pattern, scale: 25 }), { width: 400, height: 200 })
    for (let x = 10; x < 250; x += 17) {
      expect(grey(picture, x, 90)).toBeCloseTo(grey(picture, x + 128, 90), 3)
      expect(grey(picture, x, 30)).toBeCloseTo(grey(picture, x, 30 + 128), 3)
    }
  })

  test('that hangs on the piece goes along with it; on the card it stays', () => {
    const at = (hang: string, x: number) => shown(texture({ pattern: 'noise', hang }), { x, width: 60, height: 60 })
    expect(grey(at('piece', 200), 205, 95)).toBeCloseTo(grey(at('piece', 240), 245, 95), 4)
    expect(grey(at('card', 200), 215, 95)).toBeCloseTo(grey(at('card', 220), 215, 95), 4)
  })

  test('clear grounds let through what lies below: the texture is clipped to the letters', () => {
    const over = coat('fill', 't', {
      paint: texture({ pattern: 'lines', angle: 90, ground: '#00000000', colour: '#FF0000', weight: 30 }),
    })
    const picture = shown(paint({ type: 'linear', angle: 0 }), {}, [over])
    const row = Array.from({ length: 198 }, (_, i) => pixelAt(picture, 101 + i, 100))
    expect(row.every(([, , , a]) => a === 1)).toBe(true)
    expect(row.some(([r, g]) => r > 0.9 && g < 0.1)).toBe(true)
    expect(pixelAt(picture, 90, 100)[3]).toBe(0)
  })
})

describe('changing the kind of a paint', () => {
  test('keeps colours as far as the kind has room for them, and gives what the file takes', () => {
    const kinds = ['solid', 'linear', 'radial', 'conic', 'edge', 'texture'] as const
    for (const from of kinds) {
      const start = paintAs({ type: 'solid', colour: '#B8324A' }, from, '#FFE9B8')
      for (const to of kinds) {
        const made = paintAs(start, to, '#FFE9B8')
        expect(made.type).toBe(to)
        expect(paintSchema.safeParse(made).success).toBe(true)
        const first = 'stops' in made ? made.stops[0]!.colour : made.colour
        expect(first).toBe('#B8324A')
      }
    }
  })

  test('from gradient to gradient keeps every stop and value', () => {
    const linear = paint({ type: 'linear', angle: 12, scale: 70, spread: 'reflect', mix: 'oklab' })
    expect({ ...paintAs(linear, 'conic', '#000000'), type: 'linear' }).toEqual(linear)
  })
})

test('a bevel on a straight edge is lit as its slope says: N·L for a chamfer at 45°', () => {
  // One slope of 45° towards the light at 45°: N·L = 1, the flat face has sin 45°.
  const values = { width: 40, lit: '#FFFFFF', litOpacity: 100, litBlend: 'normal', shadeOpacity: 0 }
  const card = withBox(
    emptyCard(400, 200),
    { width: 300, height: 150 },
    {
      face: [coat('bevel', 'b', values), coat('fill', 'f', { paint: solid('#000000') })],
    },
  )
  for (const elevation of [20, 45, 70]) {
    const picture = engine.render({ ...card, light: { azimuth: 90, elevation } }, 0, { bits: 16 })
    const e = (elevation * Math.PI) / 180
    const slope = Math.cos(Math.PI / 4 - e)
    const expected = Math.max(0, (slope - Math.sin(e)) / Math.max(0.02, 1 - Math.sin(e)))
    // The upper edge lies at y = 25; 10 px in, far from its ends.
    expect(pixelAt(picture, 200, 35)[0]).toBeCloseTo(expected, 2)
    // The face within the slope is flat: neither lit nor in shade.
    expect(pixelAt(picture, 200, 100)[0]).toBeLessThan(0.01)
    // The lower edge turns away from the light.
    expect(pixelAt(picture, 200, 165)[0]).toBeLessThan(0.01)
  }
})

test('more textures on one piece than are kept between frames do not take each other’s place', () => {
  const texture = (seed: number) =>
    paintSchema.parse({ type: 'texture', pattern: 'noise', seed, scale: 20, weight: 90, ground: '#000000' })
  const place = { x: 32, y: 32, width: 64, height: 64 }
  // Eight of them on one another, each whole: only the first is seen.
  const face = Array.from({ length: 8 }, (_, i) => coat('fill', `f${i}`, { paint: texture(i + 1) }))
  const drawn = (coats: Coat[]) => new Engine().render(withBox(emptyCard(64, 64), place, { face: coats }), 0).pixels
  expect(drawn(face)).toEqual(drawn(face.slice(0, 1)))
  expect(drawn(face)).not.toEqual(drawn(face.slice(1)))
})
