import { pow } from '../kernels/exact'
import { number } from '../values/parameter-kinds'
import { channel, percent } from './common-parameters'
import { defineFinish } from './definition'
import { byDisplay, onChannel } from './light'

export const tone = defineFinish({
  kind: 'tone',
  label: 'Tone',
  help: 'Which values become black and white, and how the middle lies between them',
  parameters: {
    black: percent('Black', 'What becomes the darkest value, in %', 0),
    white: percent('White', 'What becomes the brightest value, in %', 100),
    middle: number({
      label: 'Middle',
      help: 'Above 1 the middle tones grow brighter, below darker: the exponent is 1 by it (SVG feComponentTransfer, gamma)',
      ...({ default: 1, min: 0.05, max: 20, step: 0.01, unit: '', slider: [0.2, 3] } as const),
    }),
    outBlack: percent('Out black', 'The darkest value that comes out, in %', 0),
    outWhite: percent('Out white', 'The brightest value that comes out, in %', 100),
    channel,
  },
  headline: 'middle',
  reads: 'pixel',
  idle: ({ black, white, middle, outBlack, outWhite }) =>
    black === 0 && white === 100 && middle === 1 && outBlack === 0 && outWhite === 100,
  rows({ black, white, middle, outBlack, outWhite, channel }, bench) {
    const [low, span] = [black / 100, (white - black) / 100]
    const [from, to] = [outBlack / 100, outWhite / 100]
    // Black and white in one place part what lies on both sides of it.
    const place = (v: number) => (span === 0 ? (v < low ? 0 : 1) : Math.min(1, Math.max(0, (v - low) / span)))
    const curve = (v: number) => from + (to - from) * pow(place(v), 1 / middle)
    return byDisplay(bench, onChannel(channel, curve))
  },
})
