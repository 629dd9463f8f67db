import type { Bend, Key } from './moving'

// Bent ways between two keys of a number: a cubic Bézier curve in the value, which eased progress runs along.

type BentKey = Pick<Key<number>, 'value' | 'bend'>

/** Whether the way between two keys is bent at all. */
export const isBent = (from: BentKey, to: BentKey): boolean => from.bend?.out !== undefined || to.bend?.in !== undefined

/** The four points of the way, straight or bent. */
function curveOf(from: BentKey, to: BentKey): readonly [number, number, number, number] {
  const third = (to.value - from.value) / 3
  return [from.value, from.value + (from.bend?.out ?? third), to.value + (to.bend?.in ?? -third), to.value]
}

/** The value at a progress. Where an easing overshoots, the way goes on straight in its last direction. */
export function between(from: BentKey, to: BentKey, progress: number): number {
  if (!isBent(from, to)) return from.value + (to.value - from.value) * progress
  const [a, b, c, d] = curveOf(from, to)
  if (progress < 0) return a + 3 * (b - a) * progress
  if (progress > 1) return d + 3 * (d - c) * (progress - 1)
  const t = progress
  const u = 1 - t
  return u * u * u * a + 3 * u * u * t * b + 3 * u * t * t * c + t * t * t * d
}

/** The bends of a way that gets a key at a progress between: before, at and after it (de Casteljau). */
export function splitBend(
  from: BentKey,
  to: BentKey,
  progress: number,
): { out: number; at: Required<Bend>; in: number } {
  const t = Math.min(1, Math.max(0, progress))
  const [a, b, c, d] = curveOf(from, to)
  const mix = (p: number, q: number) => p + (q - p) * t
  const [ab, bc, cd] = [mix(a, b), mix(b, c), mix(c, d)]
  const [abc, bcd] = [mix(ab, bc), mix(bc, cd)]
  const middle = mix(abc, bcd)
  return { out: ab - a, at: { in: abc - middle, out: bcd - middle }, in: cd - d }
}
