import { readFileSync } from 'node:fs'
import { createCanvas, ImageData } from '@napi-rs/canvas'
import sharp from 'sharp'
import { Kernels } from '../core/kernels/kernels'
import { flatten } from '../core/outline/contour'
import { outlineOf, placed } from '../core/outline/outline'
import { unite } from '../core/outline/unite'
import type { BlendMode } from '../core/kernels/blend-modes'
import { Font } from '../core/type/font'
import { glyphPath } from '../core/type/glyph-path'
import { setType } from '../core/type/layout'
import type { Row } from './measure'
import { beside } from './measure'

const [W, H] = [1920, 1080]
const SHARP = 'sharp (libvips, u8)'
const SKIA = '@napi-rs/canvas (Skia, u8)'

sharp.concurrency(1)
sharp.cache(false)

/** A twelve-letter word across the frame. */
function wordSegments(): Float64Array {
  const font = new Font(new Uint8Array(readFileSync('public/fonts/abril-fatface.ttf')), 'bench')
  const letters = setType(font, { wording: 'LanternRegat', tracking: 0, leading: 100, align: 'centre' })
  const rings = letters.flatMap(({ id, x, y }) =>
    unite(flatten(glyphPath(font, id), 0.02 / 256), 65536).map(({ points, smooth }) => ({
      points: points.map((v, i) => v + (i % 2 ? y : x)),
      smooth,
    })),
  )
  const outline = outlineOf('bench', rings, 1)
  return placed(outline, { scale: 250, rotation: 0, x: W / 2, y: H / 2 }).segments
}

/** One-channel coverage of the word as our plane, as bytes, and as an RGBA canvas. */
function wordPlanes() {
  const kernels = new Kernels()
  const segments = kernels.segments(wordSegments(), 0, 0)
  const plane = kernels.coverage(segments, W, H)
  const bytes = Buffer.from(Uint8Array.from(kernels.floats(plane), (v) => Math.round(v * 255)))
  const canvas = createCanvas(W, H)
  const pixels = new Uint8ClampedArray(W * H * 4)
  for (let i = 0; i < W * H; i++) pixels[i * 4 + 3] = bytes[i]!
  canvas.getContext('2d').putImageData(new ImageData(pixels, W, H), 0, 0)
  return { kernels, segments, plane, bytes, canvas }
}

export async function blurRows(): Promise<Row[]> {
  const { kernels, plane, bytes, canvas } = wordPlanes()
  const rows: Row[] = []
  const target = createCanvas(W, H)
  for (const sigma of [5, 20, 80]) {
    const ours = () => {
      const mark = kernels.mark()
      kernels.blurred(plane, sigma)
      kernels.release(mark)
    }
    const raw = { raw: { width: W, height: H, channels: 1 as const } }
    const theirs = () => sharp(bytes, raw).toColourspace('b-w').blur({ sigma }).raw().toBuffer()
    rows.push(await beside(`blur, sigma ${sigma}, one channel, 1920×1080`, ours, SHARP, theirs))
    const context = target.getContext('2d')
    const skia = () => {
      context.clearRect(0, 0, W, H)
      context.filter = `blur(${sigma}px)`
      context.drawImage(canvas, 0, 0)
      // Drawing is put off until the pixels are asked for.
      context.getImageData(0, 0, 1, 1)
    }
    rows.push(await beside(`blur, sigma ${sigma}, one channel, 1920×1080`, ours, SKIA, skia))
  }
  return rows
}

/**
 * Neither library has a distance transform. What they are asked for instead is what they would be used for in
 * its place: growing a shape by a number of pixels.
 */
export async function distanceRows(): Promise<Row[]> {
  const { kernels, bytes } = wordPlanes()
  const rows: Row[] = []
  for (const reach of [8, 24]) {
    // As the engine does it: in the box that the grown word can touch.
    const coordinates = wordSegments()
    const ys = coordinates.filter((_, i) => i % 2 === 1)
    const top = Math.floor(Math.min(...ys) - reach - 2)
    const h = Math.ceil(Math.max(...ys) + reach + 2) - top
    const ours = () => {
      const mark = kernels.mark()
      const segments = kernels.segments(coordinates, 0, -top)
      kernels.grown(kernels.distanceField(segments, W, h, reach + 2), segments, reach)
      kernels.release(mark)
    }
    const raw = { raw: { width: W, height: H, channels: 1 as const } }
    const theirs = () => sharp(bytes, raw).toColourspace('b-w').dilate(reach).raw().toBuffer()
    rows.push(
      await beside(`shape grown by ${reach} px, from exact distance`, ours, `${SHARP}, dilate (square)`, theirs),
    )
    const target = createCanvas(W, H)
    const context = target.getContext('2d')
    const skia = () => {
      context.clearRect(0, 0, W, H)
      context.lineWidth = reach * 2
      context.lineJoin = 'round'
      context.beginPath()
      for (let i = 0; i < coordinates.length; i += 4) {
        const starts = i === 0 || coordinates[i] !== coordinates[i - 2] || coordinates[i + 1] !== coordinates[i - 1]
        if (starts) context.moveTo(coordinates[i]!, coordinates[i + 1]!)
        context.lineTo(coordinates[i + 2]!, coordinates[i + 3]!)
      }
      context.fill()
      context.stroke()
      context.getImageData(0, 0, 1, 1)
    }
    rows.push(await beside(`shape grown by ${reach} px, from exact distance`, ours, `${SKIA}, fill and stroke`, skia))
  }
  return rows
}

const MODES: {
  mode: BlendMode
  sharp: 'over' | 'multiply' | 'overlay' | 'soft-light'
  canvas: 'source-over' | 'multiply' | 'overlay' | 'soft-light'
}[] = [
  { mode: 'normal', sharp: 'over', canvas: 'source-over' },
  { mode: 'multiply', sharp: 'multiply', canvas: 'multiply' },
  { mode: 'overlay', sharp: 'overlay', canvas: 'overlay' },
  { mode: 'soft-light', sharp: 'soft-light', canvas: 'soft-light' },
]

export async function blendRows(): Promise<Row[]> {
  const kernels = new Kernels()
  const noise = (seed: number) =>
    Uint8Array.from({ length: W * H * 4 }, (_, i) => ((i * 2654435761 + seed) >>> 24) | (i % 4 === 3 ? 128 : 0))
  const [source, backdrop] = [noise(1), noise(2)]
  const s = kernels.layers(W, H, false)
  const d = kernels.layers(W, H, false)
  const premultiplied = (bytes: Uint8Array) =>
    Float32Array.from(bytes, (v, i) => (i % 4 === 3 ? v / 255 : (v / 255) * (bytes[i | 3]! / 255)))
  kernels.rgba(s).set(premultiplied(source))
  const clean = premultiplied(backdrop)
  // Blended over and over, soft-light would run into denormal numbers that no picture holds.
  const before = () => kernels.rgba(d).set(clean)
  const raw = { width: W, height: H, channels: 4 as const }
  const upper = createCanvas(W, H)
  upper.getContext('2d').putImageData(new ImageData(new Uint8ClampedArray(source.buffer as ArrayBuffer), W, H), 0, 0)
  const lower = createCanvas(W, H)
  const context = lower.getContext('2d')
  context.putImageData(new ImageData(new Uint8ClampedArray(backdrop.buffer as ArrayBuffer), W, H), 0, 0)
  const rows: Row[] = []
  for (const { mode, sharp: blend, canvas } of MODES) {
    const ours = () => kernels.blend(mode, s, d, 1)
    const theirs = () =>
      sharp(backdrop, { raw })
        .composite([{ input: Buffer.from(source), raw, blend }])
        .raw()
        .toBuffer()
    rows.push(await beside(`blend ${mode}, RGBA f32, 1920×1080`, ours, SHARP, theirs, before))
    const skia = () => {
      context.globalCompositeOperation = canvas
      context.drawImage(upper, 0, 0)
      context.getImageData(0, 0, 1, 1)
    }
    rows.push(await beside(`blend ${mode}, RGBA f32, 1920×1080`, ours, SKIA, skia, before))
  }
  return rows
}
