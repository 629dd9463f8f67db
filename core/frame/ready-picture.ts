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
interface KeptPicture {
  values: Float32Array<ArrayBuffer>
  w: number
  h: number
}

/** What was made of pictures before: the same for every frame. */
const ready = new WeakMap<Picture, Map<string, KeptPicture>>()

/**
 * A picture premultiplied for blending in `linear` light or not, halved as often as is said. It is kept as long as the picture lives, 16
 * bytes a pixel.
 */
export function readyPicture(
  kernels: Kernels,
  picture: Picture,
  reading: Reading,
  linear: boolean,
  halvings: number,
): Layers {
  const kept = ready.get(picture) ?? new Map<string, KeptPicture>()
  ready.set(picture, kept)
  const key = `${linear} ${reading.inLinear} ${reading.alpha} ${halvings}`
  let found = kept.get(key)
  if (!found) {
    const mark = kernels.mark()
    const layers = readyOnce(kernels, picture, reading, linear, halvings)
    found = { values: kernels.rgba(layers).slice(), w: layers.w, h: layers.h }
    kernels.release(mark)
    kept.set(key, found)
  }
  const { values, w, h } = found
  return { at: kernels.numbersOnce(values), w, h, stride: w * 16 }
}

/** As `readyPicture`, of a picture that is seen for a moment: it lies in the kernels' memory alone. */
export function readyOnce(
  kernels: Kernels,
  picture: Picture,
  { inLinear, alpha }: Reading,
  linear: boolean,
  halvings: number,
): Layers {
  const light = linear === inLinear ? 'same' : inLinear ? 'toDisplay' : 'toLinear'
  const isWide = picture.pixels.BYTES_PER_ELEMENT === 2
  let layers =
    alpha === 'straight'
      ? kernels.readyStraight(picture, tableOf(light, isWide ? 65535 : 255))
      : kernels.readyLaid(picture, tableOf(light, FINE), alpha === 'white' ? 1 : 0)
  for (let i = 0; i < halvings; i++) layers = kernels.halfPicture(layers)
  return layers
}

const LIGHTS = { same: (v: number) => v, toDisplay, toLinear }
const tables = new Map<string, Float32Array>()

/** Even steps from 0 to 1, each in the other light. */
function tableOf(light: keyof typeof LIGHTS, steps: number): Float32Array {
  const key = `${light} ${steps}`
  const table = tables.get(key) ?? Float32Array.from({ length: steps + 1 }, (_, v) => LIGHTS[light](v / steps))
  tables.set(key, table)
  return table
}

/** Steps of the table for colours that are no steps of the file: finer than any file. */
const FINE = 65535

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
  layers: Layers,
  { width, height }: Pick<Picture, 'width' | 'height'>,
  map: Affine,
  repeated: boolean,
): (window: GridBox) => Layers {
  const [kx, ky] = [layers.w / width, layers.h / height]
  const scaled = {
    ...{ a: map.a * kx, b: map.b * kx, c: map.c * ky, d: map.d * ky },
    e: (map.e + width / 2) * kx,
    f: (map.f + height / 2) * ky,
  }
  return (window: GridBox) => kernels.samplePicture(window, layers, scaled, repeated)
}
