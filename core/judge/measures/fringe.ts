import type { FramePicture } from '../../frame/engine'

// A halo is a rim, a pixel or two wide, that belongs neither to the shape nor to what lies behind it: a light one shows over dark
// footage, a dark one over bright. It comes from alpha that was taken wrongly or from a coat that peeks out. Common practice, no
// published source.

/** Pixels of an edge from solid to clear; a wider fall is soft on purpose. */
const WIDEST = 3
/** Alpha from which a pixel counts as solid, and up to which as clear, of 255. */
const SOLID = 250
const CLEAR = 5
/** Luma by which a rim differs from the shape that it rims, of 255. */
const APART = 40

export interface Fringes {
  /** Edges that were looked at. */
  edges: number
  /** Those with a rim lighter, or darker, than the shape. */
  light: number
  dark: number
  /** The middle of the first found, in px of the picture. */
  at: { x: number; y: number } | null
}

/** Looks along rows and columns at every edge from solid to clear. Straight pixels of 8 bits. `onRim` is told of each pixel of a rim. */
export function fringesOf(
  { width, height, pixels }: FramePicture,
  onRim: (x: number, y: number, isLight: boolean) => void = () => {},
): Fringes {
  const found: Fringes = { edges: 0, light: 0, dark: 0, at: null }
  const look = (solid: number, step: number, room: number) => {
    let last = 1
    while (last <= WIDEST && last < room) {
      const alpha = pixels[solid + last * step + 3]!
      if (alpha <= CLEAR) break
      if (alpha >= SOLID) return
      last++
    }
    if (last > WIDEST || last >= room || last === 1) return
    found.edges++
    const own = luma(pixels, solid)
    // What is nearly clear has hardly any colour left.
    for (let i = 1; i < last; i++) {
      const at = solid + i * step
      if (pixels[at + 3]! < 32) continue
      const off = luma(pixels, at) - own
      if (Math.abs(off) < APART) continue
      if (off > 0) found.light++
      else found.dark++
      const [x, y] = [(at / 4) % width, Math.floor(at / 4 / width)]
      found.at ??= { x, y }
      onRim(x, y, off > 0)
      return
    }
  }
  for (let y = 0, at = 0; y < height; y++) {
    for (let x = 0; x < width; x++, at += 4) {
      if (pixels[at + 3]! < SOLID) continue
      look(at, 4, width - x)
      look(at, -4, x + 1)
      look(at, width * 4, height - y)
      look(at, -width * 4, y + 1)
    }
  }
  return found
}

/** BT.709 luma, 0–255. */
const luma = (pixels: Uint8Array, at: number) =>
  0.2126 * pixels[at]! + 0.7152 * pixels[at + 1]! + 0.0722 * pixels[at + 2]!
