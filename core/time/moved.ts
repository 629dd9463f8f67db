import { mixColours, readColour } from '../card/colour'
import type { Moving } from '../card/moving'
import { isMoving } from '../card/moving'
import { mixInOklab } from '../card/oklab'
import type { CurvePoint, StoredCurve } from '../curves/curve'
import { pointsOf } from '../curves/curve'
import { mixPaths } from '../outline/mix-paths'
import type { Frames, Rgba } from '../units'
import { between } from './bend'
import { actingKeys, segmentAt } from './keyframes'
import type { Moment } from './moment'
import { movedTo, onRing } from './moment'
import type { MotorPlace } from './motors/definition'
import type { Motor } from './motors/schema'
import { motorOf } from './motors/table'

/** Values that follow values that follow values: deeper than any hand makes them. */
const DEEPEST_LINK = 32

const keyed = (moving: Moving<number>, frame: Frames, length: Frames): number => {
  const { from, to, progress } = segmentAt(moving, frame, length)
  return between(from, to, progress)
}

/** A moving number: its keys, then each of its motors on what the one before it gives. */
export function numberAt(moving: Moving<number>, at: Moment): number {
  return moving.motors?.length && !at.bare
    ? chainOf(moving, at).run(at.frame, at)
    : keyed(moving, at.frame, at.ring.length)
}

/** The number over time, after the first `count` motors (all by default). Any frame; the loop comes round. */
export function motoredNumber(
  moving: Moving<number>,
  at: Moment,
  count = moving.motors?.length ?? 0,
): (frame: Frames) => number {
  const { values, during } = chainOf(moving, at)
  const value = values[Math.min(count, values.length - 1)]!
  return (frame) => during(at, () => value(onRing(frame, at.ring.length)))
}

/** What all motors of a value are told; `before` is that of its keys alone. */
export const motorPlace = (moving: Moving<number>, at: Moment): MotorPlace => chainOf(moving, at).place

interface Chain {
  length: Frames
  rate: number
  place: MotorPlace
  /** The value after none, one, two … of the motors, at frames of the ring. */
  values: ((frame: Frames) => number)[]
  run: (frame: Frames, at: Moment) => number
  /** Runs work at a moment: what is followed is looked up there. */
  during: <T>(at: Moment, work: () => T) => T
}

const chains = new WeakMap<Moving<number>, Chain>()

/** Keys and motors as functions on each other; made once for a value, which never changes. */
function chainOf(moving: Moving<number>, { ring: { length, rate = 25 } }: Moment): Chain {
  const known = chains.get(moving)
  if (known && known.length === length && known.rate === rate) return known
  let now: Moment = { ring: { length, rate }, frame: 0 }
  const during = <T>(at: Moment, work: () => T): T => {
    const outer = now
    now = at
    try {
      return work()
    } finally {
      now = outer
    }
  }
  const place: MotorPlace = {
    ...{ length, rate, ring: moving.loop !== false, turn: null },
    before: (frame) => keyed(moving, onRing(frame, length), length),
    keys: actingKeys(moving, length).map(({ frame }) => frame),
    lookup: (address, frame) => followed(address, movedTo(now, frame)),
  }
  const values = [(frame: Frames) => keyed(moving, frame, length)]
  for (const motor of moving.motors ?? []) {
    const before = values.at(-1)!
    values.push(motor.on ? driven(motor, { ...place, before: (frame) => before(onRing(frame, length)) }) : before)
  }
  const last = values.at(-1)!
  const chain = {
    length,
    rate,
    place,
    values,
    during,
    run: (frame: Frames, at: Moment) => during(at, () => last(frame)),
  }
  chains.set(moving, chain)
  return chain
}

function driven(motor: Motor, place: MotorPlace): (frame: Frames) => number {
  const { valueAt } = motorOf(motor.kind)
  return (frame) => {
    const value = valueAt(motor as never, place, frame)
    return Number.isFinite(value) ? value : place.before(frame)
  }
}

/** The number at another address; null where there is none, or where the links have come round to it. */
function followed(address: string, at: Moment): number | null {
  const { through = [], ring } = at
  if (through.includes(address) || through.length >= DEEPEST_LINK) return null
  const value: unknown = ring.read?.(address)
  if (typeof value === 'number') return value
  if (typeof value !== 'object' || value === null) return null
  if (!isMoving(value)) return 'unit' in value ? (value as unknown as { value: number }).value : null
  if (typeof value.keys[0]!.value !== 'number') return null
  return numberAt(value as Moving<number>, { ...at, through: [...through, address] })
}

/** A moving colour, not rounded to 8 bits. An overshooting easing stops at the key's colour. */
export function colourAt(moving: Moving<string>, { frame, ring: { length } }: Moment): Rgba {
  const { from, to, progress } = segmentAt(moving, frame, length)
  const mix = moving.mix === 'oklab' ? mixInOklab : mixColours
  return mix(readColour(from.value), readColour(to.value), Math.min(1, Math.max(0, progress)))
}

/** What has no values between: wording, switches. It changes at the key. */
export function heldAt<T>(moving: Moving<T>, { frame, ring: { length } }: Moment): T {
  const { from, to, progress } = segmentAt(moving, frame, length)
  return progress >= 1 ? to.value : from.value
}

/** SVG path data between two paths of the same commands; others change at the key. */
export function pathAt(moving: Moving<string>, { frame, ring: { length } }: Moment): string {
  const { from, to, progress } = segmentAt(moving, frame, length)
  return progress === 0 ? from.value : (mixPaths(from.value, to.value, progress) ?? from.value)
}

/** A curve between two; drawn ones move point by point where they have as many points, others change at the key. */
export function curveAt(moving: Moving<StoredCurve>, { frame, ring: { length } }: Moment): StoredCurve {
  const { from, to, progress } = segmentAt(moving, frame, length)
  if (progress === 0 || from.value === to.value) return from.value
  const [a, b] = [pointsOf(from.value), pointsOf(to.value)]
  if (a.length !== b.length) return from.value
  const share = (p: number, q: number) => Math.min(1, Math.max(0, p + (q - p) * progress))
  const points = a.map((point, i): CurvePoint => {
    const other = b[i]!
    return { ...point, x: share(point.x, other.x), y: share(point.y, other.y) }
  })
  // Whatever the easing does, points stay in the order of x.
  const rising = points.every((point, i) => i === 0 || point.x > points[i - 1]!.x)
  return rising ? { points } : from.value
}
