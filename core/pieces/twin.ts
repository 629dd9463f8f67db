import { numberValue } from '../values/evaluated'
import type { Movable } from '../values/moving'
import { choice, number, piece } from '../values/parameter-kinds'
import { clockOf, CLOCK_PARAMETERS, delayed } from './clock'
import { definePiece } from './definition'

const LATEST = { min: -100_000, max: 100_000 }

export const twin = definePiece({
  kind: 'twin',
  label: 'Twin',
  help: 'Shows another piece again, always in step with it: at its own place, with coats, finishes and masks of its own',
  parameters: {
    source: piece({
      label: 'Shows',
      help: 'The piece that it shows again, whether that one is shown itself or not',
      use: 'picture',
    }),
    way: choice({
      label: 'Place',
      help: 'Stands where it is put; or goes the way of the other piece too, moved by its own X and Y',
      default: 'own',
      options: [
        { value: 'own', label: 'Its own' },
        { value: 'with', label: 'Goes along' },
      ],
    }),
    delay: number({
      label: 'Delay',
      help: 'Shows what the other piece was so many frames ago, round the loop',
      ...({ default: 0, ...LATEST, step: 1, unit: '', slider: [-50, 50] } as const),
    }),
    ...CLOCK_PARAMETERS,
  },
  coatsFrom: 'alpha',
  holds: 'another',
  clock(piece) {
    const { delay } = piece as { delay: Movable<number> }
    const clock = clockOf(piece)
    return delay === 0 ? clock : delayed(clock, (at) => numberValue(delay, at, LATEST))
  },
  shows: (piece) => (piece as { source: string | null }).source,
})
