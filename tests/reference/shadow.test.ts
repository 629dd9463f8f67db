import { describe, expect, test } from '@jest/globals'
import { Engine } from '#core/frame/engine'
import { erf } from '../support/erf'
import { coat, emptyCard, engineWithFonts, pixelAt, solid, withBox, withType } from '../support/engine'

const engine = new Engine()

const SIZE = 640
const EDGE = SIZE / 2 + 150

/** A black box of 300 px in the middle with one shadow and no face. */
function shadowed(values: Record<string, unknown>) {
  const behind = [coat('shadow', 's', { distance: 0, knockOut: false, colour: '#000000', ...values })]
  return engine.render(withBox(emptyCard(SIZE, SIZE), { width: 300, height: 300 }, { behind }), 0, { bits: 16 })
}

describe.each([16, 40, 120])('softness %d', (softness) => {
  test('falls off along an edge as the error function with sigma = softness / 2 (CSS Backgrounds 3 §7.2)', () => {
    const picture = shadowed({ softness })
    const sigma = softness / 2
    for (let x = Math.ceil(EDGE - 2 * sigma); x < EDGE + 2 * sigma; x += 2) {
      const d = x + 0.5 - EDGE
      const cumulative = (distance: number) => erf(distance / (sigma * Math.SQRT2))
      // The box ends: 300 px farther to the left, and 150 px above and below.
      const own = 0.5 * (cumulative(300 + d) - cumulative(d)) * cumulative(150)
      expect(Math.abs(pixelAt(picture, x, SIZE / 2)[3] - own) * 255).toBeLessThan(0.2)
    }
  })
})

test('firmness splits softness into spread and blur', () => {
  // f = 0.5 of 40 px: the edge moves out by 20 px, and half the alpha lies there.
  const picture = shadowed({ softness: 40, firmness: 50 })
  expect(pixelAt(picture, EDGE + 19, SIZE / 2)[3]).toBeGreaterThan(0.5)
  expect(pixelAt(picture, EDGE + 20, SIZE / 2)[3]).toBeLessThan(0.5)
  // All of it: a hard edge, as a stroke of that width.
  const hard = shadowed({ softness: 30, firmness: 100 })
  expect(pixelAt(hard, EDGE + 29, SIZE / 2)[3]).toBe(1)
  expect(pixelAt(hard, EDGE + 30, SIZE / 2)[3]).toBe(0)
})

test('light from straight above throws the shadow straight down (common practice, no published source)', () => {
  const card = withBox(
    emptyCard(SIZE, SIZE),
    { width: 300, height: 300 },
    {
      behind: [coat('shadow', 's', { distance: 40, softness: 0, knockOut: false })],
    },
  )
  const picture = engine.render({ ...card, light: { azimuth: 90, elevation: 45 } }, 0)
  expect(pixelAt(picture, SIZE / 2, EDGE + 39)[3]).toBe(1)
  expect(pixelAt(picture, SIZE / 2, EDGE + 40)[3]).toBe(0)
  expect(pixelAt(picture, SIZE / 2, SIZE / 2 - 111)[3]).toBe(0)
  expect(pixelAt(picture, EDGE + 1, SIZE / 2)[3]).toBe(0)
})

test('an inset shadow lies on the side the light comes from, mirrored to the one outside', () => {
  const face = [
    coat('shadow', 's', { side: 'inside', distance: 30, softness: 0 }),
    coat('fill', 'f', { paint: solid('#FFFFFF') }),
  ]
  const card = withBox(emptyCard(SIZE, SIZE), { width: 300, height: 300 }, { face })
  const picture = engine.render({ ...card, light: { azimuth: 90, elevation: 45 } }, 0)
  const top = SIZE / 2 - 150
  expect(pixelAt(picture, SIZE / 2, top + 29)).toEqual([0, 0, 0, 1])
  expect(pixelAt(picture, SIZE / 2, top + 30)).toEqual([1, 1, 1, 1])
  expect(pixelAt(picture, SIZE / 2, EDGE - 1)).toEqual([1, 1, 1, 1])
})

describe('at the edge of a shape no hairline is left', () => {
  const fonts = engineWithFonts()
  const opaque = [
    coat('fill', 'f', { paint: solid('#FFFFFF') }),
    coat('stroke', 's', { width: 9, paint: solid('#FFFFFF') }),
  ]
  const turned = { rotation: 17, x: 150.3, y: 149.7, size: 150, wording: 'Rg&8', font: 'pacifico' }

  test('between fill and stroke: both together are as solid as one wider fill', () => {
    const both = fonts.render(withType(emptyCard(300, 300), turned, { face: opaque }), 0)
    const inner = fonts.render(withType(emptyCard(300, 300), turned, { face: [opaque[0]!] }), 0)
    let gaps = 0
    for (let y = 0; y < 300; y++) {
      for (let x = 0; x < 300; x++) if (pixelAt(inner, x, y)[3] > 0 && pixelAt(both, x, y)[3] < 1) gaps++
    }
    expect(gaps).toBe(0)
  })

  test('between stacked strokes, and between face and knocked-out shadow', () => {
    const second = coat('stroke', 't', { width: 7, stacked: true, paint: solid('#FFFFFF') })
    const shadow = coat('shadow', 'h', { distance: 0, softness: 60, firmness: 100, colour: '#FFFFFF' })
    const picture = fonts.render(
      withType(emptyCard(300, 300), turned, { face: [...opaque, second], behind: [shadow] }),
      0,
    )
    const wide = fonts.render(withType(emptyCard(300, 300), turned, { behind: [{ ...shadow, knockOut: false }] }), 0)
    let gaps = 0
    for (let y = 0; y < 300; y++) {
      for (let x = 0; x < 300; x++) if (pixelAt(wide, x, y)[3] === 1 && pixelAt(picture, x, y)[3] < 0.996) gaps++
    }
    expect(gaps).toBe(0)
  })
})

describe('knock-out', () => {
  const face = [coat('fill', 'f', { paint: solid('#FFFFFF'), opacity: 50 })]
  const middle = (knockOut: boolean) => {
    const behind = [coat('shadow', 's', { distance: 0, softness: 0, knockOut })]
    return pixelAt(engine.render(withBox(emptyCard(SIZE, SIZE), {}, { face, behind }), 0), SIZE / 2, SIZE / 2)
  }

  test('keeps the shadow from showing through a half face; without it, it shows', () => {
    expect(middle(true)[3]).toBeCloseTo(0.5, 2)
    expect(middle(false)[3]).toBe(1)
    expect(middle(false)[0]).toBeCloseTo(0.5, 2)
  })
})

test('lift: parallel light at elevation e throws the shadow of a point at height h as far as h / tan e', () => {
  const behind = [coat('shadow', 's', { cast: 'lift', lift: 60, knockOut: false })]
  const card = withBox(emptyCard(SIZE, SIZE), { width: 300, height: 300 }, { behind })
  for (const elevation of [30, 45, 60]) {
    const picture = engine.render({ ...card, light: { azimuth: 180, elevation } }, 0, { bits: 16 })
    // The middle of the soft edge: where the shadow has half of its strength, to a pixel.
    const whole = pixelAt(picture, SIZE / 2, SIZE / 2)[3]
    let x = EDGE - 60
    while (pixelAt(picture, x, SIZE / 2)[3] > whole / 2) x++
    expect(Math.abs(x - (EDGE + 60 / Math.tan((elevation * Math.PI) / 180)))).toBeLessThanOrEqual(1)
  }
})

test('lift of nothing hides the shadow under its piece; the higher, the fainter', () => {
  const strength = (lift: number) => {
    const behind = [coat('shadow', 's', { cast: 'lift', lift, knockOut: false })]
    const picture = engine.render(withBox(emptyCard(SIZE, SIZE), { width: 300, height: 300 }, { behind }), 0)
    return [pixelAt(picture, SIZE / 2, SIZE / 2)[3], pixelAt(picture, SIZE / 2, EDGE + 1)[3]] as const
  }
  expect(strength(0)).toEqual([1, 0])
  expect(strength(150)[0]).toBeLessThan(strength(50)[0])
})

test('lift: all that the shadow covers fades as 1 / (1 + height / size), whatever its blur spreads', () => {
  const covered = (lift: number) => {
    const behind = [coat('shadow', 's', { cast: 'lift', lift, knockOut: false })]
    const card = withBox(emptyCard(SIZE, SIZE), { width: 160, height: 160 }, { behind })
    const { pixels } = engine.render({ ...card, light: { azimuth: 180, elevation: 80 } }, 0, { bits: 16 })
    return new Uint16Array(pixels.buffer).reduce((sum, v, i) => (i % 4 === 3 ? sum + v / 65535 : sum), 0)
  }
  for (const lift of [0, 40, 80, 160]) expect(covered(lift) / (160 * 160) / (1 / (1 + lift / 160))).toBeCloseTo(1, 3)
})

describe('a glow', () => {
  const glowing = (values: Record<string, unknown>) => {
    const laid = coat('glow', 'g', {
      reach: 60,
      falloff: 'linear',
      paint: solid('#FFFFFF'),
      knockOut: false,
      ...values,
    })
    const coats = values.side === 'inside' ? { face: [laid] } : { behind: [laid] }
    return engine.render(withBox(emptyCard(SIZE, SIZE), { width: 300, height: 300 }, coats), 0, { bits: 16 })
  }
  const alpha = (picture: ReturnType<typeof glowing>, d: number) => pixelAt(picture, EDGE + Math.floor(d), SIZE / 2)[3]

  test('measured evenly falls off in a straight line over its reach, and after its firm part', () => {
    const even = glowing({ measure: 'even' })
    for (const d of [0.5, 15.5, 30.5, 59.5]) expect(alpha(even, d)).toBeCloseTo(1 - d / 60, 3)
    const firm = glowing({ measure: 'even', firmness: 50 })
    expect(alpha(firm, 29.5)).toBe(1)
    expect(alpha(firm, 45.5)).toBeCloseTo(0.5 - 0.5 / 30, 2)
  })

  test('measured softly is twice the Gaussian of the shape, ended at its reach', () => {
    const soft = glowing({})
    const tail = 1 - erf(Math.SQRT2)
    for (const d of [0.5, 10.5, 25.5, 40.5, 55.5]) {
      const gauss = 1 - erf(d / (30 * Math.SQRT2))
      expect(Math.abs(alpha(soft, d) - (gauss - tail) / (1 - tail)) * 255).toBeLessThan(0.6)
    }
    expect(alpha(soft, 61.5)).toBe(0)
  })

  test('inside mirrors outside, and from the centre it is the rest', () => {
    const [outside, inside] = [glowing({ measure: 'even' }), glowing({ measure: 'even', side: 'inside' })]
    const centre = glowing({ measure: 'even', side: 'inside', start: 'centre' })
    for (const d of [0.5, 20.5, 50.5]) {
      expect(alpha(inside, -d)).toBeCloseTo(alpha(outside, d), 4)
      expect(alpha(centre, -d)).toBeCloseTo(1 - alpha(inside, -d), 4)
    }
  })
})
