import type { Card } from '../../core/card/schema'
import { WaxError } from '../../core/errors'
import type { RenderOptions } from './options'

/** Throws a WaxError where the range of frames is empty or lies outside the loop. */
export function expectFrames(card: Card, { from, to }: Pick<RenderOptions, 'from' | 'to'>): void {
  if (to <= from) {
    throw new WaxError(
      'no-frames',
      'frames',
      `From frame ${from} to frame ${to - 1} there is no frame to render.`,
      'The last frame comes after the first.',
    )
  }
  if (to > card.length) {
    throw new WaxError(
      'out-of-range',
      'frames',
      `The card has ${card.length} frames, 0 to ${card.length - 1}.`,
      `End the render at frame ${card.length - 1} at the latest.`,
    )
  }
}
