import type { Card } from '../../core/card/schema'
import { holdsStill } from '../../core/time/hold-still'
import { WaxError } from '../../core/errors'
import type { RenderOptions } from '../../core/formats/deliveries/render-options'

/** More than five hours at 25 frames a second: what is longer is put together from parts in the edit. */
const MOST_FRAMES = 500_000

/** Throws a WaxError where the range of frames is empty, lies outside the run of so many, or is longer than anything is rendered. */
export function expectFrames(
  card: Card,
  { from, to, holds }: Pick<RenderOptions, 'from' | 'to' | 'holds'>,
  length: number,
  what = 'card',
): void {
  if (to <= from) {
    throw new WaxError(
      'no-frames',
      'frames',
      `From frame ${from} to frame ${to - 1} there is no frame to render.`,
      'The last frame comes after the first.',
    )
  }
  if (!Number.isInteger(holds) && !holdsStill(card)) {
    throw new WaxError(
      'hold-moves',
      'holds',
      `The hold moves, so it cannot be played ${holds} times without a jump.`,
      'Play it a whole number of times.',
    )
  }
  if (to > length) {
    throw new WaxError(
      'out-of-range',
      'frames',
      `The ${what} has ${length} frames, 0 to ${length - 1}.`,
      `End the render at frame ${length - 1} at the latest.`,
    )
  }
  if (to - from > MOST_FRAMES) {
    throw new WaxError(
      'too-long',
      'frames',
      `${to - from} frames are too many for one render.`,
      `Render at most ${MOST_FRAMES}, and repeat the hold in the edit.`,
    )
  }
}
