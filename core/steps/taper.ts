import type { StoredCurve } from '../curves/curve'
import { readCurve } from '../curves/curve'
import { isLine } from '../outline/mould'
import type { Strand } from '../outline/strand'
import { denser, lengthsOf } from '../outline/strand'
import { choice, curve } from '../values/parameter-kinds'
import { percent } from './common-parameters'
import { defineStep } from './definition'

/** Straight pieces of a tapered line at least. */
const PIECES = 96

export const taper = defineStep({
  kind: 'taper',
  label: 'Taper',
  help: 'Lets the thickness of a line change on its way, as a pen draws it',
  parameters: {
    by: choice({
      label: 'By',
      help: 'A curve along the line, or how hard the path was drawn',
      default: 'curve',
      options: [
        { value: 'curve', label: 'Curve' },
        { value: 'pressure', label: 'Pressure' },
      ],
    }),
    start: percent('Start', 'Thickness where the curve is 0, or without pressure, in % of the line', 100, { max: 400 }),
    end: percent('End', 'Thickness where the curve is 1, or at full pressure, in % of the line', 0, { max: 400 }),
    profile: {
      ...curve({
        label: 'Curve',
        help: 'How the thickness goes from the start of the line to its end',
        default: 'linear',
      }),
      when: { parameter: 'by', is: ['curve'] },
    },
  },
  headline: 'end',
  works: 'lines',
  idle: ({ start, end }) => start === 100 && end === 100,
  apply({ by, start, end, profile }, mould, { pressure }) {
    if (by === 'pressure' && pressure.length === 0) return mould
    const share = by === 'pressure' ? alongSamples(pressure) : readCurve(profile as StoredCurve)
    const width = (t: number) => Math.max(0, (start + (end - start) * share(t)) / 100)
    return mould.map((part) => {
      const { form } = part
      if (!isLine(form)) return part
      return { ...part, form: { ...form, strands: form.strands.map((strand) => tapered(strand, width)) } }
    })
  },
  grips({ by, start, end }, { line }) {
    if (by !== 'curve' || !line) return []
    const { along, thickness } = line
    const half = thickness / 2
    return (['start', 'end'] as const).map((name) => {
      const at = name === 'start' ? 0 : along.length
      const from = along.at(at)
      const before = along.at(Math.max(0, at - 1))
      const after = along.at(Math.min(along.length, at + 1))
      const [dx, dy] = [after.x - before.x, after.y - before.y]
      const length = Math.sqrt(dx * dx + dy * dy) || 1
      // To the left of the line, seen along it.
      const side = { x: dy / length, y: -dx / length }
      const out = (half * { start, end }[name]) / 100
      return {
        label: name === 'start' ? 'Thickness at the start' : 'Thickness at the end',
        from,
        at: { x: from.x + side.x * out, y: from.y + side.y * out },
        values: ({ x, y }) => ({ [name]: (((x - from.x) * side.x + (y - from.y) * side.y) / half) * 100 }),
      }
    })
  },
  way: (from, to, { thickness }) =>
    (Math.max(Math.abs(to.start - from.start), Math.abs(to.end - from.end)) / 200) * thickness,
})

function tapered(strand: Strand, width: (t: number) => number): Strand {
  const whole = lengthsOf(strand).at(-1)!
  if (whole <= 0) return strand
  const dense = denser(strand, whole / PIECES)
  const lengths = lengthsOf(dense)
  return { ...dense, widths: dense.smooth.map((_, i) => width(lengths[i]! / whole) * (dense.widths?.[i] ?? 1)) }
}

/** Values at even distances as a function of 0–1, straight between them. */
function alongSamples(samples: readonly number[]): (t: number) => number {
  return (t) => {
    const at = Math.min(1, Math.max(0, t)) * (samples.length - 1)
    const i = Math.min(samples.length - 1, Math.floor(at))
    const next = samples[i + 1] ?? samples[i]!
    return samples[i]! + (next - samples[i]!) * (at - i)
  }
}
