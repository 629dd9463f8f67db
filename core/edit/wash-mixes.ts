import type { Card } from '../card/schema'
import type { Frames } from '../units'
import type { WashMix } from './finishes'

// Ready-made washes: what hands put together again and again, to be changed afterwards.

export interface ReadyWash {
  name: string
  help: string
  /** Frames that it lasts; null for the whole loop. */
  frames(card: Card): Frames | null
  finishes(card: Card): WashMix
}

const few = (seconds: number) => (card: Card) =>
  Math.max(2, Math.round((seconds * card.rate.numerator) / card.rate.denominator))

interface Way {
  frame: Frames
  value: number
}

/** Nothing, all at the middle, nothing: keys of something that swells and goes. */
const swelling = (span: { in: Frames; out: Frames }, most: number, from = 0) => {
  const middle = Math.round((span.in + span.out - 1) / 2)
  const keys: Way[] = [
    { frame: span.in, value: from },
    ...(middle > span.in ? [{ frame: middle, value: most }] : []),
    ...(span.out - 1 > middle ? [{ frame: span.out - 1, value: from }] : []),
  ]
  return { keys: keys.map((key) => ({ ...key, easing: 'ease-in-out' })) }
}

const jitter = (amount: number, rate: number, seed: number, value = 0) => ({
  keys: [{ frame: 0, value }],
  motors: [{ kind: 'jitter', on: true, amount, rate, per: 'second', form: 'smooth', seed }],
})

export const WASH_MIXES: readonly ReadyWash[] = [
  {
    name: 'Plain',
    help: 'An empty wash: add the finishes that you want',
    frames: () => null,
    finishes: () => () => [],
  },
  {
    name: 'Flash',
    help: 'Two stops of light that come and go',
    frames: few(0.25),
    finishes: () => (span) => [{ kind: 'exposure', stops: swelling(span, 2) }],
  },
  {
    name: 'Shake',
    help: 'The whole scene trembles',
    frames: few(0.4),
    finishes: () => () => [{ kind: 'move', x: jitter(14, 12, 1), y: jitter(10, 12, 2), turn: jitter(0.4, 12, 3) }],
  },
  {
    name: 'Smear',
    help: 'A smear in one direction that swells and goes',
    frames: few(0.3),
    finishes: () => (span) => [{ kind: 'blur', form: 'along', angle: 15, length: swelling(span, 160) }],
  },
  {
    name: 'Grain and steps',
    help: 'Film grain over a few colour levels',
    frames: () => null,
    finishes: () => () => [
      { kind: 'grain', amount: 12, size: 1.5, every: 2 },
      { kind: 'colour-steps', levels: 12, dither: 40 },
    ],
  },
  {
    name: 'Breathing bloom',
    help: 'What is bright shines, now more, now less',
    frames: () => null,
    finishes: () => () => [{ kind: 'bloom', radius: 120, amount: jitter(25, 2, 4, 70) }],
  },
]
