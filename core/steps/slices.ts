import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { Ring } from '../outline/contour'
import { polygon } from '../outline/contour'
import type { MouldPart } from '../outline/mould'
import { spanOf } from '../outline/span'
import type { Point, Rect } from '../units'
import { hashed } from '../values/ring-noise'
import { choice, number, text } from '../values/parameter-kinds'
import type { EvaluatedValues } from '../values/evaluated'
import { angle, every, seed, way } from './common-parameters'
import type { StepWork } from './definition'
import { defineStep } from './definition'

export const MOST_BANDS = 60

const parameters = {
  by: choice({
    label: 'Cut by',
    help: 'A number of bands of one height, or the height of each',
    default: 'number',
    options: [
      { value: 'number', label: 'Number' },
      { value: 'heights', label: 'Heights' },
    ],
  }),
  number: number({
    label: 'Bands',
    help: 'Number of bands',
    ...({ default: 4, min: 1, max: MOST_BANDS, step: 1, unit: '', slider: [1, 12] } as const),
    when: { parameter: 'by', is: ['number'] },
  }),
  heights: {
    ...text({
      label: 'Heights',
      help: 'Heights of the bands from the top, in parts of the whole: 1 2 1 is a quarter, a half, a quarter',
      default: '1 2 1',
      longest: 400,
    }),
    when: { parameter: 'by', is: ['heights'] },
  },
  angle: angle('Angle', 'Direction of the cuts, in degrees anticlockwise: 0 is level', 0),
  gap: way('Gap', 'Opens the bands so far from each other; below 0 they overlap', 0),
  along: way('Along', 'How far bands are moved along the cuts', 0),
  across: way('Across', 'How far bands are moved across the cuts', 0),
  turn: angle('Turn', 'How far bands are turned about their middle, in degrees anticlockwise', 0),
  order: choice({
    label: 'Moved',
    help: 'To and fro in turn, each farther than the one before it, or as chance has it',
    default: 'alternating',
    options: [
      { value: 'alternating', label: 'In turn' },
      { value: 'stairs', label: 'One way' },
      { value: 'chance', label: 'Chance' },
    ],
  }),
  every: every({ when: { parameter: 'order', is: ['chance'] } }),
  seed: seed({ when: { parameter: 'order', is: ['chance'] } }),
} as const

type Values = EvaluatedValues<typeof parameters>

export const slices = defineStep({
  kind: 'slices',
  label: 'Slices',
  help: 'Cuts the outline in bands and moves them; letter motion can move the letters of some bands alone',
  parameters,
  headline: 'number',
  works: 'areas',
  every: ({ order, every }) => (order === 'chance' ? every : 0),
  apply(values, mould, work) {
    const stays = isStill(values)
    if (stays && !work.banded) return mould
    const heights = heightsOf(values)
    if (heights.length === 0) return mould
    return mould.flatMap((part) => sliced(part, values, heights, work))
  },
  grips({ angle, along, across }, { whole: { left, top, right }, px }) {
    const [c, s] = [cosDegrees(angle), sinDegrees(angle)]
    const from = { x: (left + right) / 2, y: top }
    const [u, v] = [px(along), px(across)]
    return [
      {
        label: 'How far bands go',
        from,
        at: { x: from.x + u * c + v * s, y: from.y - u * s + v * c },
        values: ({ x, y }) => {
          const [dx, dy] = [x - from.x, y - from.y]
          return { along: dx * c - dy * s, across: dx * s + dy * c }
        },
      },
    ]
  },
  way(from, to, { px, whole }) {
    const reach = Math.sqrt((whole.right - whole.left) ** 2 + (whole.bottom - whole.top) ** 2) / 2
    const change = (name: 'along' | 'across' | 'gap') => Math.abs(px(to[name]) - px(from[name]))
    const turned = Math.abs(to.turn - from.turn) + Math.abs(to.angle - from.angle)
    return change('along') + change('across') + change('gap') * 2 + (turned * Math.PI * reach) / 180
  },
})

const isStill = ({ gap, along, across, turn }: Values) =>
  [gap, along, across, turn].every((v) => (typeof v === 'number' ? v : v.value) === 0)

/** Heights of the bands as shares of the whole; none where the text gives no height above 0. */
export function heightsOf({ by, number, heights }: Pick<Values, 'by' | 'number' | 'heights'>): number[] {
  if (by === 'number') {
    const n = Math.max(1, Math.round(number))
    return new Array<number>(n).fill(1 / n)
  }
  const read = readHeights(heights)
  const sum = read?.reduce((all, v) => all + v, 0) ?? 0
  return read && sum > 0 ? read.map((v) => v / sum) : []
}

/** Numbers above 0 with spaces or commas between them; null for anything else. */
export function readHeights(words: string): number[] | null {
  const found = words.split(/[\s,;]+/).filter((word) => word !== '')
  const numbers = found.map(Number)
  const good = numbers.length > 0 && numbers.length <= MOST_BANDS && numbers.every((v) => Number.isFinite(v) && v > 0)
  return good ? numbers : null
}

/** How far each band goes on its way, −1 to 1. */
function shareOf({ order, seed }: Values, band: number, count: number, chance: number): number {
  if (order === 'alternating') return band % 2 === 0 ? 1 : -1
  if (order === 'stairs') return count > 1 ? band / (count - 1) : 1
  return 2 * hashed(band, (chance ^ Math.imul(Math.round(seed) + 1, 0x85ebca6b)) >>> 0) - 1
}

function sliced(part: MouldPart, values: Values, heights: readonly number[], work: StepWork): MouldPart[] {
  const { px } = work
  const rings = work.rings(part)
  const frame = frameOf(work.around(part), values.angle)
  const level = rings.map((ring) => mapped(ring, frame.into))
  const span = spanOf(level)
  if (!span) return [part]
  const count = heights.length
  let top = -frame.half
  const bands = heights.map((share, i) => {
    const foot = top + share * 2 * frame.half
    // The first and the last take all that lies beyond what the piece spans at rest.
    const from = i === 0 ? Math.min(span.top, top) - 1 : top
    const to = i === count - 1 ? Math.max(span.bottom, foot) + 1 : foot
    const middle = (top + foot) / 2
    top = foot
    const box = polygon([span.left - 1, from, span.right + 1, from, span.right + 1, to, span.left - 1, to])
    const cut = work.common(level, [box])
    const by = shareOf(values, i, count, work.chance)
    const apart = (i - (count - 1) / 2) * px(values.gap)
    return cut.map((ring) =>
      mapped(ring, movedBy(values.turn * by, middle, px(values.along) * by, px(values.across) * by + apart)),
    )
  })
  if (work.banded && part.band === null) {
    return bands.map((band, i) => ({ ...part, band: i, form: band.map((ring) => mapped(ring, frame.back)) }))
  }
  return [{ ...part, form: work.united(bands.flat()).map((ring) => mapped(ring, frame.back)) }]
}

type Map2 = (point: Point) => Point

/** The cuts' own directions about the middle of an area, and half of what it spans across them. */
function frameOf({ left, top, right, bottom }: Rect, angle: number): { into: Map2; back: Map2; half: number } {
  const [c, s] = [cosDegrees(angle), sinDegrees(angle)]
  const [mx, my] = [(left + right) / 2, (top + bottom) / 2]
  return {
    // On screen, with y down: along the cuts, and across them downward.
    into: ({ x, y }) => ({ x: (x - mx) * c - (y - my) * s, y: (x - mx) * s + (y - my) * c }),
    back: ({ x, y }) => ({ x: mx + x * c + y * s, y: my - x * s + y * c }),
    half: (Math.abs((right - left) * s) + Math.abs((bottom - top) * c)) / 2,
  }
}

function movedBy(turn: number, middle: number, along: number, across: number): Map2 {
  const [c, s] = [cosDegrees(turn), sinDegrees(turn)]
  return ({ x, y }) => ({ x: x * c + (y - middle) * s + along, y: middle - x * s + (y - middle) * c + across })
}

function mapped({ points, smooth }: Ring, map: Map2): Ring {
  const out = new Array<number>(points.length)
  for (let i = 0; i < points.length; i += 2) {
    const { x, y } = map({ x: points[i]!, y: points[i + 1]! })
    out[i] = x
    out[i + 1] = y
  }
  return { points: out, smooth }
}
