import type { Upgrade } from '../documents/upgrades'

/** How seals of earlier versions become seals of today: there is one version so far. */
export const SEAL_UPGRADES: readonly Upgrade[] = []
