import { cosDegrees, sinDegrees } from '../kernels/exact'
import { pixelColour } from '../paint/ramp'
import { choice, colour } from '../values/parameter-kinds'
import { angle, percent, span, way } from './common-parameters'
import { defineFinish } from './definition'

export const lines = defineFinish({
  kind: 'lines',
  label: 'Lines',
  help: 'Fine lines over the picture, as on a screen or in print',
  parameters: {
    angle: angle('Direction in which the lines run, in degrees: 0 lies flat', 0),
    distance: span('Distance', 'From one line to the next', 6, [1, 60]),
    share: percent('Share', 'Width of a line in % of the distance', 40),
    softness: span('Softness', 'Width of the edges of a line', 1, [0, 12]),
    shift: way('Shift', 'Moves the lines across; one distance closes the loop', 0),
    as: choice({
      label: 'As',
      help: 'Dark lines, gaps, or lines of a colour',
      default: 'dark',
      options: [
        { value: 'dark', label: 'Dark' },
        { value: 'clear', label: 'Clear' },
        { value: 'colour', label: 'Colour' },
      ],
    }),
    amount: percent('Amount', 'How dark, clear or coloured the lines are, in %', 40),
    colour: colour({
      label: 'Colour',
      help: 'Colour of the lines',
      default: '#FFFFFF',
      when: { parameter: 'as', is: ['colour'] },
    }),
  },
  headline: 'distance',
  reads: 'pixel',
  idle: ({ amount, share }) => amount === 0 || share === 0,
  rows({ angle, distance, share, softness, shift, as, amount, colour }, { kernels, px, linear, area, wash }) {
    const period = Math.max(1, px(distance))
    const [dx, dy] = [sinDegrees(angle) / period, cosDegrees(angle) / period]
    // Lines of a piece travel with it.
    const from = (wash ? 0 : area.left * dx + area.top * dy) + px(shift) / period
    const map = { a: dx, b: dy, c: 0, d: 0, e: -from, f: 0 }
    const steep = period / Math.max(1, px(softness))
    const paint = pixelColour(colour, linear)
    return (rows) => {
      const mark = kernels.mark()
      const plane = kernels.placeLines(rows.box, false, share / 100, steep, map)
      if (as === 'colour') kernels.drawTo(rows, plane, paint, amount / 100)
      else kernels.fade(rows, plane, amount / 100, as === 'clear')
      kernels.release(mark)
    }
  },
})
