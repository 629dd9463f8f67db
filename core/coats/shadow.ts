import { choice, colour, length, number, toggle } from '../card/parameters'
import type { SettledValues } from '../card/settled'
import { cosDegrees, sinDegrees } from '../kernels/exact'
import { blurReach } from '../kernels/gauss'
import type { Px } from '../units'
import type { CoatBench, Layer } from './definition'
import { defineCoat, even, SIDES } from './definition'

const parameters = {
  side: choice({
    label: 'Side',
    help: 'Outside: cast on what is behind. Inside: cast into the face',
    default: 'outside',
    options: [SIDES.outside, SIDES.inside],
  }),
  colour: colour({ label: 'Colour', help: 'Colour of the shadow, as #RRGGBB or #RRGGBBAA', default: '#000000' }),
  distance: length({
    label: 'Distance',
    help: 'How far the shadow is moved, in px or % of the piece',
    default: 12,
    min: 0,
    max: 2000,
    step: 0.5,
    slider: [0, 120],
  }),
  ownDirection: toggle({
    label: 'Own direction',
    help: 'Off: the shadow falls away from the key light of the card. On: in the direction set here',
    default: false,
  }),
  direction: number({
    label: 'Direction',
    help: 'Where the shadow falls to, in degrees anticlockwise: 0 is to the right, −90 straight down',
    default: -60,
    min: -36_000,
    max: 36_000,
    step: 1,
    unit: '°',
    slider: [-180, 180],
  }),
  softness: length({
    label: 'Softness',
    help: 'Width of the soft edge, in px or % of the piece; the Gaussian has half of it as its sigma (CSS Backgrounds 3)',
    default: 16,
    min: 0,
    max: 1000,
    step: 0.5,
    slider: [0, 160],
  }),
  firmness: number({
    label: 'Firmness',
    help: 'How much of the softness becomes solid spread instead of blur, in %',
    default: 0,
    min: 0,
    max: 100,
    step: 1,
    unit: '%',
  }),
  knockOut: toggle({
    label: 'Knock out',
    help: 'Keeps the shadow from showing through a half-transparent face',
    default: true,
  }),
} as const

type Values = SettledValues<typeof parameters>

/** Light from azimuth a throws the shadow to (−cos a, +sin a), y down (common practice, no published source). */
function cast(values: Values, bench: Pick<CoatBench, 'px' | 'lightAzimuth'>) {
  const towards = values.ownDirection ? values.direction : bench.lightAzimuth + 180
  const distance = bench.px(values.distance)
  const softness = bench.px(values.softness)
  const firmness = values.firmness / 100
  return {
    dx: distance * cosDegrees(towards),
    dy: -distance * sinDegrees(towards),
    spread: firmness * softness,
    // CSS: the Gaussian's standard deviation is half the blur radius.
    sigma: ((1 - firmness) * softness) / 2,
  }
}

export const shadow = defineCoat({
  kind: 'shadow',
  label: 'Shadow',
  help: 'The shape as a shadow: cast on what lies behind it, or into its own face',
  parameters,
  headline: 'distance',
  group: (values) => (values.side === 'inside' ? 'face' : 'behind'),
  reach(values, bench) {
    const { dx, dy, spread, sigma } = cast(values, bench)
    // Nothing is laid outside, but the blur must see the hole's true form around the edge.
    if (values.side === 'inside') return even(blurReach(sigma) + 1)
    const around: Px = spread + blurReach(sigma) + 1
    return {
      left: Math.max(0, around - dx),
      right: Math.max(0, around + dx),
      top: Math.max(0, around - dy),
      bottom: Math.max(0, around + dy),
    }
  },
  layers(values, bench): Layer[] {
    const { dx, dy, spread, sigma } = cast(values, bench)
    const paint = { type: 'solid', colour: values.colour } as const
    if (values.side === 'inside') {
      // Inset shadow: the hole is the shape shrunk by the spread; what is not hole is shadow.
      const hole = spread > 0 ? bench.grown(-spread, spread + 1, dx, dy) : bench.coverage(dx, dy)
      return [{ field: 'inside', mask: bench.complemented(bench.blurred(hole, sigma)), paint }]
    }
    const shape = spread > 0 ? bench.grown(spread, spread + 1, dx, dy) : bench.coverage(dx, dy)
    return [{ field: 'behind', mask: bench.blurred(shape, sigma), paint, knockOut: values.knockOut }]
  },
})
