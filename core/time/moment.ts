import type { TypePiece } from '../card/schema'
import type { StoredValue } from '../card/moving'
import type { Frames } from '../units'

/** The moment for which values are settled. */
export interface Moment {
  /** 0 ≤ frame < length; fractions are sub-frames. */
  frame: Frames
  /** The card's loop length. */
  length: Frames
  /** Frames per second; 25 where nothing asks. */
  rate?: number
  /** What the card holds at an address, for values that follow others; undefined where there is nothing. */
  read?: (address: string) => StoredValue
  /** A type piece of the card, for those that show the words of another. */
  typePiece?: (id: string) => TypePiece | undefined
  /** The keys alone, without motors: what a hand on a control means. */
  bare?: boolean
  /** Addresses that are being followed: who meets itself there goes in a circle. */
  through?: readonly string[]
}

/** The frame on the ring for any frame number. */
export function onRing(frame: Frames, length: Frames): Frames {
  const turn = frame % length
  return turn < 0 ? turn + length : turn
}

/** The moment whose picture is held: on twos, frames 0 and 1 show frame 0. */
export function stepped(at: Moment, steps: number): Moment {
  return steps <= 1 ? at : { ...at, frame: Math.floor(at.frame / steps + 1e-9) * steps }
}
