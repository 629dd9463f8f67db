import type { FramePicture } from '../../frame/engine'
import type { Ground } from '../proof/grounds'
import { contrastAt } from '../proof/legibility'
import { faint, FOUND, mark, markReach } from './shown-picture'

/** WCAG 2.2, 1.4.3: for type of any size, and for large type. */
const ENOUGH = 4.5
const LARGE = 3

/**
 * Edges of letters by how they stand out from what is close to them, over what lies behind the card: green where they do at any
 * size, amber where they do when they are large, red where they do not. `letters`: each type piece alone, straight pixels of 8 bits.
 */
export function contrastPicture(letters: readonly FramePicture[], card: FramePicture, ground: Ground): FramePicture {
  const shown = faint(card)
  const reach = markReach(card) - 1
  for (const one of letters) {
    contrastAt(one, card, ground, (x, y, ratio) =>
      mark(shown, x, y, ratio >= ENOUGH ? FOUND.good : ratio >= LARGE ? FOUND.look : FOUND.bad, reach),
    )
  }
  return shown
}
