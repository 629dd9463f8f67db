import type { Upgrade } from '../documents/upgrades'

/** How cards of earlier versions become cards of today. */
export const CARD_UPGRADES: readonly Upgrade[] = [
  {
    from: 1,
    change:
      'Pieces carry lists of outline steps, finishes and masks beside coats and ranges; in older cards they are empty.',
    upgrade: (card) => card,
  },
]
