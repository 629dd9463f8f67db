import bidiFactory from 'bidi-js'

const bidi = bidiFactory()

/** A stretch of a line that runs one way; UTF-16 units [start, end). */
export interface DirectedRun {
  start: number
  end: number
  rightToLeft: boolean
}

/** Characters that run right to left, or that say which way others run: without one of them all runs to the right. */
const TURNS =
  /[\u0590-\u08ff\u200f\u202a-\u202e\u2066-\u2069\ufb1d-\ufdff\ufe70-\ufefc\u{10800}-\u{10fff}\u{1e800}-\u{1efff}]/u

/** The direction of a line: that of its first letter with one (rules P2, P3). */
export function directionOf(line: string): 'ltr' | 'rtl' {
  if (!TURNS.test(line)) return 'ltr'
  return bidi.getEmbeddingLevels(line, 'auto').paragraphs[0]!.level % 2 === 1 ? 'rtl' : 'ltr'
}

/**
 * The runs of a line in the order in which they stand, left to right (Unicode Bidirectional Algorithm, UAX 9). By default
 * the line's own direction is that of its first letter with one (rules P2, P3).
 */
export function directedRuns(line: string, base: 'auto' | 'ltr' | 'rtl' = 'auto'): DirectedRun[] {
  if (line === '') return []
  if (base !== 'rtl' && !TURNS.test(line)) return [{ start: 0, end: line.length, rightToLeft: false }]
  const embedding = bidi.getEmbeddingLevels(line, base)
  const runs: DirectedRun[] = []
  let before = -2
  for (const index of bidi.getReorderedIndices(line, embedding)) {
    const rightToLeft = embedding.levels[index]! % 2 === 1
    const last = runs.at(-1)
    const goesOn = last?.rightToLeft === rightToLeft && index === before + (rightToLeft ? -1 : 1)
    if (last && goesOn && rightToLeft) last.start = index
    else if (last && goesOn) last.end = index + 1
    else runs.push({ start: index, end: index + 1, rightToLeft })
    before = index
  }
  return runs
}
