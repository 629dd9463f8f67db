import type { Rate } from '../values/rate'
import { perSecond } from '../values/rate'
import type { Px } from '../units'

export type RoomShape = 'wide' | 'square' | 'upright'

/** The frame that a starting point is drawn in, and what it measures by. */
export interface Room {
  width: Px
  height: Px
  shape: RoomShape
  /** Sizes are given for a frame whose shorter side is 1080 px. */
  u: (size: number) => Px
  /** Where type may stand: the title area (SMPTE ST 2046-1) with one part in a hundred to spare. */
  left: Px
  right: Px
  top: Px
  /** Foot of what stands low: in upright frames higher, since players lay their own buttons there (common practice, no published source). */
  foot: Px
  /** The widest that type may be. */
  span: Px
  /** The frame at which so many seconds have gone. */
  at: (seconds: number) => number
  /** Frames of the loop. */
  length: number
}

/** 90 % of the frame, and 1 % on each side more. */
const MARGIN = 0.06
const UPRIGHT_FOOT = 0.74
/** Upright frames are seen on small screens: all is larger in them (common practice, no published source). */
const UPRIGHT_SIZE = 1.16

export const shapeOf = (width: Px, height: Px): RoomShape =>
  width >= height * 1.2 ? 'wide' : height >= width * 1.2 ? 'upright' : 'square'

export function roomOf(frame: { width: Px; height: Px }, rate: Rate, lasts: number): Room {
  const { width, height } = frame
  const shape = shapeOf(width, height)
  const unit = (Math.min(width, height) / 1080) * (shape === 'upright' ? UPRIGHT_SIZE : 1)
  const at = (seconds: number) => Math.round(seconds * perSecond(rate))
  return {
    ...{ width, height, shape, at },
    u: (size) => Math.round(size * unit * 10) / 10,
    left: width * MARGIN,
    right: width * (1 - MARGIN),
    top: height * MARGIN,
    foot: height * (shape === 'upright' ? UPRIGHT_FOOT : 1 - MARGIN),
    span: width * (1 - 2 * MARGIN),
    length: at(lasts),
  }
}

/** One of three by the shape of the frame. */
export const byShape = <T>({ shape }: Pick<Room, 'shape'>, of: { wide: T; square: T; upright: T }): T => of[shape]
