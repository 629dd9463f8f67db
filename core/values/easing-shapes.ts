import { isEasing, readEasing } from './easing'

// Easings as shapes: turned round in time, and where their speed peaks.

/** The named easings of CSS Easing 2 §2.2 as curves. */
const AS_BEZIER: ReadonlyMap<string, Bezier> = new Map([
  ['linear', [0, 0, 1, 1]],
  ['ease', [0.25, 0.1, 0.25, 1]],
  ['ease-in', [0.42, 0, 1, 1]],
  ['ease-out', [0, 0, 0.58, 1]],
  ['ease-in-out', [0.42, 0, 0.58, 1]],
])

export type Bezier = readonly [x1: number, y1: number, x2: number, y2: number]

/** The control points of an easing that is a cubic curve; null for steps, holds and drawn ones. */
export function bezierOf(easing: string): Bezier | null {
  const named = AS_BEZIER.get(easing.trim())
  if (named) return named
  const call = /^cubic-bezier\(([^()]*)\)$/.exec(easing.trim())
  // Four numbers, as the check of easings has seen.
  return call && isEasing(easing) ? (call[1]!.split(',').map(Number) as unknown as Bezier) : null
}

const tidy = (value: number) => Math.round(value * 1000) / 1000 + 0

export function bezierText(bezier: Bezier): string {
  const same = [...AS_BEZIER].find(([, other]) => other.every((v, i) => Math.abs(v - bezier[i]!) < 5e-4))
  return same ? same[0] : `cubic-bezier(${bezier.map(tidy).join(', ')})`
}

/** Where the speed is highest: pulled to the start, the middle or the end of the way. */
export const PEAKS = [
  { id: 'early', label: 'Peak early', easing: 'cubic-bezier(0.1, 0.8, 0.3, 1)' },
  { id: 'middle', label: 'Peak middle', easing: 'cubic-bezier(0.8, 0, 0.2, 1)' },
  { id: 'late', label: 'Peak late', easing: 'cubic-bezier(0.7, 0, 0.9, 0.2)' },
] as const

/** The easing run backward: 1 − e(1 − p). */
export function reversedEasing(easing: string): string {
  const bezier = bezierOf(easing)
  if (bezier) return bezierText([1 - bezier[2], 1 - bezier[3], 1 - bezier[0], 1 - bezier[1]])
  if (easing === 'hold' || easing === 'step-end') return 'step-start'
  if (easing === 'step-start') return 'hold'
  const steps = /^steps\(\s*(\d+)\s*(?:,\s*([a-z-]+))?\s*\)$/.exec(easing)
  if (steps) {
    const turned = new Map([
      ['start', 'end'],
      ['end', 'start'],
      ['jump-start', 'end'],
      ['jump-end', 'start'],
    ])
    return `steps(${steps[1]}, ${turned.get(steps[2] ?? 'end') ?? steps[2]})`
  }
  return drawnBackward(easing)
}

const SAMPLES = 32

/** A drawn easing backward, as points of its run. */
function drawnBackward(easing: string): string {
  const run = readEasing(easing)
  if (!run) return 'linear'
  const points = Array.from({ length: SAMPLES + 1 }, (_, i) => tidy(1 - run(1 - i / SAMPLES)))
  return `linear(${points.join(', ')})`
}
