/** One thing that was read back from a finished file and held against what the engine made. */
export interface CheckResult {
  name: 'frames' | 'size' | 'rate' | 'alpha' | 'colour'
  label: string
  /** What the file has, in words. */
  found: string
  expected: string
  passed: boolean
}

/** The outcome of reading a finished file again. */
export interface RenderReport {
  passed: boolean
  checks: CheckResult[]
  /** Differences of alpha over all pixels of all frames, in 8-bit steps. */
  alpha: { largest: number; mean: number }
  seconds: { render: number; check: number }
}
