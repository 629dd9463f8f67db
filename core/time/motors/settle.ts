import { cosDegrees, exp, sinDegrees } from '../../kernels/exact'
import type { Frames } from '../../units'
import type { MotorPlace } from './definition'
import { defineMotor } from './definition'

/** Part of a frame over which the speed at a key is measured. */
const MOMENT = 1 / 256
/** A movement slower than this share of its span in a frame has come to rest by itself. */
const STILL = 1e-9

/**
 * Damped overshoot: the solution of x″ + 2d x′ + (d² + w²) x = 0 with x(0) = 0 and x′(0) the speed with which the
 * value arrives, x = speed / w · e^(−d t) sin(w t).
 */
export const settle = defineMotor({
  kind: 'settle',
  label: 'Settle',
  help: 'Where the value arrives at a key and stays, it swings past its place out of its speed, and comes to rest',
  parameters: {
    amount: {
      ...{ type: 'number', label: 'Amount', help: 'In % of the swing that its speed gives it', default: 100 },
      ...{ min: 0, max: 1000, step: 5, unit: '%', slider: [0, 200] },
    },
    frequency: {
      ...{ type: 'number', label: 'Swings', help: 'Swings in a second', default: 2 },
      ...{ min: 0.05, max: 60, step: 0.1, unit: '', slider: [0.2, 8] },
    },
    decay: {
      ...{
        type: 'number',
        label: 'Decay',
        help: 'How fast the swing dies away: by 63 % in 1/decay seconds',
        default: 4,
      },
      ...{ min: 0.05, max: 100, step: 0.1, unit: '', slider: [0.5, 15] },
    },
  },
  valueAt: (values, place, frame) => {
    const { length, rate, before } = place
    let swing = 0
    for (const key of arrivals(place)) {
      const speed = (speedInto(key, place) * rate * values.amount) / 100
      const since = frame - key
      // On the ring, what is left of the turns before is still there: a geometric series, in closed form.
      if (place.ring) swing += speed * roundAndRound((since < 0 ? since + length : since) / rate, length / rate, values)
      else if (since >= 0) swing += speed * once(since / rate, values)
    }
    return before(frame) + swing
  },
  gap: (_, place) => (place.ring ? null : 'swings from its keys, which do not lie on the ring'),
})

/** Keys where the value arrives with speed and then stays. */
function arrivals(place: MotorPlace): Frames[] {
  return place.keys.filter((key) => {
    const into = speedInto(key, place)
    const outOf = (place.before(key + MOMENT) - place.before(key)) / MOMENT
    return Math.abs(into) > STILL && Math.abs(outOf) <= STILL
  })
}

/** Units per frame just before a key. */
const speedInto = (key: Frames, { before, ring }: MotorPlace) =>
  !ring && key < MOMENT * 2 ? 0 : (before(key - MOMENT) - before(key - 2 * MOMENT)) / MOMENT

interface Swing {
  frequency: number
  decay: number
}

/** x(t) for speed 1. */
function once(t: number, { frequency, decay }: Swing): number {
  return (exp(-decay * t) * sinDegrees(360 * frequency * t)) / (2 * Math.PI * frequency)
}

/** x(t) + x(t + T) + x(t + 2T) + …: the imaginary part of e^((−d + iw) t) / (1 − e^((−d + iw) T)). */
function roundAndRound(t: number, turn: number, { frequency, decay }: Swing): number {
  const polar = (time: number) => {
    const r = exp(-decay * time)
    const angle = 360 * frequency * time
    return [r * cosDegrees(angle), r * sinDegrees(angle)] as const
  }
  const [x, y] = polar(t)
  const [u, v] = polar(turn)
  const [re, im] = [1 - u, -v]
  return (y * re - x * im) / (re * re + im * im) / (2 * Math.PI * frequency)
}
