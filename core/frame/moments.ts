import { lightOf } from '../card/light'
import type { Frames } from '../units'
import type { Moment } from '../values/moment'
import { movedTo } from '../values/moment'
import type { LaidFinish } from './laid-finishes'
import { momentsOf } from './laid-finishes'
import { shifted } from './open-list'
import type { Drawing } from './piece'

// Pictures at other frames, which some finishes ask for.

/** Copies within copies that are computed for one picture. */
export const MOST_MOMENTS = 256

/** A drawing so many frames away, as a finish asks for it; null where it would be one copy too many. */
export function movedFor(drawing: Drawing, finish: LaidFinish, frames: Frames): Drawing | null {
  const copies = drawing.copies * momentsOf(finish).length
  if (copies > MOST_MOMENTS) return null
  const at = movedTo(drawing.at, drawing.at.frame + frames)
  const list = shifted(drawing.list, frames)
  return { ...drawing, at, list, light: lightOf(drawing.card, at), part: null, copies }
}

/** Whether a moment so many frames away lies on the same side of the seam, or the seam does not count. */
export const isThere = ({ frame, ring }: Moment, frames: Frames, across: boolean) =>
  across || (frame + frames >= 0 && frame + frames < ring.length)
