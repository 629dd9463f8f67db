import { isLine, strandsOf } from '../outline/mould'
import { choice } from '../values/parameter-kinds'
import { join, span } from './common-parameters'
import { defineStep } from './definition'

export const line = defineStep({
  kind: 'line',
  label: 'Line',
  help: 'Makes a line of the edge: a ring of any shape, hollow letters; a path gets another thickness',
  parameters: {
    thickness: span('Thickness', 'Thickness of the line', 8, [0, 80]),
    side: choice({
      label: 'Side',
      help: 'On which side of the edge it lies',
      default: 'across',
      options: [
        { value: 'across', label: 'Across' },
        { value: 'inside', label: 'Inside' },
        { value: 'outside', label: 'Outside' },
      ],
    }),
    cap: choice({
      label: 'Ends',
      help: 'Form of the ends, where a part of it is drawn (SVG 2, stroke-linecap)',
      default: 'round',
      options: [
        { value: 'butt', label: 'Cut' },
        { value: 'round', label: 'Round' },
        { value: 'square', label: 'Square' },
      ],
    }),
    join,
  },
  headline: 'thickness',
  works: 'both',
  apply: ({ thickness, side, cap, join }, mould, { px }) =>
    mould.map((part) => {
      const { form } = part
      const style = { thickness: px(thickness), cap, join, limit: 4, side }
      // What is a line already has no inside to lie on.
      if (isLine(form)) return { ...part, form: { ...form, ...style } }
      return { ...part, form: { ...style, strands: strandsOf(form), within: form } }
    }),
  way: (from, to, { px }) => Math.abs(px(to.thickness) - px(from.thickness)),
})
