import type { Card } from '../card/schema'
import type { Frames } from '../units'
import type { Moving } from '../values/moving'
import { addMotor, changeMotor } from './motors'
import { storedAt } from './values'

// Ready-made beginnings of pieces that move by themselves: motors of their place, all of which close over the loop.

export interface MotorStart {
  id: string
  label: string
  help: string
  motors: readonly { value: 'x' | 'y' | 'rotation' | 'scale' | 'opacity' | 'stretchX'; kind: string; values: object }[]
}

export const MOTOR_STARTS: readonly MotorStart[] = [
  {
    ...{ id: 'turn', label: 'Turn', help: 'Turns once in the loop' },
    motors: [{ value: 'rotation', kind: 'spin', values: { amount: -360, per: 'loop' } }],
  },
  {
    ...{ id: 'coin', label: 'Turn like a coin', help: 'Turns about its upright axis, twice in the loop' },
    motors: [{ value: 'stretchX', kind: 'formula', values: { text: 'v * cos(2 * tau * p)' } }],
  },
  {
    ...{ id: 'swing', label: 'Swing', help: 'Hangs and swings, twice in the loop' },
    motors: [{ value: 'rotation', kind: 'sway', values: { amount: 6, cycles: 2, per: 'loop' } }],
  },
  {
    ...{ id: 'float', label: 'Float', help: 'Rises and sinks as on water' },
    motors: [
      { value: 'y', kind: 'sway', values: { amount: 12, cycles: 2, per: 'loop' } },
      { value: 'rotation', kind: 'sway', values: { amount: 1.5, cycles: 1, per: 'loop', phase: 60 } },
    ],
  },
  {
    ...{ id: 'breathe', label: 'Breathe', help: 'Grows and shrinks a little' },
    motors: [{ value: 'scale', kind: 'sway', values: { amount: 4, cycles: 2, per: 'loop' } }],
  },
  {
    ...{ id: 'shake', label: 'Shake', help: 'Trembles, as a hand-held camera does' },
    motors: [
      { value: 'x', kind: 'jitter', values: { amount: 6, rate: 8, per: 'second', seed: 1 } },
      { value: 'y', kind: 'jitter', values: { amount: 6, rate: 8, per: 'second', seed: 2 } },
    ],
  },
  {
    ...{ id: 'flicker', label: 'Flicker', help: 'Burns unsteadily' },
    // Three turns in a second are one flash and a half: WCAG 2.2, 2.3.1 allows three.
    motors: [{ value: 'opacity', kind: 'jitter', values: { amount: 14, rate: 3, per: 'second', seed: 3 } }],
  },
]

/** Gives pieces the motors of a beginning, behind those that they have. */
export function addMotorStart(card: Card, pieces: readonly string[], { motors }: MotorStart, frame: Frames): Card {
  return pieces.reduce(
    (next, piece) =>
      motors.reduce((one, { value, kind, values }) => {
        const address = `${piece}/${value}`
        const driven = addMotor(one, address, kind, frame)
        const last = ((storedAt(driven, address) as Moving<number>).motors?.length ?? 1) - 1
        return changeMotor(driven, address, last, values)
      }, next),
    card,
  )
}
