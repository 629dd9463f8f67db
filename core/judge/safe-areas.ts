import type { Rect } from '../units'

/**
 * What every set shows: action safe 93 %, title (graphics) safe 90 % of the frame's width and height. SMPTE
 * ST 2046-1 (2009); EBU R 95 (2017) gives the same as 3.5 % and 5 % from every edge. From memory.
 */
export const SAFE_AREAS = [
  { id: 'action', label: 'Action safe, 93 %', share: 0.93 },
  { id: 'title', label: 'Title safe, 90 %', share: 0.9 },
] as const

/** The middle `share` of a frame, in card px. */
export function safeRect({ width, height }: { width: number; height: number }, share: number): Rect {
  const [x, y] = [(width * (1 - share)) / 2, (height * (1 - share)) / 2]
  return { left: x, top: y, right: width - x, bottom: height - y }
}
