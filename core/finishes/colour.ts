import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { ColourMatrix } from '../kernels/kernels'
import { LINEAR_TO_LMS, LMS_TO_LINEAR, OKLAB_TO_ROOTS, ROOTS_TO_OKLAB } from '../values/oklab'
import { choice, number } from '../values/parameter-kinds'
import { angle } from './common-parameters'
import type { RowWork } from './definition'
import { defineFinish } from './definition'
import { inDisplay, inLinear } from './light'
import type { Matrix3 } from './matrix'
import { columns, product } from './matrix'
import { NEUTRAL_KELVIN, whiteBalance } from './white-balance'

export const colour = defineFinish({
  kind: 'colour',
  label: 'Colour',
  help: 'Turns the hues, makes colours stronger or weaker, lighter or darker, warmer or cooler',
  parameters: {
    space: choice({
      label: 'Counts in',
      help: 'OKLCh: lightness stays as it looks while hues turn. SVG: the matrices of hueRotate and saturate',
      default: 'oklch',
      options: [
        { value: 'oklch', label: 'OKLCh' },
        { value: 'svg', label: 'SVG' },
      ],
    }),
    hue: angle('Turn of all hues in degrees', 0, { label: 'Hue' }),
    saturation: number({
      label: 'Saturation',
      help: 'Strength of colours in %: 0 is grey',
      ...({ default: 100, min: 0, max: 1000, step: 1, unit: '%', slider: [0, 300] } as const),
    }),
    lightness: number({
      label: 'Lightness',
      help: 'Towards white, or (negative) towards black, in %',
      ...({ default: 0, min: -100, max: 100, step: 1, unit: '%' } as const),
    }),
    kelvin: number({
      label: 'White of light',
      help: 'Colour temperature of the light that was: above 6500 the picture grows warmer, below cooler, in kelvin',
      ...({ default: NEUTRAL_KELVIN, min: 4000, max: 25_000, step: 50, unit: '', slider: [4000, 12_000] } as const),
    }),
    green: number({
      label: 'Green',
      help: 'Towards green, or (negative) towards magenta, in %',
      ...({ default: 0, min: -100, max: 100, step: 1, unit: '%' } as const),
    }),
  },
  headline: 'saturation',
  reads: 'pixel',
  idle: ({ hue, saturation, lightness, kelvin, green }) =>
    hue % 360 === 0 && saturation === 100 && lightness === 0 && kelvin === NEUTRAL_KELVIN && green === 0,
  rows({ space, hue, saturation, lightness, kelvin, green }, bench) {
    const { kernels } = bench
    const light = lightness / 100
    const passes: RowWork[] = []
    if (kelvin !== NEUTRAL_KELVIN || green !== 0) {
      const matrix = columns(whiteBalance(kelvin, green))
      passes.push(inLinear(bench, (rows) => kernels.throughMatrix(rows, matrix)))
    }
    if (hue % 360 !== 0 || saturation !== 100 || light !== 0) {
      const strength = saturation / 100
      if (space === 'svg') {
        const matrix = lightened(product(saturate(strength), hueRotate(hue)), light)
        passes.push(inDisplay(bench, (rows) => kernels.throughMatrix(rows, matrix)))
      } else {
        const [into, back] = [columns(LINEAR_TO_LMS), columns(LMS_TO_LINEAR)]
        const change = inOklab(hue, strength, light)
        passes.push(inLinear(bench, (rows) => kernels.throughRoots(rows, into, change, back)))
      }
    }
    return (rows) => passes.forEach((pass) => pass(rows))
  },
})

/** Filter Effects 1, feColorMatrix type="saturate". */
const saturate = (s: number): Matrix3 => [
  [0.213 + 0.787 * s, 0.715 - 0.715 * s, 0.072 - 0.072 * s],
  [0.213 - 0.213 * s, 0.715 + 0.285 * s, 0.072 - 0.072 * s],
  [0.213 - 0.213 * s, 0.715 - 0.715 * s, 0.072 + 0.928 * s],
]

/** Filter Effects 1, feColorMatrix type="hueRotate". */
function hueRotate(angle: number): Matrix3 {
  const [c, s] = [cosDegrees(angle), sinDegrees(angle)]
  return [
    [0.213 + c * 0.787 - s * 0.213, 0.715 - c * 0.715 - s * 0.715, 0.072 - c * 0.072 + s * 0.928],
    [0.213 - c * 0.213 + s * 0.143, 0.715 + c * 0.285 + s * 0.14, 0.072 - c * 0.072 - s * 0.283],
    [0.213 - c * 0.213 - s * 0.787, 0.715 - c * 0.715 + s * 0.715, 0.072 + c * 0.928 + s * 0.072],
  ]
}

/** Mixed with white (above 0) or black. */
function lightened(matrix: Matrix3, light: number): ColourMatrix {
  const keep = 1 - Math.abs(light)
  const lift = Math.max(0, light)
  return columns(matrix.map(([a, b, c]) => [a * keep, b * keep, c * keep]) as unknown as Matrix3, lift)
}

/** Among the roots of LMS: to OKLab, turned, stretched, mixed with white or black, and back. */
function inOklab(hue: number, strength: number, light: number): ColourMatrix {
  const keep = 1 - Math.abs(light)
  const [c, s] = [cosDegrees(hue) * strength * keep, sinDegrees(hue) * strength * keep]
  const change: Matrix3 = [
    [keep, 0, 0],
    [0, c, -s],
    [0, s, c],
  ]
  return columns(product(OKLAB_TO_ROOTS, product(change, ROOTS_TO_OKLAB)), Math.max(0, light))
}
