import { choice, colour, curve, length, number } from '../values/parameter-kinds'
import type { EvaluatedValues } from '../values/evaluated'
import { readCurve } from '../curves/curve'
import { sinDegrees } from '../kernels/exact'
import { blurReach } from '../kernels/gauss'
import { BLEND_MODES } from '../kernels/blend-modes'
import { OWN_LIGHT, softness } from './common-parameters'
import type { CoatTools, Layer, PlaneRecipe } from './definition'
import { defineCoat, even, SIDES } from './definition'

const strength = (label: string, help: string, standard: number) =>
  number({ label, help, default: standard, min: 0, max: 100, step: 1, unit: '%' })

const parameters = {
  side: choice({
    label: 'Side',
    help: 'Where the slope lies: inside the edge, outside, across it, or sunk: down to the edge from both sides',
    default: 'inside',
    options: [SIDES.inside, SIDES.outside, SIDES.across, { value: 'sunk', label: 'Sunk' }],
  }),
  width: length({
    label: 'Width',
    help: 'Width of the slope, in px or % of the piece; wider than the shape is deep, it ends in a ridge',
    default: 12,
    min: 0,
    max: 1000,
    step: 0.5,
    slider: [0, 120],
  }),
  relief: number({
    label: 'Relief',
    help: 'Height of the slope in % of its width; negative carves it in',
    default: 100,
    min: -500,
    max: 500,
    step: 1,
    unit: '%',
    slider: [-200, 200],
  }),
  smoothing: softness('Smoothing', 'Rounds ridges and folds, in px or % of the piece', 0),
  profile: curve({ label: 'Profile', help: 'Form of the slope from its foot to its top', default: 'linear' }),
  ...OWN_LIGHT,
  lit: colour({ label: 'Lit colour', help: 'Colour of what the light falls on', default: '#FFFFFF' }),
  litOpacity: strength('Lit amount', 'How much of the lit colour is laid, in %', 75),
  litBlend: choice({
    label: 'Lit blend',
    help: 'How the lit colour mixes with what lies below it',
    default: 'screen',
    options: BLEND_MODES,
  }),
  shade: colour({ label: 'Shade colour', help: 'Colour of what turns away from the light', default: '#000000' }),
  shadeOpacity: strength('Shade amount', 'How much of the shade colour is laid, in %', 60),
  shadeBlend: choice({
    label: 'Shade blend',
    help: 'How the shade colour mixes with what lies below it',
    default: 'multiply',
    options: BLEND_MODES,
  }),
  gloss: curve({
    label: 'Gloss',
    help: 'Remaps the brightness of the slope: curves that rise and fall make bands as on metal',
    default: 'linear',
  }),
} as const

type Values = EvaluatedValues<typeof parameters>

export const bevel = defineCoat({
  kind: 'bevel',
  label: 'Bevel',
  help: 'A slope along the edge, lit from one side and in shade on the other',
  parameters,
  headline: 'width',
  ownBlend: true,
  group: () => 'face',
  reach(values, scale) {
    const width = values.side === 'inside' ? 0 : scale.px(values.width)
    // The light reads the slope of neighbouring pixels.
    return even(width + blurReach(scale.px(values.smoothing) / 2) + 2)
  },
  measures: (values, scale) => scale.px(values.width) + 2,
  marks({ side, width }, scale) {
    const moves = { inside: -1, outside: 1, across: 0.5, sunk: -1 }[side]
    return [{ parameter: 'width', at: moves * scale.px(width), moves, deep: moves < 0 }]
  },
  layers(values, tools): Layer[] {
    if (tools.px(values.width) <= 0 || values.relief === 0) return []
    const light = values.ownLight ? { azimuth: values.azimuth, elevation: values.elevation } : tools.light
    const brightness = tools.mapped(tools.lit(bevelHeight(values, tools), light), values.gloss)
    const flat = readCurve(values.gloss)(sinDegrees(light.elevation))
    const where = SHOWN[values.side]
    // What is brighter than the flat face is lit, what is darker is in shade; the least difference is rounding.
    const layers: Layer[] = [
      {
        where,
        mask: tools.ramped(brightness, flat - LEAST, -1 / Math.max(0.02, flat)),
        paint: { type: 'solid', colour: values.shade },
        opacity: values.shadeOpacity / 100,
        blend: values.shadeBlend,
      },
      {
        where,
        mask: tools.ramped(brightness, flat + LEAST, 1 / Math.max(0.02, 1 - flat)),
        paint: { type: 'solid', colour: values.lit },
        opacity: values.litOpacity / 100,
        blend: values.litBlend,
      },
    ]
    return layers.filter(({ opacity }) => opacity! > 0)
  },
})

const LEAST = 1e-4
const SHOWN = { inside: 'inside', outside: 'outside', across: 'everywhere', sunk: 'everywhere' } as const

/** The height field of a bevel in px; 0 far outside. */
export function bevelHeight(values: Values, tools: CoatTools): PlaneRecipe {
  const width = tools.px(values.width)
  const height = (width * values.relief) / 100
  const d = tools.distance()
  const smooth = (plane: PlaneRecipe) => tools.blurred(plane, tools.px(values.smoothing) / 2)
  if (values.side === 'sunk') {
    // A valley: both sides fall to the edge. Measured down from their tops, so that it is 0 far away.
    const up = tools.ramped(tools.absolute(d), 0, 1 / width)
    return smooth(tools.mapped(up, values.profile, height, -readCurve(values.profile)(1)))
  }
  const foot = { inside: 0, outside: width, across: width / 2 }[values.side]
  const up = tools.ramped(d, foot, -1 / width)
  return smooth(tools.mapped(up, values.profile, height, -readCurve(values.profile)(0)))
}
