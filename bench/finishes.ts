import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { createCanvas, ImageData } from '@napi-rs/canvas'
import type { CanvasKit, Image, ImageFilter, Paint } from 'canvaskit-wasm'
import sharp from 'sharp'
import { createCard, createFinish } from '../core/card/create'
import type { Finish } from '../core/card/schema'
import { finishOf } from '../core/finishes/table'
import { Engine } from '../core/frame/engine'
import { finishBench } from '../core/frame/finish-bench'
import { washScale } from '../core/frame/finish-scale'
import { inPlace, workFinishes } from '../core/frame/finishing'
import type { LaidFinish } from '../core/frame/laid-finishes'
import type { Picture } from '../core/kernels/kernels'
import { valuesAt } from '../core/values/evaluated'
import { STANDSTILL } from '../core/values/moment'
import type { Row } from './measure'
import { beside, median } from './measure'
import { openCv } from './open-cv'

// Finishes of a whole frame, four floats a pixel, beside what comes nearest in general libraries: most of those count in bytes.

const [W, H] = [1920, 1080]
const SHARP = 'sharp (libvips, u8)'
const CANVAS = '@napi-rs/canvas (Skia, u8)'
const SKIA = 'canvaskit-wasm (Skia, u8)'
const OPEN_CV = 'opencv-js (u8)'

/** An opaque picture with soft and hard borders, as floats, and as bytes. */
function picture(): Uint8Array {
  return Uint8Array.from({ length: W * H * 4 }, (_, i) => {
    const [x, y] = [(i >> 2) % W, Math.floor((i >> 2) / W)]
    const soft = 128 + 90 * Math.sin(x / 90 + (i & 3)) * Math.cos(y / 70)
    const hard = ((x >> 6) + (y >> 6)) % 3 === 0 ? 60 : 0
    return (i & 3) === 3 ? 255 : Math.max(0, Math.min(255, soft + hard))
  })
}

/** Our work on a frame that stays where it is. */
function ours(bytes: Uint8Array) {
  const card = createCard('bench', { width: W, height: H, rate: { numerator: 25, denominator: 1 }, length: 50 })
  const engine = new Engine()
  const kernels = engine['kernels']
  const drawing = engine['drawing'](card, { ring: { length: 50 }, frame: 3 }, 1)
  const box = { x: 0, y: 0, w: W, h: H }
  const src: Picture = { ...kernels.layers(W, H, false), box }
  const dst: Picture = { ...kernels.layers(W, H, false), box }
  const values = Float32Array.from(bytes, (v) => v / 255)
  kernels.rgba(src).set(values)
  const elsewhere = { at: () => src, changes: () => box, piece: () => null }
  const laid = (kind: string, values: object, rank: number): LaidFinish => {
    const finish = { ...createFinish(kind, `finish-${rank}`), ...values } as Finish
    const definition = finishOf(kind)
    const now = valuesAt(definition.parameters, finish, STANDSTILL) as never
    return { id: finish.id, rank, definition, values: now, strength: 1, address: 'bench' }
  }
  /** Point operations work where the picture lies, as they do in a wash. */
  const work = (...finishes: [kind: string, values: object][]) => {
    const ready = finishes.map(([kind, values], i) => laid(kind, values, i))
    const into = inPlace(ready) ? src : dst
    const benchOf = (finish: LaidFinish) =>
      finishBench(drawing, washScale(drawing), finish, { frame: 3, hook: null }, elsewhere)
    return () => workFinishes(kernels, ready, benchOf, src, into)
  }
  const again = () => kernels.rgba(src).set(values)
  const noise = () => {
    const mark = kernels.mark()
    kernels.flowNoise(box, { a: 1 / 200, b: 0, c: 0, d: 1 / 200, e: 0, f: 0 }, 4, 0.1, 1)
    kernels.release(mark)
  }
  return { work, again, noise, copy: () => kernels.copy(src, dst) }
}

/** Skia compiled to WebAssembly, as ours is: a paint, or a filter, over the whole frame. */
async function skia(bytes: Uint8Array) {
  const require = createRequire(join(process.cwd(), 'package.json'))
  const path = require.resolve('canvaskit-wasm')
  const init = require(path) as (options: object) => Promise<CanvasKit>
  const kit = await init({ locateFile: (file: string) => join(dirname(path), file) })
  const surface = kit.MakeSurface(W, H)!
  const info = {
    ...{ width: W, height: H, colorType: kit.ColorType.RGBA_8888, alphaType: kit.AlphaType.Premul },
    colorSpace: kit.ColorSpace.SRGB,
  }
  const image = kit.MakeImage(info, bytes, W * 4)!
  const draw = (set: (paint: Paint) => void, of: Image | null = image) => {
    const paint = new kit.Paint()
    set(paint)
    return () => {
      if (of) surface.getCanvas().drawImage(of, 0, 0, paint)
      else surface.getCanvas().drawPaint(paint)
      surface.flush()
    }
  }
  const filter = (made: ImageFilter) => draw((paint) => paint.setImageFilter(made))
  return { kit, draw, filter, image }
}

export async function finishRows(): Promise<Row[]> {
  const bytes = picture()
  const { work, again, noise, copy } = ours(bytes)
  const rows: Row[] = []
  const alone = async (name: string, run: () => unknown, peer: string, theirs: () => unknown, before?: () => void) =>
    rows.push(await beside(`${name}, 1920×1080`, run, peer, theirs, before))
  const raw = { raw: { width: W, height: H, channels: 4 as const } }
  const source = Buffer.from(bytes)

  // Point operations, beside a copy of the picture: what memory alone takes.
  for (const [name, kind, values] of POINTS) await alone(name, work([kind, values]), 'the picture copied', copy, again)
  const one = await median(work(['tone', { middle: 1.2 }]), again)
  const five = await median(
    work(['tone', { middle: 1.2 }], ['grain', {}], ['exposure', {}], ['colour-steps', {}], ['tint', {}]),
    again,
  )
  rows.push({
    ...{ name: 'five point operations in a row, 1920×1080', ours_ms: five },
    ...{ peer: 'tone alone', peer_ms: one, ratio: one / five },
  })

  const { kit, draw, filter, image } = await skia(bytes)
  const mixed = [0.8, 0.2, 0, 0, 0, 0, 0.8, 0.2, 0, 0, 0.2, 0, 0.8, 0, 0, 0, 0, 0, 1, 0]
  const matrix = draw((paint) => paint.setColorFilter(kit.ColorFilter.MakeMatrix(mixed)))
  const exposed = work(['exposure', { stops: 0.33 }])
  await alone('exposure', exposed, `${SHARP}, linear`, () => sharp(source, raw).linear(1.26, 0).raw().toBuffer(), again)
  await alone('colours through a matrix', work(['colour', { space: 'svg', hue: 30 }]), `${SKIA}, matrix`, matrix, again)

  const blurred = work(['blur', { radius: 30 }])
  await alone('blur, radius 30', blurred, SHARP, () => sharp(source, raw).blur({ sigma: 15 }).raw().toBuffer())
  await alone('blur, radius 30', blurred, SKIA, filter(kit.ImageFilter.MakeBlur(15, 15, kit.TileMode.Decal, null)))
  const lower = createCanvas(W, H)
  const context = lower.getContext('2d')
  context.putImageData(new ImageData(new Uint8ClampedArray(bytes), W, H), 0, 0)
  const target = createCanvas(W, H).getContext('2d')
  const glow = () => {
    target.globalCompositeOperation = 'source-over'
    target.filter = 'none'
    target.drawImage(lower, 0, 0)
    target.globalCompositeOperation = 'lighter'
    target.filter = 'blur(50px)'
    target.drawImage(lower, 0, 0)
    target.getImageData(0, 0, 1, 1)
  }
  await alone('bloom, radius 100', work(['bloom', { radius: 100 }]), `${CANVAS}, blurred and added`, glow)

  const noisy = draw((paint) => paint.setShader(kit.Shader.MakeFractalNoise(0.005, 0.005, 4, 1, 0, 0)), null)
  await alone('flowing noise, 4 octaves', noise, `${SKIA}, fractal noise (four channels)`, noisy)

  const cv = await openCv(bytes, W, H)
  await alone('blur, radius 30', blurred, OPEN_CV, cv.blur(15))
  for (const angle of [0, 30, 70, 90]) {
    const smear = work(['blur', { form: 'along', length: 60, angle }])
    await alone(`smear of 60 px at ${angle}°`, smear, `${OPEN_CV}, filter2D`, cv.smear(60, angle))
  }
  const around = work(['blur', { form: 'around', arc: 10 }])
  await alone('blur around, 10°', around, `${OPEN_CV}, warpPolar, box and back`, cv.spin(10))
  const towards = work(['blur', { form: 'towards', zoom: 15 }])
  await alone('blur towards, 15 %', towards, `${OPEN_CV}, warpPolar (log), box and back`, cv.zoom())
  const map = { type: 'linear', angle: 30, stops: BLACK_TO_WHITE, ...PLAIN }
  const moved = work(['displace', { map, x: 20, y: 10 }])
  const displaced = kit.ImageFilter.MakeDisplacementMap(
    ...([kit.ColorChannel.Red, kit.ColorChannel.Green, 40] as const),
    kit.ImageFilter.MakeImage(image, { filter: kit.FilterMode.Linear, mipmap: kit.MipmapMode.None })!,
    null,
  )
  await alone('displace by a gradient, bilinear', moved, `${OPEN_CV}, remap`, cv.remap())
  await alone('displace by a gradient, bilinear', moved, `${SKIA}, displacement (nearest)`, filter(displaced))
  cv.end()
  return rows
}

const POINTS: [string, string, object][] = [
  ['grain', 'grain', {}],
  ['grain of 2 px', 'grain', { size: 2 }],
  ['exposure', 'exposure', {}],
  ['tone', 'tone', { middle: 1.2 }],
  ['tint', 'tint', {}],
  ['colour steps', 'colour-steps', {}],
  ['vignette', 'vignette', {}],
  ['colour in OKLCh', 'colour', { hue: 30 }],
]

const BLACK_TO_WHITE = [
  { at: 0, colour: '#000000' },
  { at: 100, colour: '#FFFFFF' },
]
const PLAIN = { scale: 100, shift: 0, x: 50, y: 50, form: 'circle', spread: 'pad', mix: 'srgb', hang: 'card' }
