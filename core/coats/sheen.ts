import { colour, toggle } from '../values/parameter-kinds'
import type { EvaluatedValues } from '../values/evaluated'
import { cosDegrees, sinDegrees } from '../kernels/exact'
import { blurReach } from '../kernels/gauss'
import { angle, distance, falloff, softness } from './common-parameters'
import type { CoatScale, Layer } from './definition'
import { defineCoat, even } from './definition'

const parameters = {
  colour: colour({ label: 'Colour', help: 'Colour of the sheen', default: '#FFFFFF' }),
  distance: distance('Distance', 'How far the two copies of the shape are moved apart, in px or % of the piece', 24),
  direction: angle('The line along which the two copies are moved apart, in degrees anticlockwise', 30),
  softness: softness('Softness', 'How soft the copies are, in px or % of the piece', 30),
  falloff: falloff('How the sheen goes from clear to whole'),
  invert: toggle({
    label: 'Invert',
    help: 'Lays the sheen where the copies agree instead of where they differ',
    default: false,
  }),
} as const

function parts(values: EvaluatedValues<typeof parameters>, scale: CoatScale) {
  const half = scale.px(values.distance) / 2
  return {
    dx: half * cosDegrees(values.direction),
    dy: -half * sinDegrees(values.direction),
    sigma: scale.px(values.softness) / 2,
  }
}

export const sheen = defineCoat({
  kind: 'sheen',
  label: 'Sheen',
  help: 'Soft bands as on silk, where two blurred copies of the shape, moved apart, differ',
  parameters,
  headline: 'distance',
  group: () => 'face',
  reach(values, scale) {
    const { dx, dy, sigma } = parts(values, scale)
    return even(Math.max(Math.abs(dx), Math.abs(dy)) + blurReach(sigma) + 1)
  },
  layers(values, tools): Layer[] {
    const { dx, dy, sigma } = parts(values, tools)
    const copy = (way: 1 | -1) => tools.blurred(tools.coverage(way * dx, way * dy), sigma)
    const difference = tools.difference(copy(1), copy(-1))
    const bands = values.invert ? tools.complemented(difference) : difference
    const mask = values.falloff === 'linear' ? bands : tools.mapped(bands, values.falloff)
    return [{ where: 'inside', mask, paint: { type: 'solid', colour: values.colour } }]
  },
})
