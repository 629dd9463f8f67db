import { choice, paint } from '../values/parameter-kinds'
import type { EvaluatedValues } from '../values/evaluated'
import { blurReach } from '../kernels/gauss'
import { normalQuantile } from '../kernels/normal'
import { falloff, firmness, grain, knockOut, softness } from './common-parameters'
import type { CoatTools, CoatScale, Layer, PlaneRecipe } from './definition'
import { defineCoat, even, SIDES } from './definition'

const parameters = {
  side: choice({
    label: 'Side',
    help: 'Outside: spreads off the edge. Inside: lights the face from its edge',
    default: 'outside',
    options: [SIDES.outside, SIDES.inside],
  }),
  start: choice({
    label: 'Starts at',
    help: 'Edge: strongest at the edge. Centre: strongest in the middle, fading towards the edge',
    default: 'edge',
    options: [
      { value: 'edge', label: 'Edge' },
      { value: 'centre', label: 'Centre' },
    ],
    when: { parameter: 'side', is: ['inside'] },
  }),
  reach: softness('Reach', 'How far the glow goes from the edge, in px or % of the piece', 30),
  firmness,
  falloff: falloff('How the glow fades from the edge to the end of its reach', 'bell'),
  measure: choice({
    label: 'Measure',
    help: 'Soft: by a Gaussian, rounder and weaker at thin parts. Even: by the distance to the edge',
    default: 'soft',
    options: [
      { value: 'soft', label: 'Soft' },
      { value: 'even', label: 'Even' },
    ],
  }),
  paint: paint({
    label: 'Paint',
    help: 'One colour, or a gradient along the edge: its first colour at the edge, its last at the end of the reach',
    default: '#FFB347',
  }),
  grain,
  knockOut: knockOut('Keeps the glow from showing through a half-transparent face'),
} as const

type Values = EvaluatedValues<typeof parameters>

/** A Gaussian of half the reach has this much left, twice its value, at the end of the reach: 2·(1 − Φ(2)). */
const TAIL = 0.0455003

function parts(values: Values, scale: CoatScale) {
  const reach = scale.px(values.reach)
  const firm = (values.firmness / 100) * reach
  return { firm, soft: reach - firm, sigma: (reach - firm) / 2 }
}

export const glow = defineCoat({
  kind: 'glow',
  label: 'Glow',
  help: 'Light that spreads off the edge, or lights the face from it',
  parameters,
  headline: 'reach',
  group: (values) => (values.side === 'inside' ? 'face' : 'behind'),
  reach(values, scale) {
    const { firm, soft, sigma } = parts(values, scale)
    return even(firm + (values.measure === 'even' ? soft : blurReach(sigma)) + 2)
  },
  measures(values, scale) {
    const { firm, soft } = parts(values, scale)
    if (values.measure === 'even') return firm + soft + 1
    return firm > 0 ? firm + 2 : 0
  },
  marks({ side, reach }, scale) {
    const moves = side === 'inside' ? -1 : 1
    return [{ parameter: 'reach', at: moves * scale.px(reach), moves, deep: side === 'inside' }]
  },
  falloffAt(values, scale, x) {
    const { firm, soft, sigma } = parts(values, scale)
    if (soft <= 0 || (values.side === 'inside' && values.start === 'centre')) return null
    const outward = values.side === 'inside' ? -1 : 1
    if (values.measure === 'even') return outward * (firm + (1 - x) * soft)
    // Twice what the Gaussian leaves, its tail moved to 0: see softly.
    return outward * (firm + sigma * normalQuantile(1 - (x * (1 - TAIL) + TAIL) / 2))
  },
  layers(values, tools): Layer[] {
    const { firm, soft } = parts(values, tools)
    if (firm + soft <= 0) return []
    const inside = values.side === 'inside'
    // 1 at the edge (and within the firm part), 0 at the end of the reach.
    const near = values.measure === 'even' ? evenly(values, tools) : softly(values, tools)
    const strength = inside && values.start === 'centre' ? tools.complemented(near) : near
    const shaped = tools.mapped(strength, values.falloff)
    const mask = values.grain > 0 ? tools.grained(shaped, values.grain / 100) : shaped
    const where = inside ? 'inside' : values.knockOut ? 'outside' : 'everywhere'
    const { paint } = values
    return [{ where, mask, paint, ...(paint.type === 'edge' ? { along: tools.complemented(strength) } : {}) }]
  },
})

function evenly(values: Values, tools: CoatTools): PlaneRecipe {
  const { firm, soft } = parts(values, tools)
  const outward = values.side === 'inside' ? -1 : 1
  // 1 − (|d| − firm) / soft, cut to 0..1; never steeper than one pixel, about the same middle.
  const wide = Math.max(1, soft)
  return tools.ramped(tools.distance(), outward * (firm + (soft + wide) / 2), -outward / wide)
}

/** Twice the Gaussian of the shape is 1 at a straight edge; its tail is moved so that the reach is an end. */
function softly(values: Values, tools: CoatTools): PlaneRecipe {
  const { firm, sigma } = parts(values, tools)
  const inside = values.side === 'inside'
  const edge = inside ? -firm : firm
  // From a sigma of 2 px on a blur hides how an edge was covered.
  const grown = firm <= 0 ? tools.coverage() : sigma >= 2 ? tools.swollen(edge) : tools.grown(edge)
  const blurred = tools.blurred(grown, sigma)
  const source = inside ? tools.complemented(blurred) : blurred
  return tools.ramped(source, TAIL / 2, 2 / (1 - TAIL))
}
