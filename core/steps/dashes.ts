import { isLine } from '../outline/mould'
import type { Strand } from '../outline/strand'
import { joined, lengthOf, MeasuredStrand } from '../outline/strand'
import { toggle } from '../values/parameter-kinds'
import { span, way } from './common-parameters'
import { defineStep } from './definition'
import type { Grip } from './grips'

/** Dashes on all lines of a piece together: more are no dashes that anybody tells apart. */
export const MOST_DASHES = 20_000
/** A dot is a dash of this length, in px: round and square ends need a direction. */
const DOT = 1e-3

export const dashes = defineStep({
  kind: 'dashes',
  label: 'Dashes',
  help: 'Parts lines into dashes (SVG 2, stroke-dasharray)',
  parameters: {
    dash: span('Dash', 'Length of a dash; at 0 with round or square ends it is a dot', 30, [0, 200]),
    gap: span('Gap', 'Length of the gap after it', 20, [0, 200]),
    dash2: span('Second dash', 'Length of every second dash; with its gap at 0 there is none', 0, [0, 200]),
    gap2: span('Second gap', 'Length of the gap after every second dash', 0, [0, 200]),
    shift: way('Shift', 'How far the dashes are moved along the line (SVG 2, stroke-dashoffset)', 0),
    fitted: toggle({
      label: 'Fitted',
      help: 'Stretches the pattern a little, so that it comes out even on closed lines',
      default: false,
    }),
  },
  headline: 'dash',
  works: 'lines',
  idle: ({ gap, gap2 }) => isNone(gap) && isNone(gap2),
  apply({ dash, gap, dash2, gap2, shift, fitted }, mould, { px }) {
    const pattern = [px(dash), px(gap), px(dash2), px(gap2)]
    const whole = pattern.reduce((sum, length) => sum + length, 0)
    const second = pattern[2]! + pattern[3]! > 0
    if (whole <= 0) return mould
    const most = mould.reduce(
      (sum, { form }) => sum + (isLine(form) ? form.strands.reduce((n, s) => n + lengthOf(s), 0) : 0),
      0,
    )
    // A pattern so fine that it cannot be seen is a line.
    if ((most / whole) * (second ? 2 : 1) > MOST_DASHES) return mould
    return mould.map((part) => {
      const { form } = part
      if (!isLine(form)) return part
      const dotted = form.cap !== 'butt'
      const strands = form.strands.flatMap((strand) => dashed(strand, pattern, -px(shift), { fitted, dotted }))
      return { ...part, form: { ...form, strands } }
    })
  },
  grips({ dash, gap, dash2, gap2, shift, fitted }, { line, px }) {
    if (!line) return []
    const { along } = line
    const pattern = [px(dash), px(gap), px(dash2), px(gap2)]
    const stretch = stretchOf(along, pattern, fitted)
    const period = pattern.reduce((sum, length) => sum + length, 0) * stretch
    if (period <= 0) return []
    // The first dash of the pattern that begins on the line: so many whole patterns lie before it.
    const before = Math.max(0, Math.ceil(px(shift) / period))
    const first = before * period - px(shift)
    const whole = (length: number) => (along.strand.closed ? turned(length, along.length) : length)
    const grip = (label: string, at: number, values: (gone: number) => Record<string, number>): Grip => ({
      label,
      at: along.at(Math.min(along.length, whole(at))),
      // Along a closed line the shorter way round counts.
      values: (point) => {
        const gone = along.nearest(point) - Math.min(along.length, whole(at))
        const turns = along.strand.closed ? Math.round(gone / along.length) : 0
        return values(gone - turns * along.length)
      },
    })
    // What lies before grows as well.
    const longer = (length: number, gone: number) => Math.max(0, length + gone / stretch / (before + 1))
    const [own, space] = [px(dash), px(gap)]
    return [
      grip('Where the dashes begin', first, (gone) => ({ shift: px(shift) - gone })),
      grip('Length of a dash', first + own * stretch, (gone) => ({ dash: longer(own, gone) })),
      grip('Length of the gap', first + (own + space) * stretch, (gone) => ({ gap: longer(space, gone) })),
    ]
  },
  way: (from, to, { px }) =>
    (['dash', 'gap', 'dash2', 'gap2', 'shift'] as const).reduce(
      (sum, name) => sum + Math.abs(px(to[name]) - px(from[name])),
      0,
    ),
})

const isNone = (length: number | { value: number }) => (typeof length === 'number' ? length : length.value) === 0

/** A length on a ring, from 0 up to its whole. */
const turned = (length: number, whole: number) => length - Math.floor(length / whole) * whole

/** How much longer dashes and gaps are made, so that they come out even on a closed line. */
function stretchOf({ strand, length }: MeasuredStrand, pattern: readonly number[], fitted: boolean): number {
  const whole = pattern.reduce((sum, v) => sum + v, 0)
  return fitted && strand.closed ? length / (Math.max(1, Math.round(length / whole)) * whole) : 1
}

function dashed(
  strand: Strand,
  pattern: readonly number[],
  shift: number,
  { fitted, dotted }: { fitted: boolean; dotted: boolean },
): Strand[] {
  const measured = new MeasuredStrand(strand)
  const { length } = measured
  const stretch = stretchOf(measured, pattern, fitted)
  const [dash, gap, dash2, gap2] = pattern.map((v) => v * stretch) as [number, number, number, number]
  const period = dash + gap + dash2 + gap2
  const found: Strand[] = []
  const put = (from: number, own: number) => {
    const to = from + (own > 0 ? own : dotted ? DOT : 0)
    found.push(...measured.parts(Math.max(0, from), Math.min(length, to)))
  }
  for (let at = (shift % period) - period; at < length; at += period) {
    put(at, dash)
    if (dash2 + gap2 > 0) put(at + dash + gap, dash2)
  }
  return atSeam(found, strand, measured)
}

/** Dashes of a closed line that meet where it begins are one. */
function atSeam(dashes: Strand[], { closed, points, smooth }: Strand, { length }: MeasuredStrand): Strand[] {
  const [first, last] = [dashes[0], dashes.at(-1)]
  if (!closed || !first || !last || first === last || length <= 0) return dashes
  const meets = (strand: Strand, at: number) =>
    strand.points.at(at) === points[0] && strand.points.at(at + 1) === points[1]
  if (!meets(first, 0) || !meets(last, -2)) return dashes
  return [...dashes.slice(1, -1), joined(last, first, smooth[0]!)]
}
