import { choice, length, number, paint, toggle } from '../values/parameter-kinds'
import type { EvaluatedValues } from '../values/evaluated'
import type { Px } from '../units'
import { readColour } from '../values/colour'
import { linearToOklab, toLinear } from '../values/oklab'
import type { CoatPlace, CoatScale, Layer } from './definition'
import { defineCoat, even, SIDES } from './definition'

const parameters = {
  width: length({
    label: 'Width',
    help: 'Thickness of the line, in px or % of the piece',
    default: 8,
    min: 0,
    max: 1000,
    step: 0.5,
    slider: [0, 80],
  }),
  side: choice({
    label: 'Side',
    help: 'Where the line lies against the edge of the shape',
    default: 'outside',
    options: [SIDES.outside, SIDES.inside, SIDES.across],
  }),
  offset: length({
    label: 'Gap',
    help: 'Distance between the edge (or the stroke before it) and the line, in px or % of the piece',
    default: 0,
    min: -1000,
    max: 1000,
    step: 0.5,
    slider: [-40, 40],
  }),
  stacked: toggle({
    label: 'Stack on the stroke before',
    help: 'Starts where the next stroke nearer to the face on the same side ends, so that outlines grow outward',
    default: false,
    when: { parameter: 'side', is: ['outside', 'inside'] },
  }),
  join: choice({
    label: 'Corners',
    help: 'Form of the corners (SVG 2, stroke-linejoin)',
    default: 'round',
    options: [
      { value: 'round', label: 'Round' },
      { value: 'mitre', label: 'Mitre' },
      { value: 'bevel', label: 'Bevel' },
    ],
    outlineOnly: true,
  }),
  limit: number({
    label: 'Mitre limit',
    help: 'A corner that would stick out farther than this many widths is cut off (SVG 2, stroke-miterlimit)',
    default: 4,
    min: 1,
    max: 100,
    step: 0.5,
    unit: '',
    slider: [1, 12],
    when: { parameter: 'join', is: ['mitre'] },
    outlineOnly: true,
  }),
  paint: paint({ label: 'Paint', help: 'What the line is painted with', default: '#3D0D16' }),
} as const

type Values = EvaluatedValues<typeof parameters>

/** What is set off from a dark stroke. */
const PALE = '#F6E9D2'

/** Whether a stored paint is one dark colour all the time. */
function isDark(paint: unknown): boolean {
  const { type, colour } = paint as { type?: string; colour?: unknown }
  if (type !== 'solid' || typeof colour !== 'string') return false
  const [red, green, blue] = readColour(colour)
  const [lightness] = linearToOklab([toLinear(red), toLinear(green), toLinear(blue)])
  return lightness < 0.5
}

/** Where the line begins and ends across the edge, in render px, outward positive. */
interface Extent {
  inner: Px
  outer: Px
  /** Opacity (0–1) of the stroke that lies over this one's border to the edge, if there is one. */
  above: number
}

/** Px from the edge at which a stroke starts; a stacked one starts where the one before it ends. */
function extentOf(index: number, scale: CoatScale, place: CoatPlace<Values>): Extent {
  const { values, id } = place.siblings[index]!
  const width = scale.px(values.width)
  const gap = scale.px(values.offset)
  if (values.side === 'across') return { inner: gap - width / 2, outer: gap + width / 2, above: 0 }
  const outward = values.side === 'outside'
  let start = gap
  let above = 0
  if (values.stacked) {
    for (let i = index - 1; i >= 0; i--) {
      const before = place.siblings[i]!
      if (!before.on || before.values.side !== values.side || before.id === id) continue
      const extent = extentOf(i, scale, place)
      start = gap + (outward ? extent.outer : -extent.inner)
      // Over a gap there is nothing to join.
      if (gap === 0 && before.above) above = before.opacity
      break
    }
  }
  return outward ? { inner: start, outer: start + width, above } : { inner: -(start + width), outer: -start, above }
}

/** How far the strokes of a piece reach from its edge: they share one box and one measurement of distance. */
function farthest(scale: CoatScale, place: CoatPlace<Values>): Px {
  const reaches = place.siblings.map((sibling, i) => {
    const { inner, outer } = extentOf(i, scale, place)
    // A mitre sticks out as far as its limit allows.
    const tip = sibling.values.join === 'mitre' ? Math.max(0, outer) * (sibling.values.limit - 1) : 0
    return sibling.on ? Math.max(Math.abs(inner), Math.abs(outer) + tip) : 0
  })
  return Math.max(0, ...reaches) + 2
}

export const stroke = defineCoat({
  kind: 'stroke',
  label: 'Stroke',
  help: 'A line along the edge of the shape: outside, inside or across it; several can be stacked',
  parameters,
  headline: 'width',
  showsEdges: true,
  looks: 2,
  group: () => 'face',
  underFills: ({ side }) => side !== 'inside',
  // Where it is seen: right beneath the other one it would be hidden, and of its colour a part of it.
  beneathAnother: ({ paint }) => ({
    stacked: true,
    ...(isDark(paint) ? { paint: { type: 'solid', colour: PALE } } : {}),
  }),
  reach: (_values, scale, place) => even(farthest(scale, place)),
  measures(_values, scale, place) {
    const { inner, outer } = extentOf(place.index, scale, place)
    return outer > inner ? Math.max(Math.abs(inner), Math.abs(outer)) + 2 : 0
  },
  marks({ side }, scale, place) {
    const { inner, outer } = extentOf(place.index, scale, place)
    if (side === 'across') {
      return [
        { parameter: 'width', at: outer, moves: 0.5 },
        { parameter: 'offset', at: (inner + outer) / 2, moves: 1 },
      ]
    }
    const outward = side === 'outside'
    return [
      { parameter: 'width', at: outward ? outer : inner, moves: outward ? 1 : -1 },
      { parameter: 'offset', at: outward ? inner : outer, moves: outward ? 1 : -1 },
    ]
  },
  layers(values, tools, place): Layer[] {
    const { inner, outer, above } = extentOf(place.index, tools, place)
    // A line of no width is no line.
    if (outer <= inner) return []
    const { paint, join, limit } = values
    const grown = (edge: Px) => tools.grown(edge, { join, limit })
    const along = paint.type === 'edge' ? tools.ramped(tools.distance(), inner, 1 / (outer - inner)) : undefined
    const laid = { paint, ...(along ? { along } : {}) }
    const layers: Layer[] = []
    // The part on each side goes to that side and runs on under the edge, so that no hairline is left.
    if (outer > 0) {
      const mask = inner <= 0 ? grown(outer) : tools.band(grown(inner), grown(outer), above)
      layers.push({ where: 'outside', mask, ...laid })
    }
    if (inner < 0) {
      const far = tools.complemented(grown(inner))
      const mask = outer >= 0 ? far : tools.band(tools.complemented(grown(outer)), far, above)
      layers.push({ where: 'inside', mask, ...laid })
    }
    return layers
  },
})
