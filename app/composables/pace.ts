import type { RenderRow } from '~/stores/renders'

/** How fast something goes on, from what was seen of it lately. */
export interface Pace {
  /** Of what: another stage begins anew. */
  stage: string
  /** What was seen, the oldest first: milliseconds, and how much was done. */
  seen: { time: number; done: number }[]
  /** A second; null while too little was seen. */
  rate: number | null
  /** Seconds that are left; null while nobody can say. */
  left: number | null
}

/** Milliseconds that are looked back. */
const SPAN = 8000
/** Milliseconds that must have been seen. */
const ENOUGH = 1500

/** The pace after something more was seen. */
export function paceOf(
  before: Pace | undefined,
  now: Pick<RenderRow, 'status' | 'framesDone' | 'framesTotal' | 'runs'>,
  time: number,
): Pace {
  const { framesDone, framesTotal } = now
  // Made and written count anew.
  const stage = `${now.status} ${now.runs?.done === now.runs?.total}`
  const earlier = before && before.stage === stage && before.seen.at(-1)!.done <= framesDone ? before.seen : []
  const within = earlier.filter((one) => time - one.time <= SPAN)
  const seen = [...within, { time, done: framesDone }]
  const [first] = seen
  const took = time - first!.time
  const rate = took >= ENOUGH && framesDone > first!.done ? ((framesDone - first!.done) * 1000) / took : null
  return { stage, seen, rate, left: rate && (framesTotal - framesDone) / rate }
}

/** Seconds in words. */
export function inWords(seconds: number): string {
  if (seconds < 60) return `${Math.max(1, Math.round(seconds))} s`
  if (seconds < 3600) return `${Math.round(seconds / 60)} min`
  return `${Math.floor(seconds / 3600)} h ${Math.round((seconds % 3600) / 60)} min`
}
