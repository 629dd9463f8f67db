import type { Key, Moving } from './moving'
import type { Frames } from '../units'
import { readEasing } from './easing'

interface Segment<T> {
  from: Key<T>
  to: Key<T>
  /** Eased progress; may leave 0..1 where the easing overshoots. */
  progress: number
}

/** The keys that act: those beyond the loop are kept in the card (the loop may grow again) but do not act on a ring. */
export function actingKeys<T>({ keys, loop }: Moving<T>, length: Frames): readonly Key<T>[] {
  if (loop === false || keys[keys.length - 1]!.frame < length) return keys
  const inside = keys.filter((key) => key.frame < length)
  return inside.length > 0 ? inside : keys.slice(0, 1)
}

/** The two keys around a frame, on the ring of `length` frames or on the open line. */
export function segmentAt<T>(moving: Moving<T>, frame: Frames, length: Frames): Segment<T> {
  const ring = moving.loop !== false
  const keys = actingKeys(moving, length)
  const last = keys.length - 1
  if (last === 0) return { from: keys[0]!, to: keys[0]!, progress: 0 }
  const at = lastBefore(keys, frame)
  if (!ring && at < 0) return { from: keys[0]!, to: keys[0]!, progress: 0 }
  if (!ring && at === last) return { from: keys[last]!, to: keys[last]!, progress: 0 }
  const from = keys[at < 0 ? last : at]!
  const to = keys[at === last || at < 0 ? 0 : at + 1]!
  const start = at < 0 ? from.frame - length : from.frame
  const end = at === last ? to.frame + length : to.frame
  const linear = (frame - start) / (end - start)
  return { from, to, progress: readEasing(from.easing ?? 'linear')?.(linear) ?? linear }
}

/** Index of the last key at or before a frame, by halving; −1 for none. */
export function lastBefore(keys: readonly { frame: Frames }[], frame: Frames): number {
  let low = 0
  let high = keys.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (keys[middle]!.frame <= frame) low = middle + 1
    else high = middle
  }
  return low - 1
}
