import type { Matrix3 } from './matrix'
import { inverse, product } from './matrix'

// White balance: the light that was is taken for daylight of some temperature, and its white becomes white.

export const NEUTRAL_KELVIN = 6500

/** How far Green at 100 % lies off daylight, in v of CIE 1960. */
const FARTHEST = 0.03

/** Linear sRGB to CIE XYZ, white D65 (IEC 61966-2-1:1999). */
const TO_XYZ: Matrix3 = [
  [0.4124, 0.3576, 0.1805],
  [0.2126, 0.7152, 0.0722],
  [0.0193, 0.1192, 0.9505],
]

/** The Bradford cone responses (K. M. Lam, 1985; as in ICC.1:2022, annex E). */
const BRADFORD: Matrix3 = [
  [0.8951, 0.2664, -0.1614],
  [-0.7502, 1.7135, 0.0367],
  [0.0389, -0.0685, 1.0296],
]

/** XYZ of daylight of a temperature (CIE 15:2004, 3.1), Y = 1, moved off it by `green` % . */
function daylight(kelvin: number, green: number): [number, number, number] {
  const t = 1000 / kelvin
  const x =
    kelvin <= 7000
      ? ((-4.607 * t + 2.9678) * t + 0.09911) * t + 0.244063
      : ((-2.0064 * t + 1.9018) * t + 0.24748) * t + 0.23704
  const y = -3 * x * x + 2.87 * x - 0.275
  // CIE 1960: u, v, and back.
  const d = -2 * x + 12 * y + 3
  const [u, v] = [(4 * x) / d, (6 * y) / d - (green / 100) * FARTHEST]
  const [x2, y2] = [(3 * u) / (2 * u - 8 * v + 4), (2 * v) / (2 * u - 8 * v + 4)]
  return [x2 / y2, 1, (1 - x2 - y2) / y2]
}

const cones = ([x, y, z]: readonly [number, number, number]) => BRADFORD.map(([a, b, c]) => a * x + b * y + c * z)

/** In linear sRGB: the white of the light becomes that of 6500 K. */
export function whiteBalance(kelvin: number, green: number): Matrix3 {
  const [was, is] = [cones(daylight(kelvin, green)), cones(daylight(NEUTRAL_KELVIN, 0))]
  const [r, g, b] = is.map((cone, i) => cone / was[i]!) as [number, number, number]
  const scaled: Matrix3 = [
    [r, 0, 0],
    [0, g, 0],
    [0, 0, b],
  ]
  const adapted = product(inverse(BRADFORD), product(scaled, BRADFORD))
  return product(inverse(TO_XYZ), product(adapted, TO_XYZ))
}
