import { choice, colour, length } from '../values/parameter-kinds'
import type { EvaluatedValues } from '../values/evaluated'
import { cosDegrees, sinDegrees } from '../kernels/exact'
import { blurReach } from '../kernels/gauss'
import { normalQuantile } from '../kernels/normal'
import type { Px } from '../units'
import { direction, distance, falloff, firmness, grain, knockOut, ownDirection, softness } from './common-parameters'
import type { CoatTools, CoatScale, Layer, PlaneRecipe } from './definition'
import { defineCoat, even, SIDES } from './definition'

const byDistance = { parameter: 'cast', is: ['distance'] } as const

const parameters = {
  side: choice({
    label: 'Side',
    help: 'Outside: cast on what is behind. Inside: cast into the face',
    default: 'outside',
    options: [SIDES.outside, SIDES.inside],
  }),
  colour: colour({ label: 'Colour', help: 'Colour of the shadow, as #RRGGBB or #RRGGBBAA', default: '#000000' }),
  cast: choice({
    label: 'Set by',
    help: 'Distance: each value by hand. Lift: one height above the page, the rest follows from the key light',
    default: 'distance',
    options: [
      { value: 'distance', label: 'Distance' },
      { value: 'lift', label: 'Lift' },
    ],
  }),
  lift: length({
    label: 'Lift',
    help: 'Height above the page, in px or % of the piece: the shadow moves away, softens and fades with it',
    default: 24,
    min: 0,
    max: 2000,
    step: 0.5,
    slider: [0, 160],
    when: { parameter: 'cast', is: ['lift'] },
  }),
  distance: {
    ...distance('Distance', 'How far the shadow is moved, in px or % of the piece', 12),
    when: byDistance,
  },
  ownDirection,
  direction: direction(
    'Where the shadow falls to, in degrees anticlockwise: 0 is to the right, −90 straight down',
    -60,
  ),
  softness: {
    ...softness(
      'Softness',
      'Width of the soft edge, in px or % of the piece; the Gaussian has half of it as its sigma (CSS Backgrounds 3)',
      16,
    ),
    when: byDistance,
  },
  firmness,
  falloff: falloff('How the shadow fades from whole to clear'),
  grain,
  knockOut: knockOut('Keeps the shadow from showing through a half-transparent face'),
} as const

type Values = EvaluatedValues<typeof parameters>

/** Width of the soft edge per px of height: a light as wide as a third of its distance. Ours. */
const SOFTNESS_PER_LIFT = 0.7
/** From this sigma on a blur hides how an edge was covered. */
const SOFT: Px = 2

/** Light from azimuth a throws the shadow to (−cos a, +sin a), y down (common practice, no published source). */
function castOf(values: Values, scale: CoatScale) {
  const towards = values.ownDirection ? values.direction : scale.light.azimuth + 180
  const lifted = values.cast === 'lift'
  const lift = scale.px(values.lift)
  // Parallel light at elevation e: a point at height h throws its shadow h / tan e away.
  const e = scale.light.elevation
  const away = lifted ? lift * Math.min(20, cosDegrees(e) / Math.max(1e-6, sinDegrees(e))) : scale.px(values.distance)
  const softness = lifted ? lift * SOFTNESS_PER_LIFT : scale.px(values.softness)
  const firmness = values.firmness / 100
  return {
    dx: away * cosDegrees(towards),
    dy: -away * sinDegrees(towards),
    spread: firmness * softness,
    // CSS: the Gaussian's standard deviation is half the blur radius.
    sigma: ((1 - firmness) * softness) / 2,
    // The higher, the more light comes round the shape: half at its own size. Ours.
    opacity: lifted ? 1 / (1 + lift / Math.max(1e-6, scale.px({ unit: '%', value: 100 }))) : 1,
  }
}

export const shadow = defineCoat({
  kind: 'shadow',
  label: 'Shadow',
  help: 'The shape as a shadow: cast on what lies behind it, or into its own face',
  parameters,
  headline: 'distance',
  group: (values) => (values.side === 'inside' ? 'face' : 'behind'),
  reach(values, scale) {
    const { dx, dy, spread, sigma } = castOf(values, scale)
    // Nothing is laid outside, but the blur must see the hole's true form around the edge.
    if (values.side === 'inside') return even(blurReach(sigma) + 1)
    const around: Px = spread + blurReach(sigma) + 2
    return {
      left: Math.max(0, around - dx),
      right: Math.max(0, around + dx),
      top: Math.max(0, around - dy),
      bottom: Math.max(0, around + dy),
    }
  },
  measures(values, scale) {
    const { spread } = castOf(values, scale)
    return spread > 0 ? spread + 2 : 0
  },
  meanUpTo(values, scale) {
    // A blurred shape is as linear as a mean. What hides it is averaged apart then: where an edge goes w px, half of the
    // time over a slope of 1/(σ√2π), that is wrong by w/(8σ√2π).
    const { spread, sigma } = castOf(values, scale)
    const linear = values.side === 'outside' && values.falloff === 'linear' && values.grain === 0 && spread === 0
    return linear ? sigma / 9 : 0
  },
  marks(values, scale) {
    const { dx, spread, sigma } = castOf(values, scale)
    // An inside shadow grows inward from the moved edge.
    const way = values.side === 'inside' ? -1 : 1
    if (values.cast === 'lift') {
      const lift = scale.px(values.lift)
      return lift === 0 ? [] : [{ parameter: 'lift', at: dx, moves: dx / lift }]
    }
    const away = scale.px(values.distance)
    const soft = spread + 2 * sigma
    const marks = [{ parameter: 'softness', at: dx + way * soft, moves: way }]
    return away === 0 ? marks : [{ parameter: 'distance', at: dx, moves: dx / away }, ...marks]
  },
  falloffAt(values, scale, x) {
    const { dx, spread, sigma } = castOf(values, scale)
    if (sigma <= 0) return null
    // A blurred edge is the normal distribution; at its very ends it never arrives.
    const z = normalQuantile(1 - Math.min(0.995, Math.max(0.005, x)))
    return values.side === 'inside' ? dx - spread - sigma * z : dx + spread + sigma * z
  },
  layers(values, tools): Layer[] {
    const { dx, dy, spread, sigma, opacity } = castOf(values, tools)
    const paint = { type: 'solid', colour: values.colour } as const
    const inside = values.side === 'inside'
    // Inset shadow: the hole is the shape shrunk by the spread; what is not hole is shadow.
    const form = shapeOf(tools, inside ? -spread : spread, sigma, dx, dy)
    const soft = tools.blurred(form, sigma)
    const knockedOut = !inside && values.knockOut
    const seen = inside ? tools.complemented(soft) : knockedOut && sigma < 1 ? besideFace(tools, soft, 1 - sigma) : soft
    const cover = finished(values, tools, seen)
    const where = inside ? 'inside' : knockedOut ? 'outside' : 'everywhere'
    return [{ where, mask: cover, paint, opacity }]
  },
})

function shapeOf(tools: CoatTools, spread: Px, sigma: Px, dx: Px, dy: Px): PlaneRecipe {
  if (spread === 0) return tools.coverage(dx, dy)
  return sigma >= SOFT ? tools.swollen(spread, dx, dy) : tools.grown(spread, undefined, dx, dy)
}

/**
 * What a hard shadow covers of the part of each pixel that the shape leaves free: without it, a pixel on the edge of a
 * shape that hides its shadow would show some. The softer the shadow (`firm` from 1 to 0), the less they share an edge.
 */
const besideFace = (tools: CoatTools, shadow: PlaneRecipe, firm: number) =>
  tools.band(tools.mapped(tools.coverage(), 'linear', firm), shadow, 1)

function finished({ falloff, grain }: Values, tools: CoatTools, plane: PlaneRecipe): PlaneRecipe {
  const shaped = falloff === 'linear' ? plane : tools.mapped(plane, falloff)
  return grain > 0 ? tools.grained(shaped, grain / 100) : shaped
}
