import { mixColours, readColour } from '../card/colour'
import type { Key, Moving } from '../card/moving'
import type { Frames, Rgba } from '../units'
import { readEasing } from './easing'

interface Segment<T> {
  from: Key<T>
  to: Key<T>
  /** Eased progress; may leave 0..1 where the easing overshoots. */
  progress: number
}

/** The two keys around a frame, on the ring of `length` frames or on the open line. */
export function segmentAt<T>(moving: Moving<T>, frame: Frames, length: Frames): Segment<T> {
  const ring = moving.loop !== false
  // Keys beyond the loop are kept in the card (the loop may grow again) but do not act on a ring.
  const inside = ring ? moving.keys.filter((key) => key.frame < length) : moving.keys
  const keys = inside.length > 0 ? inside : moving.keys.slice(0, 1)
  let at = -1
  while (at + 1 < keys.length && keys[at + 1]!.frame <= frame) at++
  const last = keys.length - 1
  if (keys.length === 1) return { from: keys[0]!, to: keys[0]!, progress: 0 }
  if (!ring && at < 0) return { from: keys[0]!, to: keys[0]!, progress: 0 }
  if (!ring && at === last) return { from: keys[last]!, to: keys[last]!, progress: 0 }
  const from = keys[at < 0 ? last : at]!
  const to = keys[at === last || at < 0 ? 0 : at + 1]!
  const start = at < 0 ? from.frame - length : from.frame
  const end = at === last ? to.frame + length : to.frame
  const linear = (frame - start) / (end - start)
  return { from, to, progress: readEasing(from.easing ?? 'linear')?.(linear) ?? linear }
}

/** A moving number at a frame. */
export function numberAt(moving: Moving<number>, frame: Frames, length: Frames): number {
  const { from, to, progress } = segmentAt(moving, frame, length)
  return from.value + (to.value - from.value) * progress
}

/** A moving colour at a frame, not rounded to 8 bits. An overshooting easing stops at the key's colour. */
export function colourAt(moving: Moving<string>, frame: Frames, length: Frames): Rgba {
  const { from, to, progress } = segmentAt(moving, frame, length)
  return mixColours(readColour(from.value), readColour(to.value), Math.min(1, Math.max(0, progress)))
}
