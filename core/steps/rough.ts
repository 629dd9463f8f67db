import type { Ring } from '../outline/contour'
import { denser, lengthOf } from '../outline/strand'
import { hashed } from '../values/ring-noise'
import { detail, every, seed, span } from './common-parameters'
import { defineStep } from './definition'
import { wavesGrip } from './grips'
import { planeNoise } from './plane-noise'

/** Points on the shortest wave. */
const POINTS_OF_WAVE = 6
/** Points of one ring at most. */
const MOST_POINTS = 6000
/** And of all of them. */
const MOST_TOGETHER = 40_000
/** How far the edge is moved at most, in waves. */
const STEEPEST = 2

export const rough = defineStep({
  kind: 'rough',
  label: 'Rough',
  help: 'Moves the edge in and out by smooth chance, as a dry pen or torn paper has it',
  parameters: {
    amount: span(
      'Amount',
      'How far the edge may be moved by chance, mostly less than half of it; no farther than two waves',
      4,
      [0, 40],
    ),
    size: span('Size', 'Length of a wave of the edge', 40, [2, 300]),
    detail: detail(2),
    every: every(),
    seed: seed(),
  },
  headline: 'amount',
  works: 'areas',
  idle: ({ amount }) => (typeof amount === 'number' ? amount : amount.value) === 0,
  every: ({ every }) => every,
  apply({ amount, size, detail, seed }, mould, work) {
    const wave = Math.max(work.px(size), 20 * work.tolerance)
    const throwOf = (work.chance ^ Math.imul(Math.round(seed) + 1, 0x85ebca6b)) >>> 0
    const fields = [0, 1, 2].map((k) => planeNoise(Math.floor(hashed(k, throwOf) * 0x7fffffff), detail))
    const step = wave / 2 ** (Math.round(detail) - 1) / POINTS_OF_WAVE
    // An edge that is moved much farther than its waves are long crosses itself all over, and is no edge any more.
    const by = Math.min(work.px(amount), wave * STEEPEST)
    const areas = mould.map((part) => work.rings(part))
    const whole = areas.flat().reduce((sum, ring) => sum + lengthAround(ring), 0)
    const least = Math.max(step, whole / MOST_TOGETHER)
    return mould.map((part, i) => ({
      ...part,
      form: work.united(
        areas[i]!.map((ring) => moved(ring, Math.max(least, lengthAround(ring) / MOST_POINTS), wave, by, fields)),
      ),
    }))
  },
  grips: ({ amount, size }, { whole, px }) => [
    wavesGrip('Length of a wave, and amount', ['size', 'amount'], { length: px(size), height: px(amount) }, whole),
  ],
  way: (from, to, { px }) => Math.abs(px(to.amount) - px(from.amount)),
})

const lengthAround = (ring: Ring) => lengthOf({ ...ring, closed: true })

type Field = (x: number, y: number) => number

/**
 * The noise belongs to the place, not to the length along the edge, so that what is drawn on or cut off leaves the rest as it
 * is. Two fields are seen along the normal, the third as it is: both sides of a thin line then move each for itself.
 */
function moved(ring: Ring, step: number, wave: number, by: number, fields: readonly Field[]): Ring {
  const strand = { ...ring, closed: true }
  const { points, smooth } = denser(strand, step)
  const n = points.length / 2
  const out = new Array<number>(n * 2)
  const [p, q, r] = fields as [Field, Field, Field]
  for (let i = 0; i < n; i++) {
    const [x, y] = [points[i * 2]!, points[i * 2 + 1]!]
    const [before, after] = [((i + n - 1) % n) * 2, ((i + 1) % n) * 2]
    const a = unit(x - points[before]!, y - points[before + 1]!)
    const b = unit(points[after]! - x, points[after + 1]! - y)
    const normal = unit(a.y + b.y, -a.x - b.x)
    const [u, v] = [x / wave, y / wave]
    const d = by * Math.SQRT1_2 * (p(u, v) * normal.x + q(u, v) * normal.y + r(u, v))
    out[i * 2] = x + normal.x * d
    out[i * 2 + 1] = y + normal.y * d
  }
  return { points: out, smooth }
}

function unit(x: number, y: number) {
  const length = Math.sqrt(x * x + y * y)
  return length > 0 ? { x: x / length, y: y / length } : { x: 0, y: 0 }
}
