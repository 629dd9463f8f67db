import type { Card } from '../../core/card/schema'
import { heldLength } from '../../core/time/held'
import { WaxError } from '../../core/errors'
import type { RenderOptions } from './options'

/** Throws a WaxError where the range of frames is empty or lies outside the loop. */
export function expectFrames(card: Card, { from, to, holds }: Pick<RenderOptions, 'from' | 'to' | 'holds'>): void {
  if (to <= from) {
    throw new WaxError(
      'no-frames',
      'frames',
      `From frame ${from} to frame ${to - 1} there is no frame to render.`,
      'The last frame comes after the first.',
    )
  }
  const length = heldLength(card, holds)
  if (to > length) {
    throw new WaxError(
      'out-of-range',
      'frames',
      `The card has ${length} frames, 0 to ${length - 1}.`,
      `End the render at frame ${length - 1} at the latest.`,
    )
  }
}
