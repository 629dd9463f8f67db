import type { Affine, Kernels, Layers } from '../kernels/kernels'
import type { Picture } from '../paint/pictures'
import { toDisplay, toLinear } from '../values/oklab'
import type { GridBox } from './grid-box'

// Decoded pictures as the engine lays them: premultiplied, in the light in which it blends, and halved until they do not shimmer.

/** How the values of a file stand for light and cover. */
export interface Reading {
  /** They are linear light. */
  inLinear: boolean
  /** On what its colours were laid. */
  alpha: 'straight' | 'black' | 'white'
}

export const STRAIGHT: Reading = { inLinear: false, alpha: 'straight' }

/** Premultiplied RGBA of a picture, or of its halves. */
export interface ReadyPicture {
  values: Float32Array<ArrayBuffer>
  w: number
  h: number
}

/** What was made of pictures before: the same for every frame. */
const ready = new WeakMap<Picture, Map<string, ReadyPicture>>()

/**
 * A picture premultiplied for blending in `linear` light or not, halved as often as is said. What is made is kept as long as the
 * picture lives.
 */
export function readyPicture(picture: Picture, reading: Reading, linear: boolean, halvings: number): ReadyPicture {
  const kept = ready.get(picture) ?? new Map<string, ReadyPicture>()
  ready.set(picture, kept)
  const key = `${linear} ${reading.inLinear} ${reading.alpha} ${halvings}`
  const found = kept.get(key)
  if (found) return found
  const made =
    halvings === 0
      ? { values: premultiplied(picture, reading, linear), w: picture.width, h: picture.height }
      : halved(readyPicture(picture, reading, linear, halvings - 1))
  kept.set(key, made)
  return made
}

/** As `readyPicture`, of a picture that is seen for a moment: nothing is kept. */
export function readyOnce(picture: Picture, reading: Reading, linear: boolean, halvings: number): ReadyPicture {
  let made: ReadyPicture = { values: premultiplied(picture, reading, linear), w: picture.width, h: picture.height }
  for (let i = 0; i < halvings; i++) made = halved(made)
  return made
}

/** How often a picture is halved where `map` leads from render pixels to its own: until two of its pixels are one. */
export function halvingsFor({ width, height }: Picture, { a, c }: Affine): number {
  const shrink = Math.sqrt(a * a + c * c)
  let halvings = 0
  while (shrink / 2 ** halvings > 2 && Math.min(width, height) >> halvings > 1) halvings++
  return halvings
}

/**
 * Samples a ready picture through a map from render pixels to those of the picture that it was made from, centred. Beyond its border it
 * is repeated, or its last pixels go on.
 */
export function readySampler(
  kernels: Kernels,
  { values, w, h }: ReadyPicture,
  { width, height }: Pick<Picture, 'width' | 'height'>,
  map: Affine,
  repeated: boolean,
): (window: GridBox) => Layers {
  const layers: Layers = { at: kernels.numbersOnce(values), w, h, stride: w * 16 }
  const [kx, ky] = [w / width, h / height]
  const scaled = {
    ...{ a: map.a * kx, b: map.b * kx, c: map.c * ky, d: map.d * ky },
    e: (map.e + width / 2) * kx,
    f: (map.f + height / 2) * ky,
  }
  return (window: GridBox) => kernels.samplePicture(window, layers, scaled, repeated)
}

/** Steps of the table for colours that are no steps of the file: finer than any file. */
const FINE = 65535

function premultiplied({ pixels }: Picture, { inLinear, alpha }: Reading, linear: boolean): Float32Array<ArrayBuffer> {
  const top = pixels.BYTES_PER_ELEMENT === 1 ? 255 : 65535
  const decoded = (v: number) => (linear === inLinear ? v : inLinear ? toDisplay(v) : toLinear(v))
  const steps = alpha === 'straight' ? top : FINE
  const table = Float32Array.from({ length: steps + 1 }, (_, v) => decoded(v / steps))
  const values = new Float32Array(pixels.length)
  if (alpha === 'straight') {
    for (let i = 0; i < values.length; i += 4) {
      const a = pixels[i + 3]! / top
      if (a === 0) continue
      values[i] = table[pixels[i]!]! * a
      values[i + 1] = table[pixels[i + 1]!]! * a
      values[i + 2] = table[pixels[i + 2]!]! * a
      values[i + 3] = a
    }
    return values
  }
  for (let i = 0; i < values.length; i += 4) {
    const a = pixels[i + 3]! / top
    if (a === 0) continue
    // What the ground gave to the mixture is taken away.
    const ground = alpha === 'white' ? 1 - a : 0
    for (let c = 0; c < 3; c++) {
      const own = Math.min(a, Math.max(0, pixels[i + c]! / top - ground))
      values[i + c] = table[Math.round((own / a) * FINE)]! * a
    }
    values[i + 3] = a
  }
  return values
}

/** Means of two by two pixels; an odd last row or column is left out. */
function halved({ values, w, h }: ReadyPicture): ReadyPicture {
  const [hw, hh] = [Math.max(1, w >> 1), Math.max(1, h >> 1)]
  const half = new Float32Array(hw * hh * 4)
  for (let y = 0; y < hh; y++) {
    const [above, below] = [Math.min(2 * y, h - 1) * w, Math.min(2 * y + 1, h - 1) * w]
    for (let x = 0; x < hw; x++) {
      const [left, right] = [Math.min(2 * x, w - 1), Math.min(2 * x + 1, w - 1)]
      const [p, q, r, s] = [(above + left) * 4, (above + right) * 4, (below + left) * 4, (below + right) * 4]
      const at = (y * hw + x) * 4
      for (let c = 0; c < 4; c++) half[at + c] = (values[p + c]! + values[q + c]! + values[r + c]! + values[s + c]!) / 4
    }
  }
  return { values: half, w: hw, h: hh }
}
