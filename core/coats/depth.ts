import { length, number, paint, toggle } from '../values/parameter-kinds'
import type { EvaluatedValues } from '../values/evaluated'
import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Rgba } from '../units'
import { direction, ownDirection } from './common-parameters'
import type { CoatScale, Layer } from './definition'
import { defineCoat } from './definition'

const parameters = {
  length: length({
    label: 'Length',
    help: 'How far the body goes back, in px or % of the piece',
    default: 30,
    min: 0,
    max: 2000,
    step: 0.5,
    slider: [0, 200],
  }),
  ownDirection,
  direction: direction('Where the body goes to, in degrees anticlockwise: 0 is to the right, −90 straight down', -60),
  taper: number({
    label: 'Taper',
    help: 'Size of the far end in % of the near one',
    default: 100,
    min: 0,
    max: 200,
    step: 1,
    unit: '%',
  }),
  near: paint({ label: 'Near paint', help: 'Paint of the sides at the shape', default: '#B8324A' }),
  far: paint({ label: 'Far paint', help: 'Paint of the sides at the far end', default: '#4A0F22' }),
  sideLight: number({
    label: 'Side light',
    help: 'How much the sides are told apart by the light that falls on them, in %',
    outlineOnly: true,
    default: 50,
    min: 0,
    max: 100,
    step: 1,
    unit: '%',
  }),
  knockOut: toggle({
    label: 'Knock out',
    help: 'Keeps the body from showing through a half-transparent face',
    default: true,
  }),
} as const

type Values = EvaluatedValues<typeof parameters>

function way(values: Values, scale: CoatScale) {
  const towards = values.ownDirection ? values.direction : scale.light.azimuth + 180
  const length = scale.px(values.length)
  return { dx: length * cosDegrees(towards), dy: -length * sinDegrees(towards) }
}

const BLACK: Rgba = [0, 0, 0, 1]
const WHITE: Rgba = [1, 1, 1, 1]

export const depth = defineCoat({
  kind: 'depth',
  label: 'Depth',
  help: 'The shape as a body: swept back along a direction, its sides lit',
  parameters,
  headline: 'length',
  group: () => 'behind',
  reach(values, scale) {
    const { dx, dy } = way(values, scale)
    // A far end that is larger than the near one sticks out on all sides.
    const grown = Math.max(0, values.taper / 100 - 1)
    // It grows about a point within the shape.
    const [w, h] = [scale.extent.w * grown, scale.extent.h * grown]
    return {
      left: Math.max(0, -dx) + w + 2,
      right: Math.max(0, dx) + w + 2,
      top: Math.max(0, -dy) + h + 2,
      bottom: Math.max(0, dy) + h + 2,
    }
  },
  marks(values, scale) {
    const { dx } = way(values, scale)
    const length = scale.px(values.length)
    return length === 0 ? [] : [{ parameter: 'length', at: dx, moves: dx / length }]
  },
  layers(values, tools): Layer[] {
    const { dx, dy } = way(values, tools)
    if (dx === 0 && dy === 0 && values.taper === 100) return []
    const { cover, depth: along, shade } = tools.swept(dx, dy, values.taper / 100, tools.light)
    const where = values.knockOut ? 'outside' : 'everywhere'
    const sides = values.sideLight / 100
    // The far paint is laid on the near one as strongly as the side lies deep.
    const over: Layer['over'] = [
      { mask: along, paint: values.far, along },
      { mask: tools.ramped(shade, 0.5, -2), paint: { type: 'solid', colour: BLACK }, opacity: 0.8 * sides },
      {
        mask: tools.ramped(shade, 0.5, 2),
        paint: { type: 'solid', colour: WHITE },
        opacity: 0.5 * sides,
        blend: 'soft-light',
      },
    ]
    // The body holds the shape: on the edge only what it covers beside the shape shows.
    const mask = values.knockOut ? tools.band(tools.coverage(), cover, 1) : cover
    return [{ where, mask, paint: values.near, along, over: over.filter(({ opacity = 1 }) => opacity > 0) }]
  },
})
