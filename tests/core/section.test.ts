import { describe, expect, test } from '@jest/globals'
import { expectCard } from '#core/card/read'
import { coat, emptyCard, engineWithFonts, solid, withBox, withPiece, withType } from '../support/engine'

const engine = engineWithFonts()
const at = (distances: number[], d: number) => distances.indexOf(d)

describe('a section', () => {
  const face = [
    coat('bevel', 'b', { width: 20, litOpacity: 0, shadeOpacity: 0 }),
    coat('fill', 'f', { paint: solid('#E2683C') }),
    coat('stroke', 's', { width: { unit: '%', value: 10 }, paint: solid('#3D0D16') }),
  ]
  const behind = [coat('glow', 'g', { reach: 30, measure: 'even', falloff: 'linear', paint: solid('#FFB347') })]
  const card = withBox(emptyCard(400, 300), { width: 200, height: 80, radius: 0 }, { face, behind })
  const id = card.pieces[0]!.id
  const section = engine.section(card, id, 0)
  const { distances } = section
  const alpha = (coatId: string, d: number) =>
    section.coats.find((entry) => entry.id === coatId)!.colours[at(distances, d)]![3]

  test('says what each coat lays at each distance', () => {
    expect(section.coats.map((entry) => entry.id)).toEqual(['b', 'f', 's', 'g'])
    expect(alpha('f', -10.5)).toBe(1)
    expect(alpha('f', 0.5)).toBe(0)
    // 10 % of the smaller side, 80 px.
    expect(alpha('s', 0.5)).toBe(1)
    expect(alpha('s', 7.5)).toBe(1)
    expect(alpha('s', 8.5)).toBe(0)
    // An even glow falls off in a straight line.
    expect(alpha('g', 14.5)).toBeCloseTo(1 - 14.5 / 30, 2)
    expect(alpha('g', 30.5)).toBe(0)
  })

  test('gives the height of a bevel and the depth of the piece', () => {
    const { height } = section.coats[0]!
    expect(height![at(distances, -5.5)]).toBeCloseTo(5.5, 2)
    expect(height![at(distances, -30.5)]).toBeCloseTo(20, 2)
    expect(height![at(distances, 5.5)]).toBeCloseTo(0, 5)
    expect(section.innerDepth).toBeCloseTo(40, 1)
    // The edge of a painting is that of its strokes, and not half its frame from the middle.
    const painting = withPiece(emptyCard(400, 300), 'painting', { id: 'painting' })
    expect(engine.innerDepth(painting, 'painting', 0)).toBe(0)
  })

  test('agrees with the picture: a column across the box has the colours of the section', () => {
    const picture = engine.render(card, 0, { bits: 16 })
    const values = new Uint16Array(picture.pixels.buffer)
    // The upper edge of the box lies at y = 150 − 40; the light has no part in these coats.
    for (const d of [-20.5, -3.5, 2.5, 6.5, 12.5, 25.5]) {
      const pixel = (Math.floor(110 - d) * 400 + 200) * 4
      const whole = section.whole[at(distances, d)]!
      for (let c = 0; c < 4; c++) expect(values[pixel + c]! / 65535).toBeCloseTo(whole[c]!, 2)
    }
  })

  test('faces the light, or the way that is asked for', () => {
    const lit = withBox(emptyCard(400, 300), { width: 200, height: 80 }, { face: [coat('bevel', 'b', { width: 20 })] })
    const red = (facing?: number) => {
      const { coats, distances: ds } = engine.section(lit, id, 0, facing)
      return coats[0]!.colours[at(ds, -10.5)]!
    }
    expect(red()[0]).toBeCloseTo(1, 2)
    expect(red(120 + 180)[0]).toBeCloseTo(0, 2)
  })

  test('of a piece that is not there is refused with the pieces that are', () => {
    const words = withType(emptyCard(100, 100), {}, { face: [coat('fill', 'f')] })
    expect(() => engine.section(words, 'boat', 0)).toThrow(/boat.*type-1/)
  })
})

test('a section shows the colours of its own moment, where a paint is keyed', () => {
  const stop = (colour: unknown) => ({ at: 0, colour })
  const keyed = {
    keys: [
      { frame: 0, value: '#FF0000', easing: 'linear' },
      { frame: 20, value: '#0000FF', easing: 'linear' },
    ],
  }
  const paint = { type: 'linear', stops: [stop(keyed), { ...stop(keyed), at: 100 }] }
  const bare = withBox(emptyCard(200, 200), { width: 100, height: 100 }, { face: [coat('fill', 'f', { paint })] })
  const card = expectCard(bare)
  const colourAt = (frame: number) => {
    const { coats, distances } = engine.section(card, card.pieces[0]!.id, frame)
    return coats[0]!.colours[at(distances, -10.5)]!.map((v) => Math.round(v * 255))
  }
  expect(colourAt(0)).toEqual([255, 0, 0, 255])
  // 127.5, dithered.
  expect([127, 128]).toContain(colourAt(10)[0])
  expect([127, 128]).toContain(colourAt(10)[2])
  expect(colourAt(20)).toEqual([0, 0, 255, 255])
})
