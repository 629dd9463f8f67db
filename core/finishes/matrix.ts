import type { ColourMatrix } from '../kernels/kernels'

/** Three rows. */
export type Matrix3 = readonly [Row, Row, Row]
type Row = readonly [number, number, number]

/** a · b. */
export const product = (a: Matrix3, b: Matrix3): Matrix3 =>
  a.map(([x, y, z]) => [0, 1, 2].map((i) => x * b[0][i]! + y * b[1][i]! + z * b[2][i]!)) as unknown as Matrix3

/** As the kernels read it: columns, and a constant for all three. */
export const columns = ([r, g, b]: Matrix3, constant = 0): ColourMatrix => [
  [r[0], g[0], b[0]],
  [r[1], g[1], b[1]],
  [r[2], g[2], b[2]],
  [constant, constant, constant],
]

/** The inverse, by cofactors. */
export function inverse([[a, b, c], [d, e, f], [g, h, i]]: Matrix3): Matrix3 {
  const det = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g)
  return [
    [(e * i - f * h) / det, (c * h - b * i) / det, (b * f - c * e) / det],
    [(f * g - d * i) / det, (a * i - c * g) / det, (c * d - a * f) / det],
    [(d * h - e * g) / det, (b * g - a * h) / det, (a * e - b * d) / det],
  ]
}
