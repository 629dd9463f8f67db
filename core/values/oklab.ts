import { cbrt, pow } from '../kernels/exact'
import type { Rgba } from '../units'

// Colour spaces in which gradients are mixed and cards blended. Triples of 0..1 without alpha.

type Triple = [number, number, number]

/** IEC 61966-2-1:1999, transfer from display-encoded sRGB to linear light. */
export const toLinear = (v: number): number => (v <= 0.04045 ? v / 12.92 : pow((v + 0.055) / 1.055, 2.4))

/** IEC 61966-2-1:1999, transfer from linear light to display-encoded sRGB. */
export const toDisplay = (v: number): number => (v <= 0.0031308 ? v * 12.92 : 1.055 * pow(v, 1 / 2.4) - 0.055)

type Matrix = readonly [Row, Row, Row]
type Row = readonly [number, number, number]

// B. Ottosson, A perceptual color space for image processing (2020); matrices as in CSS Color 4 §10.4.

/** Linear light to LMS. */
export const LINEAR_TO_LMS: Matrix = [
  [0.4122214708, 0.5363325363, 0.0514459929],
  [0.2119034982, 0.6806995451, 0.1073969566],
  [0.0883024619, 0.2817188376, 0.6299787005],
]
/** The cube roots of LMS to OKLab. */
export const ROOTS_TO_OKLAB: Matrix = [
  [0.2104542553, 0.793617785, -0.0040720468],
  [1.9779984951, -2.428592205, 0.4505937099],
  [0.0259040371, 0.7827717662, -0.808675766],
]
/** OKLab to the cube roots of LMS. */
export const OKLAB_TO_ROOTS: Matrix = [
  [1, 0.3963377774, 0.2158037573],
  [1, -0.1055613458, -0.0638541728],
  [1, -0.0894841775, -1.291485548],
]
/** LMS to linear light. */
export const LMS_TO_LINEAR: Matrix = [
  [4.0767416621, -3.3077115913, 0.2309699292],
  [-1.2684380046, 2.6097574011, -0.3413193965],
  [-0.0041960863, -0.7034186147, 1.707614701],
]

export const through = (matrix: Matrix, [x, y, z]: Triple): Triple =>
  matrix.map(([a, b, c]) => a * x + b * y + c * z) as Triple

export const linearToOklab = (linear: Triple): Triple =>
  through(ROOTS_TO_OKLAB, through(LINEAR_TO_LMS, linear).map(cbrt) as Triple)

export const oklabToLinear = (lab: Triple): Triple =>
  through(LMS_TO_LINEAR, through(OKLAB_TO_ROOTS, lab).map((root) => root ** 3) as Triple)

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
