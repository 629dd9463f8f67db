import { filletedRings } from '../outline/fillet'
import { span } from './common-parameters'
import { defineStep } from './definition'

export const round = defineStep({
  kind: 'round',
  label: 'Round',
  help: 'Rounds corners by circles that touch both sides, as large as they have room',
  parameters: {
    outer: span('Outer', 'Radius of the corners that point outward', 12, [0, 100]),
    inner: span('Inner', 'Radius of the corners that point inward', 0, [0, 100]),
  },
  headline: 'outer',
  works: 'areas',
  idle: ({ outer, inner }) =>
    [outer, inner].every((length) => (typeof length === 'number' ? length : length.value) === 0),
  apply: ({ outer, inner }, mould, work) =>
    mould.map((part) => ({
      ...part,
      form: filletedRings(work.rings(part), { outer: work.px(outer), inner: work.px(inner) }, work.tolerance),
    })),
  grips: ({ outer }, { whole: { left, top }, px }) => [
    {
      label: 'Radius of the outer corners',
      from: { x: left, y: top },
      at: { x: left + px(outer), y: top },
      values: ({ x }) => ({ outer: x - left }),
    },
  ],
  way: (from, to, { px }) => Math.max(Math.abs(px(to.outer) - px(from.outer)), Math.abs(px(to.inner) - px(from.inner))),
})
