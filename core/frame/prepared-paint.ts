import type { Card } from '../card/schema'
import type { EvaluatedGradient, EvaluatedPaint, EvaluatedTexture } from '../values/evaluated'
import type { Affine, Kernels, Layers, Plane, Ramp } from '../kernels/kernels'
import type { Placement } from '../outline/outline'
import { gradientCircle, gradientLine, gradientTurn } from '../paint/gradient'
import type { PictureBook } from '../paint/pictures'
import { pixelColour, rampColours } from '../paint/ramp'
import type { Tiles } from '../paint/texture'
import { lineMap, pixelsPerPeriod, textureMap, TILE } from '../paint/texture'
import type { Rect, Rgba } from '../units'
import type { GridBox } from './grid-box'
import { halvingsFor, readyPicture, readySampler, STRAIGHT } from './ready-picture'

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
  // The kernel's lines stand along v; those of a paint lie flat at 0°, as those of the finish.
  const turned = paint.pattern === 'lines' ? { ...paint, angle: paint.angle - 90 } : paint
  const map = textureMap(turned, hook.bounds, hook.placement, hook.unit)
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
 * its border it is repeated, or its last pixels go on.
 */
export function pictureSampler(
  { kernels, pictures, card }: Palette,
  { picture: id, linear, repeated }: { picture: string; linear: boolean; repeated: boolean },
  map: Affine,
  place: string,
): (window: GridBox) => Layers {
  const picture = pictures.get(id, place)
  const reading = { ...STRAIGHT, inLinear: linear }
  const ready = readyPicture(kernels, picture, reading, isLinear(card), halvingsFor(picture, map))
  return readySampler(kernels, ready, picture, map, repeated)
}
