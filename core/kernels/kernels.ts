import type { BlendMode } from './blend-modes'
import type { Px, Rgba } from '../units'
import type { Layers, PlaceWindow, Plane } from './memory'
import { forMode } from './module'
import type { Address } from './module'
import type { Affine } from './spread'
import { PictureKernels } from './pictures'
import type { PixelForm } from './pixel-form'
import { bytesOf } from './pixel-form'

export type { Layers, Picture, PlaceWindow, Plane, Segments } from './memory'
export type { Affine, Edges, EdgeArea, MapChannel } from './spread'
export type { ColourMatrix, ColourTables, Grain } from './rows'
export { tableOf } from './rows'
export type { DistanceField, Joins } from './planes'

/** Colours of a gradient: `steps` + 1 premultiplied RGBA values, linear in between. */
export interface Ramp {
  at: Address
  steps: number
  spread: Spread
}

/** How a gradient goes on beyond its ends (SVG 2, spreadMethod). */
export type Spread = 'pad' | 'repeat' | 'reflect'
const SPREADS: Record<Spread, number> = { pad: 0, repeat: 1, reflect: 2 }

/** A picture that is given out: pixels a row, how they are written down, the seed of its dithering, its place on the card. */
export interface GivenPicture extends Pick<PixelForm, 'bits' | 'alpha'> {
  width: number
  seed: number
  origin: { x: number; y: number }
}

/** Where paint goes: through a mask (null: everywhere), and only where a gate is open (null: everywhere). */
export interface Stencil {
  mask: Plane | null
  gate: Plane | null
}

/** The typed face of the pixel kernels. Not thread-safe; each worker has its own. */
export class Kernels extends PictureKernels {
  private readonly tile: { at: Address; seed: number | undefined } = { at: this.take(64 * 64 * 16), seed: undefined }

  /** t = t0 + x·tx + y·ty at pixel centres. */
  placeLinear({ x, y, w, h }: PlaceWindow, t0: number, tx: number, ty: number): Plane {
    const plane = this.plane(w, h)
    this.run.placeLinear(plane.at, w, h, x, y, t0, tx, ty)
    return plane
  }

  placeRadial({ x, y, w, h }: PlaceWindow, { a, b, c, d, e, f }: Affine): Plane {
    const plane = this.plane(w, h)
    this.run.placeRadial(plane.at, w, h, x, y, a, b, c, d, e, f)
    return plane
  }

  /**
   * How far outside (negative: inside) a rounded rectangle about (cx, cy) each pixel lies, in halves of its sides; `round` 0
   * for a rectangle to 1 for an ellipse.
   */
  placeRounded({ x, y, w, h }: PlaceWindow, cx: Px, cy: Px, halfWidth: Px, halfHeight: Px, round: number): Plane {
    const plane = this.plane(w, h)
    this.run.placeRounded(plane.at, w, h, x, y, cx, cy, 1 / halfWidth, 1 / halfHeight, round)
    return plane
  }

  placeConic({ x, y, w, h }: PlaceWindow, { a, b, c, d, e, f }: Affine): Plane {
    const plane = this.plane(w, h)
    this.run.placeConic(plane.at, w, h, x, y, a, b, c, d, e, f)
    return plane
  }

  /** A new plane: (src − from) · scale. */
  placeScaled(src: Plane, from: number, scale: number): Plane {
    const plane = this.plane(src.w, src.h)
    this.run.placeScaled(src.at, plane.at, src.w * src.h, from, scale)
    return plane
  }

  /** A repeated tile of size × size floats; the map goes to its pixels. */
  placeTile({ x, y, w, h }: PlaceWindow, tile: Address, size: number, { a, b, c, d, e, f }: Affine): Plane {
    const plane = this.plane(w, h)
    this.run.placeTile(plane.at, w, h, x, y, tile, size, a, b, c, d, e, f)
    return plane
  }

  /** Lines of a width (share of the period), `pixels` to a period; the map goes to periods. */
  placeLines(window: PlaceWindow, grid: boolean, width: number, pixels: number, { a, b, c, d, e, f }: Affine): Plane {
    const { x, y, w, h } = window
    const plane = this.plane(w, h)
    this.run.placeLines(plane.at, w, h, x, y, grid ? 1 : 0, width, pixels, a, b, c, d, e, f)
    return plane
  }

  /** A picture (premultiplied RGBA), repeated or with its border held; the map goes to its pixels. */
  samplePicture(window: PlaceWindow, picture: Layers, { a, b, c, d, e, f }: Affine, repeated: boolean): Layers {
    const { x, y, w, h } = window
    const layers = this.layers(w, h, false)
    const { at, w: iw, h: ih } = picture
    this.run.samplePicture(layers.at, w, h, x, y, at, iw, ih, repeated ? 1 : 0, a, b, c, d, e, f)
    return layers
  }

  /** Adds an octave of noise to a tile; see assembly/places.ts. */
  addNoise(tile: Address, size: number, nx: number, ny: number, weight: number, seed: number): void {
    this.run.addNoise(tile, size, nx, ny, weight, seed)
  }

  /** A colour through a mask, blended in place. For masks and gates see assembly/lay-solid.ts. */
  laySolid(mode: BlendMode, dst: Layers, stencil: Stencil, [r, g, b, a]: Rgba, opacity: number): void {
    const alpha = a * opacity
    const numbers = [dst.stride, dst.w, dst.h, r * alpha, g * alpha, b * alpha, alpha] as const
    forMode(this.run, 'solid', mode)(stencil.mask?.at ?? 0, stencil.gate?.at ?? 0, dst.at, ...numbers)
  }

  /** A ramp of colours at the places of a plane, through a mask, blended in place. */
  layRamp(mode: BlendMode, dst: Layers, stencil: Stencil, place: Plane, ramp: Ramp, opacity: number): void {
    const numbers = [dst.stride, dst.w, dst.h, place.at, ramp.at, ramp.steps, SPREADS[ramp.spread], opacity] as const
    forMode(this.run, 'ramp', mode)(stencil.mask?.at ?? 0, stencil.gate?.at ?? 0, dst.at, ...numbers)
  }

  /** A picture of the size of `dst`, through a mask, blended in place. */
  layPicture(mode: BlendMode, dst: Layers, stencil: Stencil, src: Layers, opacity: number): void {
    const numbers = [dst.stride, dst.w, dst.h, src.at, src.stride, opacity] as const
    forMode(this.run, 'picture', mode)(stencil.mask?.at ?? 0, stencil.gate?.at ?? 0, dst.at, ...numbers)
  }

  /** dst = blend(src · opacity, dst). */
  blend(mode: BlendMode, src: Layers, dst: Layers, opacity: number, gate: Plane | null = null): void {
    const size = [dst.w, dst.h, opacity, gate?.at ?? 0] as const
    forMode(this.run, 'blend', mode)(src.at, src.stride, dst.at, dst.stride, ...size)
  }

  /** dst = inside · coverage + dst · (1 − coverage). */
  mix(coverage: Plane, inside: Layers, dst: Layers): void {
    this.run.mixByCoverage(coverage.at, inside.at, inside.stride, dst.at, dst.stride, dst.w, dst.h)
  }

  /** Copies where the gate is open; what lies under closed groups of four pixels stays undefined. */
  copyGated(gate: Plane, src: Layers | null, dst: Layers): void {
    this.run.copyGated(gate.at, src?.at ?? 0, src?.stride ?? 0, dst.at, dst.stride, dst.w, dst.h)
  }

  /** Alpha of layers as a plane. */
  alpha({ at, stride, w, h }: Layers): Plane {
    const plane = this.plane(w, h)
    this.run.alphaPlane(at, stride, plane.at, w, h)
    return plane
  }

  /** New layers: the Gaussian blur of others; outside them counts as clear. */
  blurredLayers(src: Layers, sigma: Px): Layers {
    const dst = this.layers(src.w, src.h, false)
    this.softenInto(src, dst, sigma)
    return dst
  }

  /** Divides colours by their alpha, in place, and makes alpha whole wherever there is any. */
  makeWhole({ at, stride, w, h }: Layers): void {
    this.run.wholeColours(at, stride, w, h)
  }

  /** Straight colours through a table, in place, between linear light and display sRGB: over v, or by `roots` over √v. */
  transfer({ at, stride, w, h }: Layers, table: Float32Array, roots: boolean): void {
    const mark = this.mark()
    this.run.transferRows(at, stride, w, h, this.numbers(table), table.length - 1, roots)
    this.release(mark)
  }

  /**
   * RGBA of a window at (x, y), integers dithered by `seed`, written at their place into a picture of `width` pixels a row.
   * What of the window lies beyond the picture's right edge is cut off. The picture's own place on the card, `origin`, is
   * where the noise is taken from.
   */
  giveOut(window: Layers, { x, y }: { x: number; y: number }, out: Uint8Array, to: GivenPicture): void {
    const { width, bits, alpha, seed, origin } = to
    const mark = this.mark()
    const pixel = bytesOf(bits) * 4
    const stride = window.w * pixel
    const at = this.take(stride * window.h)
    const rows = [window.at, window.stride, at, stride] as const
    const size = [window.w, window.h] as const
    const premultiplied = alpha === 'premultiplied'
    if (bits === 'float') this.run.numbers32(...rows, ...size, premultiplied)
    else if (bits === 'half') this.run.numbers16(...rows, ...size, premultiplied, this.take(window.w * 16))
    else {
      const kernel = bits === 8 ? this.run.whole8 : this.run.whole16
      kernel(...rows, ...size, x + origin.x, y + origin.y, this.dither(seed), premultiplied)
    }
    const whole = new Uint8Array(this.memory.buffer, at, stride * window.h)
    const kept = Math.min(window.w, width - x) * pixel
    if (kept === stride && stride === width * pixel) out.set(whole, y * stride)
    else {
      for (let row = 0; row < window.h; row++) {
        out.set(whole.subarray(row * stride, row * stride + kept), ((y + row) * width + x) * pixel)
      }
    }
    this.release(mark)
  }

  private dither(seed: number): Address {
    if (this.tile.seed !== seed) {
      this.run.ditherTile(this.tile.at, seed)
      this.tile.seed = seed
    }
    return this.tile.at
  }
}
