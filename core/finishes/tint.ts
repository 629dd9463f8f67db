import { paint, toggle } from '../values/parameter-kinds'
import { defineFinish } from './definition'
import { inDisplay } from './light'

export const tint = defineFinish({
  kind: 'tint',
  label: 'Tint',
  help: 'Colours by lightness: the first colour of a gradient for black, the last for white; or all colours turned round',
  parameters: {
    recolour: toggle({
      label: 'Recolour',
      help: 'Puts the colours of the gradient in place of those that are there',
      default: true,
    }),
    colours: paint({
      label: 'Colours',
      help: 'The gradient over the lightness of what is there (BT.709 luma); where it is clear the picture shows',
      default: '#1B1420',
      second: '#F6C667',
      coloursOnly: true,
      when: { parameter: 'recolour', is: [true] },
    }),
    invert: toggle({ label: 'Invert', help: 'Turns all colours round first: black becomes white', default: false }),
  },
  headline: 'colours',
  reads: 'pixel',
  idle: ({ recolour, invert }) => !recolour && !invert,
  rows({ recolour, colours, invert }, bench) {
    const { kernels } = bench
    const ramp = recolour ? bench.colours(colours) : null
    return inDisplay(bench, (rows) => kernels.byLuma(rows, ramp, invert))
  },
})
