import type { Room } from './room'
import type { Draft } from './definition'

// Keys of values that come, stay and go: written in seconds, so that they are the same at every rate.

/** Easings of the designs (CSS Easing 2). */
export const EASE = {
  /** Fast at first, long to rest. */
  arrive: 'cubic-bezier(0.16, 1, 0.3, 1)',
  /** For what opens over all the room that words may need, of which they mostly take a part: slow at first. */
  open: 'cubic-bezier(0.55, 0, 0.85, 0.5)',
  /** Falls, and is stopped. */
  fall: 'cubic-bezier(0.5, 0, 0.75, 1)',
  /** Slow at first, gone at speed. */
  leave: 'cubic-bezier(0.7, 0, 0.84, 0)',
  /** Past its place and back. */
  over: 'cubic-bezier(0.2, 1.6, 0.4, 1)',
  soft: 'ease-in-out',
  even: 'linear',
} as const

export type Easing = (typeof EASE)[keyof typeof EASE] | 'hold' | 'ease-out' | 'ease-in'

/** Seconds, the value there, and how it goes on from there. */
export type KeyAt = readonly [seconds: number, value: number | string | boolean, easing?: Easing]

/** A value with keys; the last one may not stand beyond the loop. */
export function keys(room: Pick<Room, 'at' | 'length'>, list: readonly KeyAt[]): Draft {
  const placed = new Map<number, Draft>()
  for (const [seconds, value, easing = 'hold'] of list) {
    const frame = Math.min(room.at(seconds), room.length - 1)
    placed.set(frame, { frame, value, easing })
  }
  return { keys: [...placed.values()] }
}

export interface Stay {
  /** Seconds in which it comes. */
  in: readonly [number, number]
  /** Seconds in which it goes. */
  out: readonly [number, number]
  arrive?: Easing
  leave?: Easing
  /** Where it goes to, if not back to where it came from. */
  gone?: number
}

/** Comes from `away` to `there`, stays, and goes. */
export function stays(room: Pick<Room, 'at' | 'length'>, away: number, there: number, stay: Stay): Draft {
  const { in: into, out, arrive = EASE.arrive, leave = EASE.leave, gone = away } = stay
  return keys(room, [
    [0, away],
    [into[0], away, arrive],
    [into[1], there],
    [out[0], there, leave],
    [out[1], gone],
  ])
}

/** The opacity of what fades in and out. */
export const fades = (
  room: Pick<Room, 'at' | 'length'>,
  into: readonly [number, number],
  out: readonly [number, number],
) => stays(room, 0, 100, { in: into, out, arrive: 'ease-out', leave: 'ease-in' })

/** The sweep of letters that arrive, and goes back unseen at the end of the loop. */
export const sweeps = (room: Pick<Room, 'at' | 'length'>, from: number, to: number, back: number): Draft =>
  keys(room, [
    [0, 0],
    [from, 0, EASE.even],
    [to, 100],
    [back, 0],
  ])
