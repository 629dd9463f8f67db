import { lyingLines } from '../documents/lying-lines'
import type { Upgrade } from '../documents/upgrades'

/** How seals of earlier versions become seals of today. */
export const SEAL_UPGRADES: readonly Upgrade[] = [
  {
    from: 1,
    change: 'Lines as a texture lie at 0°, as those of the finish do; the angles of older ones are turned by 90°.',
    upgrade: lyingLines,
  },
]
