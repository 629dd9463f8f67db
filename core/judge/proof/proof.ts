import type { Card } from '../../card/schema'
import { judged } from './checks'
import type { ProofLine } from './definition'
import type { WithEngine } from '../with-engine'
import type { Looked, LookOptions } from './look'
import { lookAt } from './look'

/** The proof sheet of a card, and what it was judged by. */
export interface Proof {
  /** Whether no line is bad. */
  passed: boolean
  lines: ProofLine[]
  looked: Looked
}

/** Renders a card for all checks, and judges it. */
export async function proofOf(card: Card, withEngine: WithEngine, options?: LookOptions): Promise<Proof> {
  const looked = await lookAt(card, withEngine, options)
  // What could not be rendered could not be looked at: only that is said.
  const lines = judged(looked).filter(({ check }) => looked.missing.length === 0 || check === 'missing')
  return { passed: lines.every(({ verdict }) => verdict !== 'bad'), lines, looked }
}
