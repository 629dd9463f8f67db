import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { beforeAll, describe, expect, test } from '@jest/globals'
import type { CanvasKit } from 'canvaskit-wasm'
import { Kernels } from '#core/kernels/kernels'
import type { BlendMode } from '#core/kernels/blend-modes'
import { BLEND_MODES } from '#core/kernels/blend-modes'

type Rgb = [number, number, number]

// W3C Compositing and Blending Level 1, section 9, written as the text has it: colours not premultiplied.
const each = (f: (cb: number, cs: number) => number) => (b: Rgb, s: Rgb) => b.map((cb, i) => f(cb, s[i]!)) as Rgb
const multiply = (cb: number, cs: number) => cb * cs
const screen = (cb: number, cs: number) => cb + cs - cb * cs
const hardLight = (cb: number, cs: number) => (cs <= 0.5 ? multiply(cb, 2 * cs) : screen(cb, 2 * cs - 1))
const dodge = (cb: number, cs: number) => (cb === 0 ? 0 : cs === 1 ? 1 : Math.min(1, cb / (1 - cs)))
const burn = (cb: number, cs: number) => (cb === 1 ? 1 : cs === 0 ? 0 : 1 - Math.min(1, (1 - cb) / cs))
const softLight = (cb: number, cs: number) => {
  const d = cb <= 0.25 ? ((16 * cb - 12) * cb + 4) * cb : Math.sqrt(cb)
  return cs <= 0.5 ? cb - (1 - 2 * cs) * cb * (1 - cb) : cb + (2 * cs - 1) * (d - cb)
}
const lum = ([r, g, b]: Rgb) => 0.3 * r + 0.59 * g + 0.11 * b
const sat = (c: Rgb) => Math.max(...c) - Math.min(...c)
function clip(c: Rgb): Rgb {
  const [l, n, x] = [lum(c), Math.min(...c), Math.max(...c)]
  let out = c
  if (n < 0) out = out.map((v) => l + ((v - l) * l) / (l - n)) as Rgb
  if (x > 1) out = out.map((v) => l + ((v - l) * (1 - l)) / (x - l)) as Rgb
  return out
}
const setLum = (c: Rgb, l: number) => clip(c.map((v) => v + l - lum(c)) as Rgb)
function setSat(c: Rgb, s: number): Rgb {
  const [low, high] = [Math.min(...c), Math.max(...c)]
  return c.map((v) => (high > low ? ((v - low) * s) / (high - low) : 0)) as Rgb
}

const FORMULAS: Record<Exclude<BlendMode, 'plus-lighter'>, (b: Rgb, s: Rgb) => Rgb> = {
  normal: (_, s) => s,
  multiply: each(multiply),
  screen: each(screen),
  overlay: each((cb, cs) => hardLight(cs, cb)),
  darken: each(Math.min),
  lighten: each(Math.max),
  'color-dodge': each(dodge),
  'color-burn': each(burn),
  'hard-light': each(hardLight),
  'soft-light': each(softLight),
  difference: each((cb, cs) => Math.abs(cb - cs)),
  exclusion: each((cb, cs) => cb + cs - 2 * cb * cs),
  hue: (b, s) => setLum(setSat(s, sat(b)), lum(b)),
  saturation: (b, s) => setLum(setSat(b, sat(s)), lum(b)),
  color: (b, s) => setLum(s, lum(b)),
  luminosity: (b, s) => setLum(b, lum(s)),
}

const kernels = new Kernels()
const COUNT = 1024

/** Premultiplied pixels, with clear, solid, black and white ones among them. */
function pixels(seed: number): Float32Array {
  let state = seed
  const random = () => (state = (state * 1103515245 + 12345) % 2147483648) / 2147483648
  const corner = (v: number) => (v < 0.12 ? 0 : v > 0.88 ? 1 : v)
  return Float32Array.from({ length: COUNT }).reduce<Float32Array>(
    (out, _, i) => {
      const alpha = corner(random())
      for (let c = 0; c < 3; c++) out[i * 4 + c] = corner(random()) * alpha
      out[i * 4 + 3] = alpha
      return out
    },
    new Float32Array(COUNT * 4),
  )
}

function blended(mode: BlendMode, source: Float32Array, backdrop: Float32Array): Float32Array {
  const mark = kernels.mark()
  const s = kernels.layers(COUNT, 1)
  const d = kernels.layers(COUNT, 1)
  kernels.rgba(s).set(source)
  kernels.rgba(d).set(backdrop)
  kernels.blend(mode, s, d, 1)
  const out = kernels.rgba(d).slice()
  kernels.release(mark)
  return out
}

const source = pixels(11)
const backdrop = pixels(29)

describe.each(Object.keys(FORMULAS) as (keyof typeof FORMULAS)[])('%s', (mode) => {
  test('is the formula of the W3C text, over clear, half and solid backdrops', () => {
    const out = blended(mode, source, backdrop)
    for (let i = 0; i < COUNT; i++) {
      const [as, ab] = [source[i * 4 + 3]!, backdrop[i * 4 + 3]!]
      const straight = (p: Float32Array, a: number) => [0, 1, 2].map((c) => (a > 0 ? p[i * 4 + c]! / a : 0)) as Rgb
      const [cs, cb] = [straight(source, as), straight(backdrop, ab)]
      const mixed = FORMULAS[mode](cb, cs)
      expect(Math.abs(out[i * 4 + 3]! - (as + ab * (1 - as)))).toBeLessThan(1e-6)
      for (let c = 0; c < 3; c++) {
        // §5.8.1 and §10: co = cs·αs·(1 − αb) + αs·αb·B(cb, cs) + (1 − αs)·αb·cb
        const co = cs[c]! * as * (1 - ab) + as * ab * mixed[c]! + (1 - as) * ab * cb[c]!
        expect(Math.abs(out[i * 4 + c]! - co)).toBeLessThan(2e-5)
      }
    }
  })
})

describe('against a second implementation in float (Skia, canvaskit-wasm)', () => {
  let kit: CanvasKit

  beforeAll(async () => {
    const require = createRequire(join(process.cwd(), 'package.json'))
    const path = require.resolve('canvaskit-wasm')
    const init = require(path) as (options: object) => Promise<CanvasKit>
    kit = await init({ locateFile: (file: string) => join(dirname(path), file) })
  })

  const SKIA: Record<BlendMode, string> = {
    ...{
      normal: 'SrcOver',
      multiply: 'Multiply',
      screen: 'Screen',
      overlay: 'Overlay',
      darken: 'Darken',
      lighten: 'Lighten',
    },
    ...{ 'color-dodge': 'ColorDodge', 'color-burn': 'ColorBurn', 'hard-light': 'HardLight', 'soft-light': 'SoftLight' },
    ...{ difference: 'Difference', exclusion: 'Exclusion', hue: 'Hue', saturation: 'Saturation', color: 'Color' },
    ...{ luminosity: 'Luminosity', 'plus-lighter': 'Plus' },
  }

  test.each(BLEND_MODES.map(({ value }) => value))('%s', (mode) => {
    const info = {
      width: COUNT,
      height: 1,
      colorType: kit.ColorType.RGBA_F32,
      alphaType: kit.AlphaType.Premul,
      colorSpace: kit.ColorSpace.SRGB,
    }
    const memory = kit.Malloc(Float32Array, COUNT * 4)
    memory.toTypedArray().set(backdrop)
    const surface = kit.MakeRasterDirectSurface(info, memory, COUNT * 16)!
    const bytes = new Uint8Array(source.buffer.slice(0))
    const image = kit.MakeImage(info, bytes, COUNT * 16)!
    const paint = new kit.Paint()
    paint.setBlendMode((kit.BlendMode as unknown as Record<string, never>)[SKIA[mode]]!)
    surface.getCanvas().drawImage(image, 0, 0, paint)
    surface.flush()
    const other = Float32Array.from(memory.toTypedArray() as Float32Array)
    const out = blended(mode, source, backdrop)
    let worst = 0
    for (let i = 0; i < out.length; i++) worst = Math.max(worst, Math.abs(out[i]! - other[i]!))
    expect(worst).toBeLessThan(1e-4)
    surface.delete()
  })
})

test('plus-lighter adds and stops at white (Compositing Level 2)', () => {
  const out = blended('plus-lighter', source, backdrop)
  for (let i = 0; i < out.length; i++) expect(out[i]).toBeCloseTo(Math.min(1, source[i]! + backdrop[i]!), 6)
})
