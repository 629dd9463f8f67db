import type { Page } from '@playwright/test'
import { createPiece } from '../../core/card/create'
import type { Card, Finish } from '../../core/card/schema'
import { Engine } from '../../core/frame/engine'
import { Kernels } from '../../core/kernels/kernels'
import { coat, emptyCard, finish, solid, withWash } from '../support/engine'
import { expect, test } from './bench-page'

// Chromium's SVG filters (Filter Effects 1) as an independent implementation of finishes.

const SIZE = 128
const engine = new Engine()

/** Colours all over the gamut, with soft and hard borders. */
const ground: Card = {
  ...emptyCard(SIZE, SIZE),
  background: {
    ...{ type: 'linear', angle: 35, scale: 100, shift: 0, spread: 'pad', mix: 'srgb', hang: 'card' },
    stops: [
      { at: 0, colour: '#101820' },
      { at: 35, colour: '#1E6B6A' },
      { at: 70, colour: '#F6A94C' },
      { at: 100, colour: '#FFF4E0' },
    ],
  } as Card['background'],
}
const scene: Card = {
  ...ground,
  pieces: (['#B8324A', '#3050C8', '#F4E430'] as const).map((colour, i) => ({
    ...createPiece('ellipse', ground),
    ...{ id: `disc-${i}`, x: 34 + i * 30, y: 40 + i * 24, width: 36, height: 36 },
    coats: { face: [coat('fill', `fill-${i}`, { paint: solid(colour) })], behind: [] },
  })) as Card['pieces'],
}

const bytesOf = (card: Card) => [...engine.render(card, 0).pixels]
const treated = (...finishes: Finish[]) => bytesOf(withWash(scene, finishes))

/** A picture through SVG filters, each alone; another one is there as `map`. */
async function filtered(page: Page, picture: readonly number[], filters: readonly string[], map?: readonly number[]) {
  await page.goto('about:blank')
  return page.evaluate(
    async ({ picture, map, filters, size }) => {
      const urlOf = (pixels: readonly number[]) => {
        const canvas = document.createElement('canvas')
        canvas.width = canvas.height = size
        canvas.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(pixels), size, size), 0, 0)
        return canvas.toDataURL()
      }
      const box = `x="0" y="0" width="${size}" height="${size}"`
      const beside = map ? `<feImage href="${urlOf(map)}" ${box} result="map"/>` : ''
      const through = async (filter: string) => {
        const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}"><filter id="f" filterUnits="userSpaceOnUse" ${box} color-interpolation-filters="sRGB">${beside}${filter}</filter><image filter="url(#f)" href="${urlOf(picture)}" width="${size}" height="${size}"/></svg>`
        const image = new Image()
        image.src = `data:image/svg+xml;base64,${btoa(svg)}`
        await image.decode()
        const context = new OffscreenCanvas(size, size).getContext('2d')!
        context.drawImage(image, 0, 0)
        return [...context.getImageData(0, 0, size, size).data]
      }
      const pictures: number[][] = []
      for (const filter of filters) pictures.push(await through(filter))
      return pictures
    },
    { picture, map, filters, size: SIZE },
  )
}

/** The largest and the mean difference, `margin` pixels from the borders, in 255ths. */
function difference(ours: readonly number[], theirs: readonly number[], margin = 0) {
  let [most, sum, count] = [0, 0, 0]
  for (let y = margin; y < SIZE - margin; y++)
    for (let x = margin; x < SIZE - margin; x++)
      for (let c = 0; c < 4; c++) {
        const by = Math.abs(ours[(y * SIZE + x) * 4 + c]! - theirs[(y * SIZE + x) * 4 + c]!)
        most = Math.max(most, by)
        sum += by
        count++
      }
  return { most, mean: sum / count }
}

const component = (attributes: string) =>
  `<feComponentTransfer>${['R', 'G', 'B'].map((c) => `<feFunc${c} ${attributes}/>`).join('')}</feComponentTransfer>`

/** A filter, the finish that stands for it, and the most by which a byte that is one off goes on. */
const POINTS: [filter: string, ours: Finish, gain: number][] = [
  ['<feColorMatrix type="hueRotate" values="70"/>', finish('colour', { space: 'svg', hue: 70 }), 2],
  ['<feColorMatrix type="saturate" values="0.35"/>', finish('colour', { space: 'svg', saturation: 35 }), 1],
  ['<feColorMatrix type="saturate" values="2.2"/>', finish('colour', { space: 'svg', saturation: 220 }), 2.9],
  [component('type="gamma" exponent="0.4"'), finish('tone', { middle: 2.5 }), 2.1],
  [component('type="linear" slope="0.5" intercept="0.2"'), finish('tone', { outBlack: 20, outWhite: 70 }), 0.5],
  [component('type="table" tableValues="0 0 0.5 1 1"'), finish('tone', { black: 25, white: 75 }), 2],
  [component('type="table" tableValues="1 0"'), finish('tint', { recolour: false, invert: true }), 1],
]

test('colour, tone and tint are the filters’ matrices and functions, as near as bytes can tell', async ({ page }) => {
  const plain = bytesOf(scene)
  const theirs = await filtered(
    page,
    plain,
    POINTS.map(([filter]) => filter),
  )
  POINTS.forEach(([filter, ours, gain], i) => {
    // It changes the picture, and both alike.
    expect(difference(plain, theirs[i]!).mean, filter).toBeGreaterThan(5)
    expect(difference(treated(ours), theirs[i]!).most, filter).toBeLessThanOrEqual(1 + gain)
  })
})

test('colour steps are the filter’s discrete function, but where rounding parts two steps', async ({ page }) => {
  const plain = bytesOf(scene)
  const [theirs] = await filtered(page, plain, [component('type="discrete" tableValues="0 0.25 0.5 0.75 1"')])
  const ours = treated(finish('colour-steps', { levels: 5 }))
  const other = ours.filter((v, i) => Math.abs(v - theirs![i]!) > 1)
  expect(other.length / ours.length).toBeLessThan(0.01)
})

test('a soft blur is feGaussianBlur, as near as three boxes come to it', async ({ page }) => {
  const [theirs] = await filtered(page, bytesOf(scene), ['<feGaussianBlur stdDeviation="5"/>'])
  const { most, mean } = difference(treated(finish('blur', { radius: 10 })), theirs!, 24)
  // Chromium's own blurs are 2–6 of 255 away from the Gaussian.
  expect(most).toBeLessThanOrEqual(6)
  expect(mean).toBeLessThan(1)
})

test('displacement is feDisplacementMap, which reads the nearest pixel', async ({ page }) => {
  const smooth = bytesOf(ground)
  // Waves in red and green around mid-grey, as bytes.
  const map = Array.from({ length: SIZE * SIZE * 4 }, (_, i) => {
    const [x, y] = [(i >> 2) % SIZE, Math.floor((i >> 2) / SIZE)]
    const wave = (v: number) => Math.round(128 + 100 * Math.sin(v / 11))
    return [wave(x + y / 2), wave(y), 128, 255][i & 3]!
  })
  const filter =
    '<feDisplacementMap in="SourceGraphic" in2="map" scale="24" xChannelSelector="R" yChannelSelector="G"/>'
  const [theirs] = (await filtered(page, smooth, [filter], map)) as [number[]]
  const kernels = new Kernels()
  const box = { x: 0, y: 0, w: SIZE, h: SIZE }
  const picture = (bytes: readonly number[]) => {
    const layers = { ...kernels.layers(SIZE, SIZE), box }
    kernels.rgba(layers).set(bytes.map((v) => v / 255))
    return layers
  }
  const [src, by, dst] = [picture(smooth), picture(map), picture(smooth)]
  const right = kernels.mapPlane(by, 'red', 0.5, 24)
  const down = kernels.mapPlane(by, 'green', 0.5, 24)
  kernels.displaceInto(src, dst, right, down, { edges: 'clear', left: 0, top: 0, right: SIZE, bottom: SIZE }, false)
  const ours = Array.from(kernels.rgba(dst), (v) => v * 255)
  expect(difference(smooth, theirs, 16).mean).toBeGreaterThan(5)
  const { most, mean } = difference(ours, theirs, 16)
  // Half a pixel of the gradient.
  expect(most).toBeLessThanOrEqual(4)
  expect(mean).toBeLessThan(1)
})

test('octaves of flowing noise weigh what those of feTurbulence do', async ({ page }) => {
  const clear = new Array<number>(SIZE * SIZE * 4).fill(0)
  const varianceOf = (values: readonly number[]) => {
    const mean = values.reduce((sum, v) => sum + v, 0) / values.length
    return values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / values.length
  }
  // Alpha is whole, so that colours are straight noise.
  const whole = '<feColorMatrix values="1 0 0 0 0 0 1 0 0 0 0 0 1 0 0 0 0 0 0 1"/>'
  const noise = (octaves: number) => (seed: number) =>
    `<feTurbulence type="fractalNoise" baseFrequency="0.06" numOctaves="${octaves}" seed="${seed}"/>${whole}`
  const theirs = async (octaves: number) => {
    const pictures = await filtered(page, clear, [0, 1, 2, 3, 4, 5].map(noise(octaves)))
    const channels = pictures.flatMap((pixels) => [0, 1, 2].map((c) => pixels.filter((_, i) => (i & 3) === c)))
    return channels.reduce((sum, channel) => sum + varianceOf(channel), 0)
  }
  const kernels = new Kernels()
  const ours = (octaves: number) => {
    const map = { a: 0.06, b: 0, c: 0, d: 0.06, e: 0, f: 0 }
    // Over the sum of the weights, so that it keeps within −1 to 1.
    const weights = 2 - 2 ** (1 - octaves)
    let sum = 0
    for (let seed = 0; seed < 18; seed++) {
      const mark = kernels.mark()
      const plane = kernels.flowNoise({ x: 0, y: 0, w: SIZE, h: SIZE }, map, octaves, 0, seed)
      sum += varianceOf(Array.from(kernels.floats(plane))) * weights ** 2
      kernels.release(mark)
    }
    return sum
  }
  const [one, three] = [await theirs(1), await theirs(3)]
  // Σ 4⁻ⁱ in both; what is left is chance.
  expect(Math.abs(ours(3) / ours(1) - three / one)).toBeLessThan(0.08)
})
