import type { LineForm, Mould } from '../outline/mould'
import { isLine } from '../outline/mould'
import { lengthOf, MeasuredStrand } from '../outline/strand'
import { choice, number } from '../values/parameter-kinds'
import { percent } from './common-parameters'
import { defineStep } from './definition'
import type { Grip } from './grips'

export const drawOn = defineStep({
  kind: 'draw-on',
  label: 'Draw on',
  help: 'Leaves only a part of each line, as if it were being drawn; of no length it leaves nothing',
  parameters: {
    start: percent('Start', 'Where the part begins, in % of the length', 0),
    end: percent('End', 'Where the part ends, in % of the length: move it from 0 to 100 to draw the line on', 100),
    shift: number({
      label: 'Shift',
      help: 'Moves the part along, in % of the length; beyond the end it goes on at the start',
      ...({ default: 0, min: -10_000, max: 10_000, step: 1, unit: '%', slider: [-100, 100], turn: 100 } as const),
    }),
    order: choice({
      label: 'Lines',
      help: 'All lines at once, or one after the other in their order',
      default: 'together',
      options: [
        { value: 'together', label: 'At once' },
        { value: 'chain', label: 'One by one' },
      ],
    }),
    from: choice({
      label: 'Drawn from',
      help: 'Which end is drawn first: the start, the end, or the middle towards both ends',
      default: 'start',
      options: [
        { value: 'start', label: 'Start' },
        { value: 'end', label: 'End' },
        { value: 'centre', label: 'Middle' },
      ],
    }),
  },
  headline: 'end',
  works: 'lines',
  // A closed line that is there as a whole has no ends; all else is cut somewhere.
  idle: ({ start, end }) => Math.abs(end - start) >= 100,
  apply({ start, end, shift, order, from }, mould, { letters }) {
    const [low, high] = [Math.min(start, end) / 100, Math.max(start, end) / 100]
    const cut = (whole: number): [number, number][] =>
      rangesIn(low, high, from).map(([a, b]) => [(a + shift / 100) * whole, (b + shift / 100) * whole])
    const drawn = (parts: Mould): Mould => {
      if (order === 'together') {
        return parts.map((part) => withStrands(part, (form) => form.strands.flatMap((strand) => cutAlone(strand, cut))))
      }
      return chained(parts, cut)
    }
    if (!letters) return drawn(mould)
    return [...new Set(mould.map(({ letter }) => letter))].flatMap((letter) =>
      drawn(mould.filter((part) => part.letter === letter)),
    )
  },
  grips: ({ start, end, shift, from }, { line }) =>
    line
      ? (['start', 'end'] as const).map((name) =>
          endGrip(name, { start, end }[name], { along: line.along, shift, from }),
        )
      : [],
  way(from, to, { longest, together }) {
    const share = Math.max(...(['start', 'end', 'shift'] as const).map((name) => Math.abs(to[name] - from[name]) / 100))
    return share * (to.order === 'chain' ? together : longest)
  },
})

/** The shares of a line that are there, each [a, b] with a < b. */
function rangesIn(low: number, high: number, from: 'start' | 'end' | 'centre'): [number, number][] {
  if (high <= low) return []
  if (from === 'start') return [[low, high]]
  if (from === 'end') return [[1 - high, 1 - low]]
  if (low === 0) return [[0.5 - high / 2, 0.5 + high / 2]]
  return [
    [0.5 - high / 2, 0.5 - low / 2],
    [0.5 + low / 2, 0.5 + high / 2],
  ]
}

/** An end of what is drawn, on its line. */
function endGrip(
  name: 'start' | 'end',
  value: number,
  { along, shift, from }: { along: MeasuredStrand; shift: number; from: 'start' | 'end' | 'centre' },
): Grip {
  const { closed } = along.strand
  const placeOf = { start: (v: number) => v, end: (v: number) => 1 - v, centre: (v: number) => 0.5 + v / 2 }[from]
  const shareAt = { start: (at: number) => at, end: (at: number) => 1 - at, centre: (at: number) => at * 2 - 1 }[from]
  const at = placeOf(value / 100) + shift / 100
  const turned = closed && at !== 1 ? at - Math.floor(at) : Math.min(1, Math.max(0, at))
  return {
    label: name === 'start' ? 'Start of what is drawn' : 'End of what is drawn',
    at: along.at(turned * along.length),
    values: (point) => {
      const place = along.nearest(point) / along.length - shift / 100
      const share = shareAt(closed ? place - Math.floor(place) : Math.min(1, Math.max(0, place)))
      // At the seam of a closed line the grip stays on the side that it comes from.
      const own = closed && Math.abs(share - value / 100) > 0.7 ? Math.round(value / 100) : share
      return { [name]: own * 100 }
    },
  }
}

type Strand = LineForm['strands'][number]

const withStrands = (part: Mould[number], change: (form: LineForm) => Strand[]) =>
  isLine(part.form) ? { ...part, form: { ...part.form, strands: change(part.form) } } : part

/** The parts of one line that are there; what was moved beyond the end of an open one comes in at its start. */
function cutAlone(strand: Strand, cut: (whole: number) => [number, number][]): Strand[] {
  const measured = new MeasuredStrand(strand)
  return cut(measured.length).flatMap(([from, to]) => partsOf(measured, from, to))
}

function partsOf(measured: MeasuredStrand, from: number, to: number): Strand[] {
  const { length, strand } = measured
  if (strand.closed || length <= 0) return measured.parts(from, to)
  return turnsOf(from, to, length).flatMap(([a, b]) => measured.parts(a, b))
}

/** A stretch of a ring of some length, as stretches within it, in its order. */
function turnsOf(from: number, to: number, length: number): [number, number][] {
  const turn = Math.floor(from / length) * length
  const [a, b] = [from - turn, to - turn]
  return b <= length
    ? [[a, b]]
    : [
        [0, b - length],
        [a, length],
      ]
}

/** All lines of all parts as one, drawn one after the other. */
function chained(parts: Mould, cut: (whole: number) => [number, number][]): Mould {
  const whole = parts.reduce(
    (sum, { form }) => sum + (isLine(form) ? form.strands.reduce((own, strand) => own + lengthOf(strand), 0) : 0),
    0,
  )
  const stretches = whole > 0 ? cut(whole).flatMap(([from, to]) => turnsOf(from, to, whole)) : []
  let before = 0
  return parts.map((part) =>
    withStrands(part, ({ strands }) =>
      strands.flatMap((strand) => {
        const measured = new MeasuredStrand(strand)
        const start = before
        before += measured.length
        return stretches.flatMap(([from, to]) => {
          const [a, b] = [Math.max(0, from - start), Math.min(measured.length, to - start)]
          return b > a ? measured.parts(a, b) : []
        })
      }),
    ),
  )
}
