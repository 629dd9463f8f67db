import type { Strand } from '../outline/strand'
import type { Movable, StoredValue } from './moving'
import type { Frames } from '../units'

/** A piece that shows words: its own, or those of another one. */
export interface WordsPiece {
  id: string
  wording: Movable<string>
  linked: string | null
}

/** How the time within a piece follows from the time around it. */
export interface Clock {
  /** The frame within at a moment of the time around. */
  inside(at: Moment): Frames
  /** Whether nothing within is shown at a moment of the time around. */
  stopped(at: Moment): boolean
  /** A frame of the time around at which the frame within is shown, the nearest to `near`; null where it never is. */
  outside(frame: Frames, near: Moment): Frames | null
}

/** What is the same at every moment of a card. */
export interface Ring {
  /** The card's loop length. */
  length: Frames
  /** Frames per second; 25 where nothing asks. */
  rate?: number
  /** The card's seed: chance follows from it. */
  seed?: number
  /** What the card holds at an address, for values that follow others; undefined where there is nothing. */
  read?: (address: string) => StoredValue
  /** A type piece of the card, for those that show the words of another. */
  typePiece?: (id: string) => WordsPiece | undefined
}

/** The moment for which values are evaluated: where on the ring one stands. */
export interface Moment {
  ring: Ring
  /** 0 ≤ frame < length; fractions are sub-frames. */
  frame: Frames
  /** While the shutter is open: the frame that is exposed. The pictures of a sequence stand still meanwhile. */
  exposed?: Frames
  /** The keys alone, without motors: what a hand on a control means. */
  bare?: boolean
  /** Links to other values are passed over: see core/card/links.ts. */
  unlinked?: boolean
  /** The path along which a type piece stands, in px of its own space, with a name; null for none. */
  along?: (id: string, at: Moment) => { key: string; strand: Strand } | null
  /** Values of a piece that follow from what other pieces span, by its id; null for none. See core/frame/fitting.ts. */
  fitted?: (id: string, at: Moment) => Readonly<Record<string, number>> | null
}

/** For what asks for no moment in particular. */
export const STANDSTILL: Moment = { ring: { length: 1 }, frame: 0 }

/** The frame on the ring for any frame number. */
export function onRing(frame: Frames, length: Frames): Frames {
  const turn = frame % length
  return turn < 0 ? turn + length : turn
}

/** Another moment on the same ring. Frames beyond the loop come round again. */
export const movedTo = (at: Moment, frame: Frames): Moment => ({
  ...at,
  ...(at.exposed === undefined ? {} : { exposed: onRing(at.exposed + frame - at.frame, at.ring.length) }),
  frame: onRing(frame, at.ring.length),
})

/** The same frame while the shutter is open, some way after it. */
export const openAt = (at: Moment, frame: Frames): Moment => ({
  ...movedTo(at, frame),
  exposed: at.exposed ?? at.frame,
})

/** The frame that is exposed, where the shutter is open. */
export const atRest = (at: Moment): Moment => {
  const { exposed, ...rest } = at
  return exposed === undefined ? at : { ...rest, frame: exposed }
}

/** The moment whose picture is held: on twos, frames 0 and 1 show frame 0. */
export function stepped(at: Moment, steps: number): Moment {
  if (steps <= 1) return at
  const held = (frame: Frames) => Math.floor(frame / steps + 1e-9) * steps
  return { ...at, frame: held(at.frame), ...(at.exposed === undefined ? {} : { exposed: held(at.exposed) }) }
}
