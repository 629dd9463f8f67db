import { grownRings } from '../outline/grown'
import { join, way } from './common-parameters'
import { defineStep } from './definition'

export const grow = defineStep({
  kind: 'grow',
  label: 'Grow',
  help: 'Moves the edge outward, or inward below 0, as far at every place',
  parameters: {
    by: way('By', 'How far the edge is moved', 8),
    join,
  },
  headline: 'by',
  works: 'areas',
  idle: ({ by }) => (typeof by === 'number' ? by : by.value) === 0,
  apply: ({ by, join }, mould, work) =>
    mould.map((part) => ({ ...part, form: grownRings(work.rings(part), work.px(by), join, work) })),
  grips: ({ by }, { whole: { left, top, right }, px }) => {
    const from = { x: (left + right) / 2, y: top }
    return [
      { label: 'How far it grows', from, at: { x: from.x, y: top - px(by) }, values: ({ y }) => ({ by: top - y }) },
    ]
  },
  way: (from, to, { px }) => Math.abs(px(to.by) - px(from.by)),
})
