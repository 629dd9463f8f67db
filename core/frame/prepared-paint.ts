import type { Card } from '../card/schema'
import type { EvaluatedGradient, EvaluatedPaint, EvaluatedTexture } from '../values/evaluated'
import type { Affine, Kernels, Layers, Plane, Ramp } from '../kernels/kernels'
import type { Placement } from '../outline/outline'
import { gradientCircle, gradientLine, gradientTurn } from '../paint/gradient'
import type { Picture, PictureBook } from '../paint/pictures'
import { pixelColour, rampColours } from '../paint/ramp'
import type { Tiles } from '../paint/texture'
import { lineMap, pixelsPerPeriod, textureMap, TILE } from '../paint/texture'
import type { Rect, Rgba } from '../units'
import { toDisplay, toLinear } from '../values/oklab'
import type { GridBox } from './grid-box'

/**
 * A paint ready for the kernels. `places` and `sample` make what is needed for a window of the render grid;
 * `along` says that the places come from a plane of the coat. Places that take long to make have a `name`: equal names,
 * equal places.
 */
export type PreparedPaint =
  | { solid: Rgba }
  | { ramp: Ramp; places: (window: GridBox) => Plane; name?: string }
  | { ramp: Ramp; along: (plane: Plane) => Plane }
  | { sample: (window: GridBox) => Layers }

/** What paints are made ready with. */
export interface Palette {
  kernels: Kernels
  tiles: Tiles
  pictures: PictureBook
  card: Card
  /** Render pixels per card pixel. */
  scale: number
}

/** What a paint that hangs on the piece hangs on: bounds in the outline's units, one px in them, their placement. */
export interface Hook {
  bounds: Rect
  unit: number
  placement: Placement
}

export const isLinear = (card: Card): boolean => card.blending === 'linear'

/** `piece` is null for what hangs on the card alone. What is made belongs to the kernels' current mark. */
export function preparePaint(
  palette: Palette,
  paint: EvaluatedPaint,
  piece: Hook | null,
  place: string,
): PreparedPaint {
  const { card } = palette
  if (paint.type === 'solid') return { solid: pixelColour(paint.colour, isLinear(card)) }
  const hook = piece && paint.hang === 'piece' ? piece : wholeCard(palette)
  if (paint.type === 'texture') return prepareTexture(palette, paint, hook, place)
  return prepareGradient(palette, paint, hook)
}

function wholeCard({ card, scale }: Palette): Hook {
  return {
    bounds: { left: 0, top: 0, right: card.frame.width, bottom: card.frame.height },
    unit: 1,
    placement: { scale, rotation: 0, x: 0, y: 0 },
  }
}

function prepareGradient(
  { kernels, card }: Palette,
  paint: EvaluatedGradient,
  { bounds, placement }: Hook,
): PreparedPaint {
  const colours = rampColours(paint, isLinear(card))
  const ramp: Ramp = { at: kernels.numbers(colours), steps: colours.length / 4 - 1, spread: paint.spread }
  const { shift, scale } = paint
  switch (paint.type) {
    case 'linear': {
      const { t0, tx, ty } = gradientLine(paint, bounds, placement)
      return { ramp, places: (window) => kernels.placeLinear(window, t0, tx, ty) }
    }
    case 'radial': {
      const map = gradientCircle(paint, bounds, placement)
      const plain = (window: GridBox) => kernels.placeRadial(window, map)
      return { ramp, places: shift === 0 ? plain : (window) => kernels.placeScaled(plain(window), shift / scale, 1) }
    }
    case 'conic': {
      const map = gradientTurn(paint, bounds, placement)
      const plain = (window: GridBox) => kernels.placeConic(window, map)
      const moved = (window: GridBox) => kernels.placeScaled(plain(window), shift, 1 / scale)
      return { ramp, places: shift === 0 && scale === 1 ? plain : moved }
    }
    case 'edge':
      return {
        ramp,
        along: (plane) => (shift === 0 && scale === 1 ? plane : kernels.placeScaled(plane, shift, 1 / scale)),
      }
  }
}

function prepareTexture(palette: Palette, paint: EvaluatedTexture, hook: Hook, place: string): PreparedPaint {
  const { kernels, tiles, card } = palette
  const map = textureMap(paint, hook.bounds, hook.placement, hook.unit)
  if (paint.pattern === 'picture') {
    return { sample: pictureSampler(palette, { picture: paint.picture!, linear: false, repeated: true }, map, place) }
  }
  const linear = isLinear(card)
  if (paint.pattern === 'lines' || paint.pattern === 'grid') {
    const ramp = twoColours(kernels, paint, linear, 0.5)
    const lines = lineMap(map)
    const grid = paint.pattern === 'grid'
    const pixels = pixelsPerPeriod(map)
    return { ramp, places: (window) => kernels.placeLines(window, grid, paint.weight, pixels, lines) }
  }
  const ramp = twoColours(kernels, paint, linear, paint.weight)
  if (paint.pattern === 'flow') return { ramp, ...flowing(palette, paint, map) }
  // A seed on its way between two keys is the nearest whole one.
  const seed = Math.round(paint.seed)
  const tile = tiles.of(paint.pattern, seed)
  const name = `${paint.pattern} ${seed} ${Object.values(map).join(' ')}`
  return { ramp, places: (window) => kernels.placeTile(window, tile, TILE, map), name }
}

/** Flowing noise: its places, about ½, moved by the brightness. */
function flowing(
  { kernels }: Palette,
  { sizeX, sizeY, detail, brightness, evolution, seed }: EvaluatedTexture,
  map: Affine,
) {
  const { a, b, c, d, e, f } = map
  const cells = { a: a / sizeX, b: b / sizeX, e: e / sizeX, c: c / sizeY, d: d / sizeY, f: f / sizeY }
  const throwOf = Math.round(seed)
  return {
    name: `flow ${throwOf} ${detail} ${evolution} ${brightness} ${Object.values(cells).join(' ')}`,
    // −1 to 1 becomes 0 to 1.
    places: (window: GridBox) =>
      kernels.placeScaled(kernels.flowNoise(window, cells, detail, evolution, throwOf), -1 - 2 * brightness, 0.5),
  }
}

/** From the ground to the colour; contrast ½ is the pattern as it is, 1 has no greys between. */
function twoColours(kernels: Kernels, { colour, ground }: EvaluatedTexture, linear: boolean, contrast: number): Ramp {
  const span = Math.max(0.01, 1 - contrast)
  const [low, high] = [0.5 - span / 2, 0.5 + span / 2]
  const stop = (at: number, value: Rgba) => ({ at, colour: value, middle: 0.5 })
  // At contrast ½ the middle half of the pattern's values takes the whole ramp: noise seldom leaves it.
  const stops = [stop(0, ground), stop(low, ground), stop(high, colour), stop(1, colour)]
  const colours = rampColours({ stops, mix: 'srgb' }, linear)
  return { at: kernels.numbers(colours), steps: colours.length / 4 - 1, spread: 'pad' }
}

/**
 * Samples a picture through a map from render pixels to its own, centred. `linear`: its values are linear light. Beyond
 * its border it is repeated, or its last pixels go on. Halves the picture until a render pixel takes no more than two of
 * its pixels, so that it does not shimmer.
 */
export function pictureSampler(
  palette: Palette,
  { picture: id, linear: inLinear, repeated }: { picture: string; linear: boolean; repeated: boolean },
  map: Affine,
  place: string,
): (window: GridBox) => Layers {
  const { kernels, pictures, card } = palette
  const picture = pictures.get(id, place)
  const { width, height } = picture
  const linear = isLinear(card)
  const decoded = (v: number) => (linear === inLinear ? v : inLinear ? toDisplay(v) : toLinear(v))
  const shrink = Math.sqrt(map.a * map.a + map.c * map.c)
  const { values, w, h } = halvedUntil(picture, shrink, `${linear} ${inLinear}`, decoded)
  const layers: Layers = { at: kernels.numbersOnce(values), w, h, stride: w * 16 }
  const [kx, ky] = [w / width, h / height]
  const scaled = {
    ...{ a: map.a * kx, b: map.b * kx, c: map.c * ky, d: map.d * ky },
    e: (map.e + width / 2) * kx,
    f: (map.f + height / 2) * ky,
  }
  return (window: GridBox) => kernels.samplePicture(window, layers, scaled, repeated)
}

interface Halved {
  values: Float32Array<ArrayBuffer>
  w: number
  h: number
}

/** Pictures that were made ready before, by what was done to them: the same for every frame. */
const ready = new WeakMap<Picture, Map<string, Halved>>()

/** A picture premultiplied and halved until `shrink` of its own pixels to a render pixel are no more than two. */
function halvedUntil(picture: Picture, shrink: number, light: string, decoded: (v: number) => number): Halved {
  const kept = ready.get(picture) ?? new Map<string, Halved>()
  ready.set(picture, kept)
  const of = (halvings: number): Halved => {
    const key = `${light} ${halvings}`
    const found = kept.get(key)
    if (found) return found
    let made: Halved
    if (halvings === 0) {
      const encoded = Float32Array.from({ length: 256 }, (_, v) => decoded(v / 255))
      made = { values: premultiplied(picture.pixels, encoded), w: picture.width, h: picture.height }
    } else {
      const { values, w, h } = of(halvings - 1)
      made = { values: halved(values, w, h), w: Math.max(1, w >> 1), h: Math.max(1, h >> 1) }
    }
    kept.set(key, made)
    return made
  }
  let halvings = 0
  while (shrink / 2 ** halvings > 2 && Math.min(picture.width, picture.height) >> halvings > 1) halvings++
  return of(halvings)
}

function premultiplied(pixels: Uint8Array, encoded: Float32Array): Float32Array<ArrayBuffer> {
  const values = new Float32Array(pixels.length)
  for (let i = 0; i < values.length; i += 4) {
    const alpha = pixels[i + 3]! / 255
    for (let c = 0; c < 3; c++) values[i + c] = encoded[pixels[i + c]!]! * alpha
    values[i + 3] = alpha
  }
  return values
}

/** Means of two by two pixels; an odd last row or column is left out. */
function halved(values: Float32Array, w: number, h: number): Float32Array<ArrayBuffer> {
  const [hw, hh] = [Math.max(1, w >> 1), Math.max(1, h >> 1)]
  const half = new Float32Array(hw * hh * 4)
  for (let y = 0; y < hh; y++) {
    for (let x = 0; x < hw; x++) {
      for (let c = 0; c < 4; c++) {
        const at = (px: number, py: number) => values[(Math.min(py, h - 1) * w + Math.min(px, w - 1)) * 4 + c]!
        half[(y * hw + x) * 4 + c] =
          (at(2 * x, 2 * y) + at(2 * x + 1, 2 * y) + at(2 * x, 2 * y + 1) + at(2 * x + 1, 2 * y + 1)) / 4
      }
    }
  }
  return half
}
