import { mixColours, readColour } from './colour'
import type { Moving } from './moving'
import { isMoving } from './moving'
import { mixInOklab } from './oklab'
import type { CurvePoint, StoredCurve } from '../curves/curve'
import { pointsOf } from '../curves/curve'
import { mixPaths } from '../outline/mix-paths'
import { Kept } from '../kept'
import type { Frames, Rgba } from '../units'
import { between } from './bend'
import { actingKeys, segmentAt } from './keyframes'
import { linksFrom, MOST_LINKS, sourcesOf } from './links'
import type { Moment, Ring } from './moment'
import { onRing } from './moment'
import type { MotorPlace } from './motors/definition'
import type { Motor } from './motors/schema'
import { motorOf } from './motors/table'

const keyed = (moving: Moving<number>, frame: Frames, length: Frames): number => {
  const { from, to, progress } = segmentAt(moving, frame, length)
  return between(from, to, progress)
}

/** A moving number: its keys, then each of its motors on what the one before it gives. */
export function numberAt(moving: Moving<number>, at: Moment): number {
  if (!moving.motors?.length || at.bare) return keyed(moving, at.frame, at.ring.length)
  return chainOf(moving, at).values.at(-1)!(at.frame)
}

/** The number over time, after the first `count` motors (all by default). Any frame; the loop comes round. */
export function motoredNumber(
  moving: Moving<number>,
  at: Moment,
  count = moving.motors?.length ?? 0,
): (frame: Frames) => number {
  const { values } = chainOf(moving, at)
  const value = values[Math.min(count, values.length - 1)]!
  return (frame) => value(onRing(frame, at.ring.length))
}

/** What all motors of a value are told; `before` is that of its keys alone. */
export const motorPlace = (moving: Moving<number>, at: Moment): MotorPlace => chainOf(moving, at).place

interface Chain {
  /** What it was made for. Without links it asks nothing of the card but its length and rate. */
  ring: Ring
  linked: boolean
  place: MotorPlace
  /** The value after none, one, two … of the motors, at frames of the ring. */
  values: ((frame: Frames) => number)[]
}

const linkedChains = new WeakMap<Moving<number>, Chain>()
const unlinkedChains = new WeakMap<Moving<number>, Chain>()

/** Keys and motors as functions on each other; made once for a value, which never changes, and what it follows. */
function chainOf(moving: Moving<number>, { ring, unlinked = false }: Moment): Chain {
  const chains = unlinked ? unlinkedChains : linkedChains
  const known = chains.get(moving)
  const same = known && known.ring.length === ring.length && known.ring.rate === ring.rate
  if (same && (known.ring === ring || !known.linked)) return known
  const chain = madeChain(moving, ring, unlinked)
  chains.set(moving, chain)
  return chain
}

function madeChain(moving: Moving<number>, ring: Ring, unlinked: boolean): Chain {
  const { length, rate = 25 } = ring
  const place: MotorPlace = {
    ...{ length, rate, ring: moving.loop !== false, turn: null },
    before: (frame) => keyed(moving, onRing(frame, length), length),
    keys: actingKeys(moving, length).map(({ frame }) => frame),
    lookup: (address, frame) => (unlinked ? null : followed(address, { ring, frame: onRing(frame, length) })),
  }
  const values = [(frame: Frames) => keyed(moving, frame, length)]
  const motors = moving.motors ?? []
  for (const motor of motors) {
    const before = values.at(-1)!
    const value = motor.on ? driven(motor, { ...place, before: (frame) => before(onRing(frame, length)) }) : before
    // A motor may ask for many frames of what stands before it, and that one again: each is found once.
    values.push(motors.length > 1 ? remembered(value) : value)
  }
  return { ring, linked: sourcesOf(moving).length > 0, place, values }
}

const MOST_REMEMBERED = 4096

function remembered(value: (frame: Frames) => number): (frame: Frames) => number {
  const known = new Kept<Frames, number>(MOST_REMEMBERED)
  return (frame) => known.of(frame, () => value(frame))
}

function driven(motor: Motor, place: MotorPlace): (frame: Frames) => number {
  const { valueAt, parameters } = motorOf(motor.kind)
  const moving = Object.entries(parameters).filter(([name]) => isMoving(motor[name]))
  // Its own values at a frame, where some of them move.
  const valuesAt = (frame: Frames): Motor => ({
    ...motor,
    ...Object.fromEntries(
      moving.map(([name, parameter]) => {
        const value = keyed(motor[name] as Moving<number>, frame, place.length)
        return [name, 'min' in parameter ? Math.min(parameter.max, Math.max(parameter.min, value)) : value]
      }),
    ),
  })
  return (frame) => {
    // The motor's values are those of its own kind, which the definition was found by.
    const value = valueAt((moving.length > 0 ? valuesAt(onRing(frame, place.length)) : motor) as never, place, frame)
    return Number.isFinite(value) ? value : place.before(frame)
  }
}

const MOST_FOLLOWED = 20_000
const followedValues = new WeakMap<Ring, Kept<string, number | null>>()

/** The number at another address; null where there is none. Many may follow it: it is found once for a frame. */
function followed(address: string, at: Moment): number | null {
  const { ring, frame } = at
  const known = followedValues.get(ring) ?? new Kept<string, number | null>(MOST_FOLLOWED)
  followedValues.set(ring, known)
  return known.of(`${frame} ${address}`, () => {
    const value: unknown = ring.read?.(address)
    if (typeof value === 'number') return value
    if (typeof value !== 'object' || value === null) return null
    if (!isMoving(value)) return 'unit' in value && 'value' in value ? Number(value.value) : null
    if (typeof value.keys[0]!.value !== 'number') return null
    return numberAt(value as Moving<number>, { ...at, unlinked: linksFrom(ring, address) > MOST_LINKS })
  })
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
