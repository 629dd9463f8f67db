import { describe, expect, test } from '@jest/globals'
import type { TypePiece } from '#core/card/schema'
import type { FramePicture } from '#core/frame/engine'
import { bandingPicture } from '#core/judge/pictures/banding-picture'
import { contrastPicture } from '#core/judge/pictures/contrast-picture'
import { haloPicture } from '#core/judge/pictures/halo-picture'
import { FOUND } from '#core/judge/pictures/shown-picture'
import { CHECK_PICTURES } from '#core/judge/pictures/table'
import { PROOF_CHECKS } from '#core/judge/proof/checks'
import { lettersOf, strongestOf } from '#core/judge/proof/letters'
import { proofOf } from '#core/judge/proof/proof'
import { coat, demoCard, emptyCard, engineWithFonts, solid, withBox, withType } from '../support/engine'

const colourAt = (frame: number, value: string) => ({ frame, value })
const WIDTH = 64
const HEIGHT = 36

/** A picture from what each of its pixels is. */
function painted(pixel: (x: number, y: number) => readonly [number, number, number, number]): FramePicture {
  const pixels = new Uint8Array(WIDTH * HEIGHT * 4)
  for (let y = 0, at = 0; y < HEIGHT; y++) for (let x = 0; x < WIDTH; x++, at += 4) pixels.set(pixel(x, y), at)
  return { width: WIDTH, height: HEIGHT, bits: 8, pixels }
}
const isColour = ({ pixels, width }: FramePicture, colour: readonly number[], x: number, y: number) =>
  colour.every((value, c) => pixels[(y * width + x) * 4 + c] === value)
function placesOf(picture: FramePicture, colour: readonly number[]): [number, number][] {
  const places: [number, number][] = []
  for (let y = 0; y < picture.height; y++) {
    for (let x = 0; x < picture.width; x++) if (isColour(picture, colour, x, y)) places.push([x, y])
  }
  return places
}

/** A square with a rim of half alpha. */
const square = (rim: readonly [number, number, number, number]) =>
  painted((x, y) => {
    const away = Math.max(Math.abs(x - 32), Math.abs(y - 18))
    if (away <= 8) return [120, 120, 120, 255]
    return away === 9 ? rim : [0, 0, 0, 0]
  })

describe('the picture of', () => {
  test('a halo has every rim where it is: light ones red, dark ones blue, and nothing where there is none', () => {
    const rims = (picture: FramePicture, colour: readonly number[]) =>
      placesOf(picture, colour).filter(([x, y]) => Math.max(Math.abs(x - 32), Math.abs(y - 18)) === 9).length
    const light = haloPicture(square([250, 250, 250, 128]))
    const dark = haloPicture(square([10, 10, 10, 128]))
    // The four sides without their corners, whose rim no row or column from a solid pixel meets; marks reach one further.
    expect(rims(light, FOUND.bad)).toBeGreaterThanOrEqual(4 * 17)
    expect(rims(dark, FOUND.dark)).toBeGreaterThanOrEqual(4 * 17)
    expect(placesOf(light, FOUND.dark)).toEqual([])
    const plain = haloPicture(square([120, 120, 120, 128]))
    expect([...placesOf(plain, FOUND.bad), ...placesOf(plain, FOUND.dark)]).toEqual([])
  })

  test('bands has stripes as wide as the levels of a ramp, and none where dither breaks them', () => {
    // Four steps of 8 bits over 64 px.
    const value = (x: number) => (100 + (x / WIDTH) * 4) / 255
    const numbers = new Float32Array(WIDTH * HEIGHT * 4)
    for (let i = 0; i < WIDTH * HEIGHT; i++)
      numbers.set([value(i % WIDTH), value(i % WIDTH), value(i % WIDTH), 1], i * 4)
    const exact: FramePicture = { width: WIDTH, height: HEIGHT, bits: 'float', pixels: new Uint8Array(numbers.buffer) }
    const dithered = painted((x, y) => {
      const level = Math.floor(value(x) * 255 + ((x * 7 + y * 13) % 16) / 16)
      return [level, level, level, 255]
    })
    const { height, pixels } = bandingPicture(dithered, exact)
    expect(height).toBe(2 * HEIGHT)
    const changes = (y: number) =>
      Array.from(
        { length: WIDTH - 1 },
        (_, x) => pixels[(y * WIDTH + x) * 4] !== pixels[(y * WIDTH + x + 1) * 4],
      ).filter(Boolean).length
    expect(changes(0)).toBe(4)
    expect(changes(HEIGHT)).toBeGreaterThan(12)
  })

  test('contrast tells edges that are read at any size from those that are when large, or not at all', () => {
    const bar = (x: number) => x >= 20 && x < 44
    const letters = (grey: number) => painted((x) => (bar(x) ? [grey, grey, grey, 255] : [0, 0, 0, 0]))
    const card = (grey: number, around: number) =>
      painted((x) => (bar(x) ? [grey, grey, grey, 255] : [around, around, around, 255]))
    // Greys on white of 4.54, 3.1 and 2.0 : 1 (WCAG 2.2).
    for (const [grey, colour] of [
      [0x76, FOUND.good],
      [0x92, FOUND.look],
      [0xb5, FOUND.bad],
    ] as const) {
      const shown = contrastPicture([letters(grey)], card(grey, 255), { label: 'mid grey', over: 128 })
      expect([...shown.pixels.subarray((18 * WIDTH + 20) * 4, (18 * WIDTH + 20) * 4 + 3)]).toEqual(colour)
      expect(isColour(shown, colour, 32, 18)).toBe(false)
    }
  })
})

test('the picture of contrast is of the moment, and over the ground, at which it is the least', async () => {
  const engine = engineWithFonts()
  const withEngine = <T>(work: (one: typeof engine) => T) => Promise.resolve(work(engine))
  // White words whose bar is pale in the middle of the loop alone.
  const paint = {
    ...solid('#10222A'),
    colour: { keys: [colourAt(0, '#10222A'), colourAt(20, '#D9DEE0'), colourAt(40, '#10222A')] },
  }
  const bar = withBox(emptyCard(240, 90, 50), { width: 240, height: 90 }, { face: [coat('fill', 'bar', { paint })] })
  const words = { font: 'barlow-condensed-bold', size: 40, x: 120, y: 45, wording: 'Tam Voss' } as const
  const card = withType(bar, words, { face: [coat('fill', 'ink', { paint: solid('#FFFFFF') })] })
  const { looked } = await proofOf(card, withEngine)
  const { frame } = await CHECK_PICTURES.contrast!(looked, withEngine)
  expect(looked.moments.length).toBeGreaterThan(1)
  expect(Math.abs(frame - 20)).toBeLessThan(6)
  // White words alone are least over white.
  const alone = withType(emptyCard(240, 90, 10), words, { face: [coat('fill', 'ink', { paint: solid('#FFFFFF') })] })
  const shown = await CHECK_PICTURES.contrast!((await proofOf(alone, withEngine)).looked, withEngine)
  expect(shown.caption).toContain('over white')
})

test('letters alone are their fills: no stroke, no shadow, no bar', async () => {
  const engine = engineWithFonts()
  const words = { font: 'barlow-condensed-bold', size: 40, x: 120, y: 45, wording: 'Tam' } as const
  const ink = coat('fill', 'ink', { paint: solid('#FFFFFF') })
  const bar = withBox(emptyCard(240, 90, 10), { width: 200, height: 60 }, { face: [coat('fill', 'bar')] })
  const dressed = withType(bar, words, {
    face: [coat('stroke', 'rim', { width: 6, side: 'outside' }), ink],
    behind: [coat('shadow', 'shade')],
  })
  const letters = await lettersOf(dressed, dressed.pieces[0] as TypePiece, 0, async (work) => work(engine))
  const plain = engine.render(withType(emptyCard(240, 90, 10), words, { face: [ink] }), 0)
  expect(Buffer.compare(letters.pixels, plain.pixels)).toBe(0)
  expect(strongestOf(letters)).toBe(255)
})

test('every picture is of a check, and is drawn of a demo card', async () => {
  const engine = engineWithFonts()
  const card = { ...demoCard('02-lower-third') }
  const { looked } = await proofOf(card, (work) => Promise.resolve(work(engine)))
  for (const [check, draw] of Object.entries(CHECK_PICTURES)) {
    expect(PROOF_CHECKS.map(({ id }) => id)).toContain(check)
    const { picture, frame } = await draw(looked, (work) => Promise.resolve(work(engine)))
    expect(picture.width).toBe(card.frame.width)
    expect(looked.moments.map((moment) => moment.frame)).toContain(frame)
    expect(new Set(picture.pixels).size).toBeGreaterThan(2)
  }
})
