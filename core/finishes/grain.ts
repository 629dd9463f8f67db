import { choice, toggle } from '../values/parameter-kinds'
import { every, percent, seed, span } from './common-parameters'
import { defineFinish } from './definition'
import { inDisplay } from './light'

export const grain = defineFinish({
  kind: 'grain',
  label: 'Grain',
  help: 'Noise as of film on what is there',
  parameters: {
    amount: percent(
      'Amount',
      'How far even grains of one pixel move a value at most, in % of the whole range; others move it as much on the whole, seldom up to twice as far',
      12,
    ),
    size: span('Size', 'Size of a grain', 1, [0, 12]),
    coloured: toggle({ label: 'Coloured', help: 'Red, green and blue each have grains of their own', default: false }),
    spread: choice({
      label: 'Spread',
      help: 'Even: all strengths alike. Bell: mostly weak, seldom strong. Both move as much on the whole',
      default: 'bell',
      options: [
        { value: 'even', label: 'Even' },
        { value: 'bell', label: 'Bell' },
      ],
    }),
    byLightness: percent('By lightness', 'How much weaker it is towards black and white, in %', 0),
    every: every(1),
    seed,
  },
  headline: 'amount',
  reads: 'pixel',
  idle: ({ amount }) => amount === 0,
  restless: ({ every }) => every !== 0,
  rows({ amount, size, coloured, spread, byLightness, every, seed }, bench) {
    const { kernels, px } = bench
    const throwOf = bench.seed(every, seed)
    const grain = { size: px(size), amount: amount / 100, by: byLightness / 100, coloured, bell: spread === 'bell' }
    return inDisplay(bench, (rows) => kernels.grain(rows, grain, throwOf))
  },
})
