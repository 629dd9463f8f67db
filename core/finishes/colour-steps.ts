import { choice, number } from '../values/parameter-kinds'
import { percent } from './common-parameters'
import { defineFinish } from './definition'
import { inDisplay } from './light'

export const colourSteps = defineFinish({
  kind: 'colour-steps',
  label: 'Colour steps',
  help: 'A few levels in place of all: of each channel, or of lightness alone',
  parameters: {
    levels: number({
      label: 'Levels',
      help: 'How many values are left',
      ...({ default: 8, min: 2, max: 256, step: 1, unit: '', slider: [2, 32] } as const),
    }),
    of: choice({
      label: 'Of',
      help: 'Channels: red, green and blue each. Lightness: colours keep their hue',
      default: 'channels',
      options: [
        { value: 'channels', label: 'Channels' },
        { value: 'lightness', label: 'Lightness' },
      ],
    }),
    dither: percent('Dither', 'Breaks the steps into grains that keep the mean, in %', 0),
  },
  headline: 'levels',
  reads: 'pixel',
  rows({ levels, of, dither }, bench) {
    const { kernels } = bench
    // A number on its way between two keys is the nearest whole one.
    const count = Math.round(levels)
    const throwOf = bench.seed(0, 0)
    return inDisplay(bench, (rows) => kernels.inSteps(rows, count, of === 'lightness', dither / 100, throwOf))
  },
})
