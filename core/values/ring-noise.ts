import { Kept } from '../kept'

// Seeded noise on a ring: a closed uniform cubic B-spline through random weights. It has no seam in value, slope or
// curvature; its mean over the ring is 0 and its largest distance from it is 1, both exactly.
// (C. de Boor, A Practical Guide to Splines, 1978, for the basis.)

export interface RingNoise {
  points: number
  /** At a place on the ring; 0 and 1 are the same place. */
  smooth: (place: number) => number
  /** Held from one of the ring's points to the next: flicker. */
  jumps: (place: number) => number
}

/** Random points of all that is kept. */
const BUDGET = 2_000_000
const kept = new Kept<string, RingNoise>(BUDGET, ({ points }) => points)
/** More points on one ring are no noise that anybody tells apart. */
const MOST_POINTS = 500_000

/** Noise with so many random points round the ring. Needs at least 2. */
export function ringNoise(points: number, seed: number): RingNoise {
  const count = Math.min(MOST_POINTS, points)
  return kept.of(`${count} ${seed}`, () => make(count, seed))
}

function make(points: number, seed: number): RingNoise {
  const thrown = Array.from({ length: points }, (_, i) => hashed(i, seed) * 2 - 1)
  const mean = thrown.reduce((sum, v) => sum + v, 0) / points
  const even = thrown.map((v) => v - mean)
  // A spline's mean is that of its weights: the basis adds up to 1 everywhere and is the same for all.
  const weights = scaled(
    even,
    largest(even, (_, i) => largestIn(even, i)),
  )
  const levels = scaled(even, largest(even, Math.abs))
  return {
    points,
    smooth: (place) => {
      const at = turned(place) * points
      const i = Math.min(points - 1, Math.floor(at))
      const [a, b, c, d] = cubicOf(weights, i)
      const t = at - i
      return ((a * t + b) * t + c) * t + d
    },
    jumps: (place) => levels[Math.min(points - 1, Math.floor(turned(place) * points + 1e-9))]!,
  }
}

const largest = (values: readonly number[], of: (value: number, i: number) => number) =>
  values.reduce((most, value, i) => Math.max(most, of(value, i)), 0)

const turned = (place: number) => place - Math.floor(place)
const scaled = (values: readonly number[], by: number) => (by > 0 ? values.map((v) => v / by) : [...values])

/** The cubic between points i and i + 1: a t³ + b t² + c t + d. */
function cubicOf(weights: readonly number[], i: number): [number, number, number, number] {
  const n = weights.length
  const w = (k: number) => weights[(((i + k) % n) + n) % n]!
  const [p, q, r, s] = [w(-1), w(0), w(1), w(2)]
  return [(-p + 3 * q - 3 * r + s) / 6, (p - 2 * q + r) / 2, (r - p) / 2, (p + 4 * q + r) / 6]
}

/** The largest distance from 0 between points i and i + 1: at its ends or where its slope is 0. */
function largestIn(weights: readonly number[], i: number): number {
  const [a, b, c, d] = cubicOf(weights, i)
  const at = (t: number) => Math.abs(((a * t + b) * t + c) * t + d)
  const root = Math.sqrt(Math.max(0, b * b - 3 * a * c))
  const turns = Math.abs(a) < 1e-12 ? [-c / (2 * b)] : [(-b + root) / (3 * a), (-b - root) / (3 * a)]
  return Math.max(at(0), at(1), ...turns.filter((t) => t > 0 && t < 1).map(at))
}

/** 0–1 from two whole numbers (finaliser of MurmurHash3, A. Appleby, public domain). */
export function hashed(index: number, seed: number): number {
  let h = Math.imul(index + 0x9e3779b9, 0x85ebca6b) ^ Math.imul(seed + 0x632be5ab, 0xc2b2ae35)
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296
}
