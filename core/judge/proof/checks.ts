import { MOTION_CHECKS } from './checks/motion'
import { PICTURE_CHECKS } from './checks/pictures'
import { PLACE_CHECKS } from './checks/place'
import { WORD_CHECKS } from './checks/words'
import type { ProofCheck } from './definition'
import type { Looked } from './look'

/** The lines of the proof sheet, in their order. */
export const PROOF_CHECKS: readonly ProofCheck[] = [
  ...PLACE_CHECKS,
  ...WORD_CHECKS,
  ...PICTURE_CHECKS,
  ...MOTION_CHECKS,
]

/** All lines of the sheet. */
export const judged = (looked: Looked) =>
  PROOF_CHECKS.map(({ id, label, source, judge }) => ({ check: id, label, source, ...judge(looked) }))
