import { cosDegrees, exp, sinDegrees } from '../../kernels/exact'
import type { Frames } from '../../units'
import type { MotorPlace } from './definition'
import { lastBefore } from '../keyframes'
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
      ...{ min: 0, max: 1000, step: 5, unit: '%', slider: [0, 200], moves: true },
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
  valueAt: (values, place, frame) => place.before(frame) + swingAt(values, place, frame),
  gap: (_, place) => (place.ring ? null : 'swings from its keys, which do not lie on the ring'),
})

/** A swing as a turning arrow: its imaginary part is the speed that is left, and turns and dies away together with it. */
interface Arrow {
  re: number
  im: number
}

/** What swings just after a key at which the value arrives: its own speed, and what is left of all before it. */
interface Arrival extends Arrow {
  frame: Frames
}

const known = new WeakMap<MotorPlace, readonly Arrival[]>()

/** The keys where the value arrives with speed and then stays, rising; each with all that swings from there on. */
function arrivalsOf(values: Swing, place: MotorPlace): readonly Arrival[] {
  let found = known.get(place)
  if (!found) {
    found = summedUp(values, place, arrivals(place))
    known.set(place, found)
  }
  return found
}

const arrivals = (place: MotorPlace) =>
  place.keys.flatMap((frame) => {
    const speed = speedInto(frame, place)
    const outOf = (place.before(frame + MOMENT) - place.before(frame)) / MOMENT
    return Math.abs(speed) > STILL && Math.abs(outOf) <= STILL ? [{ frame, speed }] : []
  })

function summedUp(
  values: Swing,
  { length, rate, ring }: MotorPlace,
  own: { frame: Frames; speed: number }[],
): Arrival[] {
  const [first, last] = [own[0], own.at(-1)]
  if (!first || !last) return []
  /** Once through all arrivals, from what is left of those before the first. */
  const through = (carried: Arrow): Arrival[] => {
    let before = first.frame
    let left = carried
    return own.map(({ frame, speed }) => {
      const turned = later(left, (frame - before) / rate, values)
      before = frame
      left = { re: turned.re + speed, im: turned.im }
      return { frame, ...left }
    })
  }
  const once = through({ re: 0, im: 0 })
  if (!ring) return once
  // On the ring, what is left of the turns before is still there: a geometric series, in closed form.
  const round = later(once.at(-1)!, (first.frame + length - last.frame) / rate, values)
  const { re, im } = later({ re: 1, im: 0 }, length / rate, values)
  return through(divided(round, { re: 1 - re, im: -im }))
}

/** An arrow some seconds later: times e^((−d + iw) t). */
function later({ re, im }: Arrow, seconds: number, { frequency, decay }: Swing): Arrow {
  const r = exp(-decay * seconds)
  const angle = 360 * frequency * seconds
  const [c, s] = [r * cosDegrees(angle), r * sinDegrees(angle)]
  return { re: re * c - im * s, im: re * s + im * c }
}

const divided = (a: Arrow, b: Arrow): Arrow => {
  const square = b.re * b.re + b.im * b.im
  return { re: (a.re * b.re + a.im * b.im) / square, im: (a.im * b.re - a.re * b.im) / square }
}

function swingAt(values: Swing & { amount: number }, place: MotorPlace, frame: Frames): number {
  const { length, rate, ring } = place
  const all = arrivalsOf(values, place)
  const at = lastBefore(all, frame)
  const from = all[at < 0 && ring ? all.length - 1 : at]
  if (!from) return 0
  const since = frame - from.frame
  const { im } = later(from, (since < 0 ? since + length : since) / rate, values)
  return (((im * rate) / (2 * Math.PI * values.frequency)) * values.amount) / 100
}

/** Units per frame just before a key. */
const speedInto = (key: Frames, { before, ring }: MotorPlace) =>
  !ring && key < MOMENT * 2 ? 0 : (before(key - MOMENT) - before(key - 2 * MOMENT)) / MOMENT

interface Swing {
  /** Swings in a second. */
  frequency: number
  /** 1/s. */
  decay: number
}
