import { cbrt, pow } from '../kernels/exact'
import type { Rgba } from '../units'

// Colour spaces in which gradients are mixed and cards blended. Triples of 0..1 without alpha.

type Triple = [number, number, number]

/** IEC 61966-2-1:1999, transfer from display-encoded sRGB to linear light. */
export const toLinear = (v: number): number => (v <= 0.04045 ? v / 12.92 : pow((v + 0.055) / 1.055, 2.4))

/** IEC 61966-2-1:1999, transfer from linear light to display-encoded sRGB. */
export const toDisplay = (v: number): number => (v <= 0.0031308 ? v * 12.92 : 1.055 * pow(v, 1 / 2.4) - 0.055)

/** B. Ottosson, A perceptual color space for image processing (2020); matrices as in CSS Color 4 §10.4. */
export function linearToOklab([r, g, b]: Triple): Triple {
  const l = cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b)
  const m = cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b)
  const s = cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b)
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ]
}

export function oklabToLinear([L, a, b]: Triple): Triple {
  const l = (L + 0.3963377774 * a + 0.2158037573 * b) ** 3
  const m = (L - 0.1055613458 * a - 0.0638541728 * b) ** 3
  const s = (L - 0.0894841775 * a - 1.291485548 * b) ** 3
  return [
    4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
    -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
    -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s,
  ]
}

/** Straight line between two display-encoded colours in OKLab, premultiplied (CSS Color 4 §12.3); cut to sRGB. */
export function mixInOklab(from: Rgba, to: Rgba, t: number): Rgba {
  const alpha = from[3] + (to[3] - from[3]) * t
  if (alpha <= 0) return [to[0], to[1], to[2], 0]
  const lab = ([r, g, b]: Rgba) => linearToOklab([toLinear(r), toLinear(g), toLinear(b)])
  const [p, q] = [lab(from), lab(to)]
  const channel = (i: 0 | 1 | 2) => (p[i] * from[3] * (1 - t) + q[i] * to[3] * t) / alpha
  const cut = (v: number) => toDisplay(Math.min(1, Math.max(0, v)))
  const [r, g, b] = oklabToLinear([channel(0), channel(1), channel(2)])
  return [cut(r), cut(g), cut(b), alpha]
}
