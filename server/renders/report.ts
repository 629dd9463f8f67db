/** One thing that was read back from a finished file and held against what the engine made. */
export interface CheckResult {
  name: CheckName
  label: string
  /** What the file has, in words. */
  found: string
  expected: string
  passed: boolean
}

export type CheckName =
  | 'read'
  | 'frames'
  | 'size'
  | 'rate'
  | 'times'
  | 'timecode'
  | 'tags'
  | 'alpha'
  | 'colour'
  | 'order'
  | 'last'
  | 'seam'
  | 'cause'

/** The outcome of reading a finished file again. */
export interface RenderReport {
  passed: boolean
  checks: CheckResult[]
  /** Differences of alpha over all pixels of all frames, in 8-bit steps; null where the file holds none. */
  alpha: { largest: number; mean: number } | null
  seconds: { render: number; check: number }
}
