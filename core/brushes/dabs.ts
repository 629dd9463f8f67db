import { acosDegrees } from '../kernels/exact'
import { hashed } from '../values/ring-noise'
import type { Degrees, Px } from '../units'
import type { BrushStroke } from './stroke'

/** One print of a tip, in px of the piece. */
export interface Dab {
  x: Px
  y: Px
  radius: Px
  turn: Degrees
  /** 0–1. */
  flow: number
}

/** Dabs of one stroke: what is longer is spaced wider. */
const MOST_DABS = 20_000
const LEAST_STEP: Px = 0.25

const known = new WeakMap<BrushStroke, readonly Dab[]>()

/** The dabs of a stroke in the order in which they fall: at even distances along its line, each with the pressure there. */
export function dabsOf(stroke: BrushStroke): readonly Dab[] {
  let dabs = known.get(stroke)
  if (!dabs) {
    dabs = dabsAlong(stroke)
    known.set(stroke, dabs)
  }
  return dabs
}

function dabsAlong(stroke: BrushStroke): Dab[] {
  const { points, size, spacing } = stroke
  const count = Math.floor(points.length / 3)
  if (count === 0) return []
  const at = (i: number) => ({ x: points[i * 3]!, y: points[i * 3 + 1]!, press: points[i * 3 + 2]! })
  const lengths = [0]
  for (let i = 1; i < count; i++) {
    const [a, b] = [at(i - 1), at(i)]
    lengths.push(lengths[i - 1]! + Math.sqrt((b.x - a.x) ** 2 + (b.y - a.y) ** 2))
  }
  const whole = lengths.at(-1)!
  const step = Math.max(LEAST_STEP, (size * spacing) / 100, whole / MOST_DABS)
  const dabs: Dab[] = []
  for (let n = 0, k = 0; n * step <= whole; n++) {
    const along = n * step
    while (k < count - 2 && lengths[k + 1]! <= along) k++
    const [a, b] = [at(k), at(Math.min(count - 1, k + 1))]
    const span = (lengths[k + 1] ?? along) - lengths[k]!
    const t = span > 0 ? (along - lengths[k]!) / span : 0
    const [dx, dy] = [b.x - a.x, b.y - a.y]
    const dab = dabAt(stroke, n, a.x + dx * t, a.y + dy * t, a.press + (b.press - a.press) * t)
    dabs.push(stroke.along && span > 0 ? { ...dab, turn: dab.turn + directionOf(dx / span, dy / span) } : dab)
  }
  return dabs
}

/** Where a line goes, in degrees anticlockwise on paper. */
const directionOf = (dx: number, dy: number): Degrees => (dy > 0 ? -1 : 1) * acosDegrees(dx)

function dabAt(stroke: BrushStroke, n: number, x: Px, y: Px, press: number): Dab {
  const { size, scatter, turn, turnBy, flow, pressSize, pressFlow, seed } = stroke
  const chance = (k: number) => hashed(n * 4 + k, seed) * 2 - 1
  const thrown = (size * scatter) / 100
  const weighed = (share: number) => 1 - (share / 100) * (1 - press)
  return {
    x: x + thrown * chance(0),
    y: y + thrown * chance(1),
    radius: (size / 2) * weighed(pressSize),
    turn: turn + turnBy * chance(2),
    flow: (flow / 100) * weighed(pressFlow),
  }
}
