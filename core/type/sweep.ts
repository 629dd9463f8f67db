import { cosDegrees, exp } from '../kernels/exact'
import { readEasing } from '../values/easing'
import { hashed } from '../values/ring-noise'
import type { SetLetter } from './setting'
import type { RangeValues } from './ranges'

// How much of a range lies on each letter: the sweep goes through letters, words or lines in an order.

type SweepValues = Pick<RangeValues, 'units' | 'form' | 'order' | 'seed' | 'sweep' | 'spread' | 'ease' | 'from' | 'to'>

/**
 * The weight of a range on every letter: 1 where its values are reached, 0 at rest; below 0 and above 1 where the ease
 * goes past. Spaces have that of the letter before them.
 */
export function weightsOf(letters: readonly SetLetter[], range: SweepValues): number[] {
  const unitOf = unitsOf(letters, range.units)
  const count = Math.max(0, ...unitOf) + 1
  const shares = Array.from({ length: count }, (_, i) => shareWithin(i, count, range.from / 100, range.to / 100))
  const chosen = shares.flatMap((share, i) => (share > 0 ? [i] : []))
  const places = placesIn(range.order, chosen.length, range.seed)
  const weights = new Array<number>(count).fill(0)
  chosen.forEach((unit, i) => {
    weights[unit] = shares[unit]! * formed(range, passage(places[i]!, chosen.length, range))
  })
  return unitOf.map((unit) => weights[unit]!)
}

/** The index of each letter's letter, word or line, without gaps; a space has that of what stands before it. */
function unitsOf(letters: readonly SetLetter[], units: SweepValues['units']): number[] {
  let last = -1
  let name: number | null = null
  return letters.map((letter, i) => {
    const own = units === 'letters' ? i : units === 'words' ? letter.word : letter.line
    if (!letter.blank && own !== name) {
      last++
      name = own
    }
    return Math.max(0, last)
  })
}

/** How much of a unit lies between two places of the text, 0–1. */
function shareWithin(index: number, count: number, from: number, to: number): number {
  const [left, right] = [Math.min(from, to), Math.max(from, to)]
  const common = Math.min((index + 1) / count, right) - Math.max(index / count, left)
  // Places in % seldom meet the edges of letters exactly: what is less than a thousandth of one is none of it.
  const share = Math.min(1, Math.max(0, common * count))
  return share < 1e-3 ? 0 : share > 1 - 1e-3 ? 1 : share
}

/** When each of some units goes, from 0 for the first to 1 for the last. */
export function placesIn(order: SweepValues['order'], count: number, seed: number): number[] {
  const last = Math.max(1, count - 1)
  const indices = Array.from({ length: count }, (_, i) => i)
  // Twice the distance from the middle: whole numbers, from that of the middle one or two.
  const least = count % 2 === 0 ? 1 : 0
  const outward = (i: number) => (Math.abs(2 * i - (count - 1)) - least) / Math.max(1, count - 1 - least)
  switch (order) {
    case 'forward':
      return indices.map((i) => i / last)
    case 'backward':
      return indices.map((i) => (count - 1 - i) / last)
    case 'centre':
      return indices.map(outward)
    case 'edges':
      return indices.map((i) => 1 - outward(i))
    case 'shuffle': {
      const thrown = indices.map((i) => hashed(i, Math.round(seed)))
      const sorted = [...indices].sort((a, b) => thrown[a]! - thrown[b]! || a - b)
      return indices.map((i) => sorted.indexOf(i) / last)
    }
  }
}

/** How far a unit is on its own way, 0–1. One alone takes the whole sweep. */
function passage(place: number, count: number, { sweep, spread }: SweepValues): number {
  const share = count > 1 ? spread / 100 : 1
  return Math.min(1, Math.max(0, (sweep / 100 - place * (1 - share)) / share))
}

function formed({ form, ease }: SweepValues, t: number): number {
  const eased = EASES[ease]
  if (form === 'arrive') return 1 - eased(t)
  if (form === 'leave') return eased(t)
  return t < 0.5 ? eased(2 * t) : eased(2 - 2 * t)
}

const css = (text: string) => readEasing(text)!

const EASES: Record<SweepValues['ease'], (t: number) => number> = {
  even: (t) => t,
  soft: css('ease-in-out'),
  early: css('cubic-bezier(0.1, 0.8, 0.3, 1)'),
  late: css('cubic-bezier(0.7, 0, 0.9, 0.2)'),
  past: css('cubic-bezier(0.3, 1.6, 0.5, 1)'),
  // A damped swing that has died away at the end: 1 − (1 − t)·e^(−5t)·cos(1.75 turns · t).
  swing: (t) => 1 - (1 - t) * exp(-5 * t) * cosDegrees(630 * t),
}
