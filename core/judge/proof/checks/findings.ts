import type { Frames } from '../../../units'
import type { RowCheck } from '../../row/definition'
import type { ProofFinding } from '../definition'
import type { LookedRow } from '../look'
import type { LookedMoment } from '../moment'

// How findings are made, and put together.

export const at = (piece: string | null, frame: Frames | null, message: string, remedy: string): ProofFinding => ({
  piece,
  frame,
  message,
  remedy,
})

/** Each piece once, at the first frame where it was found. */
export function once(findings: readonly ProofFinding[]): ProofFinding[] {
  const known = new Set<string>()
  return findings.filter(({ piece, message }) => {
    const key = piece ?? message
    return known.has(key) ? false : Boolean(known.add(key))
  })
}

/** What was found of one kind in the rows of a roster. */
export const inRows = (rows: readonly LookedRow[], kind: RowCheck): ProofFinding[] =>
  rows.flatMap(({ id, title, flags }) =>
    flags
      .filter(({ check }) => check === kind)
      .map(({ piece, frame, message, remedy }) => ({
        ...at(piece, frame, `“${title}”: ${message}`, remedy),
        row: id,
      })),
  )

/** The moment with the most of something. */
export const worstOf = (
  moments: readonly LookedMoment[],
  of: (moment: LookedMoment) => number,
): LookedMoment | undefined =>
  moments.reduce<LookedMoment | undefined>((most, one) => (most && of(most) >= of(one) ? most : one), undefined)

export const percent = (share: number) => `${(share * 100).toFixed(share < 0.1 ? 1 : 0)} %`
