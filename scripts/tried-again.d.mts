export interface Tried {
  file: string
  title: string
}

export interface ReportedSuite {
  file: string
  specs?: { title: string; tests: { status: string }[] }[]
  suites?: ReportedSuite[]
}

export const MAY_NEED_MORE: readonly (Tried & { reason: string })[]
export function needingMore(suite: ReportedSuite): Tried[]
export function judged(
  again: readonly Tried[],
  listed?: readonly (Tried & { reason: string })[],
): { said: string[]; failed: number }
