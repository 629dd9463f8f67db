import type { Frames } from '../../units'
import type { Looked } from './look'

/** Where something was found, and what to do about it. */
export interface ProofFinding {
  /** Id of the piece; null for the whole card. */
  piece: string | null
  /** The frame at which it shows; null for all. */
  frame: Frames | null
  message: string
  remedy: string
  /** The row of a roster in which it was found, by its id; none for what the card itself says. */
  row?: string
}

/** good: nothing to do. look: to be looked at by a person. bad: it will show, or does not work. */
export type Verdict = 'good' | 'look' | 'bad'

export interface ProofResult {
  verdict: Verdict
  /** What was found, in a few words. */
  said: string
  findings: ProofFinding[]
}

/** A line of the proof sheet. */
export interface ProofCheck {
  id: string
  label: string
  /** How it is found. */
  how: string
  /** Where its limits come from. */
  source: string
  judge(looked: Looked): ProofResult
}

export interface ProofLine extends ProofResult, Pick<ProofCheck, 'label' | 'source'> {
  check: string
}

export const good = (said: string): ProofResult => ({ verdict: 'good', said, findings: [] })

/** A result with its findings: as bad as asked where there are any. */
export const foundOr = (findings: ProofFinding[], verdict: 'look' | 'bad', said: string, else_: string): ProofResult =>
  findings.length > 0 ? { verdict, said, findings } : good(else_)

export const NO_SOURCE = 'Common practice, no published source'
