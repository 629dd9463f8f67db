import { lyingLines } from '../documents/lying-lines'
import type { Upgrade } from '../documents/upgrades'

/** How cards of earlier versions become cards of today. */
export const CARD_UPGRADES: readonly Upgrade[] = [
  {
    from: 1,
    change:
      'Pieces carry lists of outline steps, finishes and masks beside coats and ranges; in older cards they are empty.',
    upgrade: (card) => card,
  },
  {
    from: 2,
    change: 'Lines as a texture lie at 0°, as those of the finish do; the angles of older ones are turned by 90°.',
    upgrade: lyingLines,
  },
]
