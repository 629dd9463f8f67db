import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Ring } from '../outline/contour'
import { bentStrand } from '../outline/dense'
import { isLine } from '../outline/mould'
import type { Strand } from '../outline/strand'
import { lengthOf } from '../outline/strand'
import type { Point, Px, Rect } from '../units'
import { hashed } from '../values/ring-noise'
import type { EvaluatedValues } from '../values/evaluated'
import type { Length } from '../values/moving'
import { choice, number } from '../values/parameter-kinds'
import { angle, detail, seed, span } from './common-parameters'
import { defineStep } from './definition'
import type { Grip, GripWork } from './grips'
import { wavesGrip } from './grips'
import { planeNoise } from './plane-noise'

const arc = { parameter: 'form', is: ['arc'] }
const wave = { parameter: 'form', is: ['wave'] }
const swell = { parameter: 'form', is: ['swell'] }
const flow = { parameter: 'form', is: ['turbulence'] }

const parameters = {
  form: choice({
    label: 'Form',
    help: 'Along an arc, as a wave, thicker in the middle, or by flowing chance',
    default: 'arc',
    options: [
      { value: 'arc', label: 'Arc' },
      { value: 'wave', label: 'Wave' },
      { value: 'swell', label: 'Swell' },
      { value: 'turbulence', label: 'Turbulence' },
    ],
  }),
  bend: angle('Bend', 'How far round a circle the width goes, in degrees: above 0 the middle is highest', 60, {
    ...({ min: -360, max: 360 } as const),
    when: arc,
  }),
  height: span('Height', 'How far the wave goes to each side', 20, [0, 120], { when: wave }),
  length: span('Length', 'Length of one wave', 300, [20, 1000], { when: wave }),
  phase: number({
    label: 'Phase',
    help: 'Moves the wave along: 1 is a whole wave, after which it is the same again',
    ...({ default: 0, min: -1000, max: 1000, step: 0.01, unit: '', slider: [0, 2], turn: 1 } as const),
    when: wave,
  }),
  way: {
    ...choice({
      label: 'Way',
      help: 'Moves up and down along the width, or to the sides along the height',
      default: 'level',
      options: [
        { value: 'level', label: 'Up and down' },
        { value: 'upright', label: 'Sideways' },
      ],
    }),
    when: { parameter: 'form', is: ['wave', 'swell'] },
  },
  swell: number({
    label: 'Swell',
    help: 'How much thicker the middle is than the ends, in %; below 0 thinner',
    ...({ default: 40, min: -100, max: 1000, step: 1, unit: '%', slider: [-100, 200] } as const),
    when: swell,
  }),
  amount: span('Amount', 'How far points are moved at most; no farther than one and a half whirls', 20, [0, 200], {
    when: flow,
  }),
  size: span('Size', 'Size of the whirls', 160, [10, 800], { when: flow }),
  detail: detail(1, { when: flow }),
  evolution: number({
    label: 'Evolution',
    help: 'Lets the noise flow: 1 is a whole turn, after which it is the same again',
    ...({ default: 0, min: -1000, max: 1000, step: 0.01, unit: '', slider: [0, 4], turn: 1 } as const),
    when: flow,
  }),
  seed: seed({ when: flow }),
} as const

type Values = EvaluatedValues<typeof parameters>

export const warp = defineStep({
  kind: 'warp',
  label: 'Warp',
  help: 'Bends the outline: along an arc, in waves, swollen, or by flowing chance',
  parameters,
  headline: 'bend',
  works: 'both',
  idle: (values) => amountOf(values) === 0,
  apply(values, mould, work) {
    const throwOf = (work.chance ^ Math.imul(Math.round(values.seed) + 1, 0x85ebca6b)) >>> 0
    return mould.map((part) => {
      const area = work.around(part)
      const map = warpOf(values, area, work.px, throwOf)
      const wave = waveOf(values, work.px, area) / 8
      // What is moved farther than its waves are long crosses itself all over: finer would only take longer.
      const crumpled = Math.min(10, Math.max(1, reachOf(values, work.px) / (wave * 8)))
      const most = MOST_POINTS / crumpled ** 2
      const bend = (strand: Strand) =>
        bentStrand(strand, map, work.tolerance, Math.max(wave, lengthOf(strand) / (MOST_PIECES / crumpled)), most)
      const bent = (ring: Ring): Ring => {
        const { points, smooth } = bend({ ...ring, closed: true })
        return { points, smooth }
      }
      const { form } = part
      if (!isLine(form)) return { ...part, form: work.united(form.map(bent)) }
      return { ...part, form: { ...form, strands: form.strands.map(bend), within: form.within.map(bent) } }
    })
  },
  grips: (values, work) => [warpGrip(values, work)],
  way(from, to, { px, whole }) {
    const [a, b] = [from, to].map((values) => warpOf(values, whole, px, 1)) as [Warp, Warp]
    let most = 0
    for (let i = 0; i <= GRID; i++) {
      for (let j = 0; j <= GRID; j++) {
        const x = whole.left + ((whole.right - whole.left) * i) / GRID
        const y = whole.top + ((whole.bottom - whole.top) * j) / GRID
        const [p, q] = [a({ x, y }), b({ x, y })]
        most = Math.max(most, Math.sqrt((q.x - p.x) ** 2 + (q.y - p.y) ** 2))
      }
    }
    return most
  },
})

/** Pieces of a strand at most before it is bent, and the shortest wave, in px. */
const MOST_PIECES = 2000
const LEAST_WAVE = 2
/** How far turbulence moves at most, in whirls. */
const STEEPEST = 1.5
/** Points of a strand after it was bent, at most. */
const MOST_POINTS = 12_000

/** Places a side at which it is measured how far a warp moves. */
const GRID = 12

type Warp = (point: Point) => Point

const valueOf = (length: Length) => (typeof length === 'number' ? length : length.value)

function amountOf({ form, bend, height, swell, amount }: Values): number {
  if (form === 'arc') return bend
  if (form === 'wave') return valueOf(height)
  return form === 'swell' ? swell : valueOf(amount)
}

/** How far points go within one wave of it. */
const reachOf = ({ form, height, amount }: Values, px: (length: Length) => Px): Px =>
  form === 'wave' ? px(height) : form === 'turbulence' ? px(amount) : 0

/** Lengths below which a warp is smooth. */
function waveOf({ form, length, size, detail }: Values, px: (length: Length) => Px, area: Rect): Px {
  if (form === 'wave') return Math.max(LEAST_WAVE, px(length))
  if (form === 'turbulence') return Math.max(LEAST_WAVE, px(size)) / 2 ** (Math.round(detail) - 1)
  return Math.max(area.right - area.left, area.bottom - area.top)
}

function warpOf(values: Values, area: Rect, px: (length: Length) => Px, throwOf: number): Warp {
  const [cx, cy] = [(area.left + area.right) / 2, (area.top + area.bottom) / 2]
  const [w, h] = [area.right - area.left, area.bottom - area.top]
  const level = values.way === 'level'
  switch (values.form) {
    case 'arc': {
      const bend = values.bend
      if (bend === 0 || w <= 0) return (point) => point
      // The middle line keeps its length: it goes round a circle whose centre lies below for a bend above 0.
      const radius = (w * 180) / (Math.PI * bend)
      return ({ x, y }) => {
        const turn = (bend * (x - cx)) / w
        const out = radius - (y - cy)
        return { x: cx + out * sinDegrees(turn), y: cy + radius - out * cosDegrees(turn) }
      }
    }
    case 'wave': {
      const [height, length] = [px(values.height), Math.max(LEAST_WAVE, px(values.length))]
      const at = (along: number) => height * sinDegrees(360 * (along / length - values.phase))
      return ({ x, y }) => (level ? { x, y: y + at(x - area.left) } : { x: x + at(y - area.top), y })
    }
    case 'swell': {
      const grown = (share: number) => 1 + (values.swell / 100) * Math.max(0, 1 - share * share)
      return ({ x, y }) =>
        level
          ? { x, y: cy + (y - cy) * grown(w > 0 ? (2 * (x - cx)) / w : 0) }
          : { x: cx + (x - cx) * grown(h > 0 ? (2 * (y - cy)) / h : 0), y }
    }
    case 'turbulence': {
      const size = Math.max(LEAST_WAVE, px(values.size))
      // Beyond its whirls a plane that is moved lies on itself all over.
      const amount = Math.min(px(values.amount), size * STEEPEST)
      const [dx, dy] = [0, 1].map((k) =>
        planeNoise(Math.floor(hashed(k, throwOf) * 0x7fffffff), values.detail, values.evolution),
      ) as [(x: number, y: number) => number, (x: number, y: number) => number]
      return ({ x, y }) => ({ x: x + amount * dx(x / size, y / size), y: y + amount * dy(x / size, y / size) })
    }
  }
}

function warpGrip(values: Values, { whole, px }: GripWork): Grip {
  const { left, top, right, bottom } = whole
  const middle = { x: (left + right) / 2, y: (top + bottom) / 2 }
  switch (values.form) {
    case 'arc': {
      const half = (right - left) / 2
      return {
        label: 'Bend',
        from: { x: right, y: middle.y },
        at: { x: right, y: middle.y + sagOf(values.bend, half) },
        values: ({ y }) => ({ bend: bendOf(y - middle.y, half) }),
      }
    }
    case 'wave': {
      const at = { length: px(values.length), height: px(values.height) }
      return wavesGrip('Length and height', ['length', 'height'], at, whole)
    }
    case 'swell': {
      const [half, grown] = [(bottom - top) / 2, 1 + values.swell / 100]
      if (values.way === 'level')
        return {
          label: 'Swell',
          from: { x: middle.x, y: top },
          at: { x: middle.x, y: middle.y - half * grown },
          values: ({ y }) => ({ swell: ((middle.y - y) / Math.max(1, half) - 1) * 100 }),
        }
      const side = (right - left) / 2
      return {
        label: 'Swell',
        from: { x: right, y: middle.y },
        at: { x: middle.x + side * grown, y: middle.y },
        values: ({ x }) => ({ swell: ((x - middle.x) / Math.max(1, side) - 1) * 100 }),
      }
    }
    case 'turbulence': {
      const at = { length: px(values.size), height: px(values.amount) }
      return wavesGrip('Size of the whirls, and amount', ['size', 'amount'], at, whole)
    }
  }
}

/** How far the middle of an arc stands above its ends; they hang lower the more it is bent. */
const sagOf = (bend: number, half: Px) =>
  bend === 0 ? 0 : (half * 360 * (1 - cosDegrees(bend / 2))) / (Math.PI * bend)

/** The bend up to which ends hang lower the more it is bent, in degrees. */
const MOST_HANGING = 260

/** The bend at which the ends hang so low, by halving. */
function bendOf(sag: Px, half: Px): number {
  let [low, high] = [-MOST_HANGING, MOST_HANGING]
  for (let i = 0; i < 30; i++) {
    const bend = (low + high) / 2
    if (sagOf(bend, half) < sag) low = bend
    else high = bend
  }
  return (low + high) / 2
}
