import type { ColourTables } from '../kernels/kernels'
import { tableOf } from '../kernels/kernels'
import { toDisplay, toLinear } from '../values/oklab'
import type { FinishBench, RowWork } from './definition'

// In which light a finish counts. The card's pixels may be display-encoded or linear; what is said of a value (a grain of
// 12 %, a level of 64) is said of display values, what is said of light (a stop, a white balance) of linear ones.

type Tables = ColourTables['tables']

const three = (table: Float32Array): Tables => [table, table, table]
let transfers: { toLinear: ColourTables; toDisplay: ColourTables } | null = null

/** The transfer functions of sRGB (IEC 61966-2-1) as tables. */
const transfersOf = () =>
  (transfers ??= {
    toLinear: { tables: three(tableOf(toLinear)), root: false },
    toDisplay: { tables: three(tableOf(toDisplay, true)), root: true },
  })

/** From display-encoded values to linear light. */
export const TO_LINEAR = (): ColourTables => transfersOf().toLinear

/** From linear light to display-encoded values. */
export const TO_DISPLAY = (): ColourTables => transfersOf().toDisplay

/** Work on display-encoded values, whatever the card's pixels are. */
export function inDisplay({ kernels, linear }: FinishBench, work: RowWork): RowWork {
  if (!linear) return work
  const { toDisplay: into, toLinear: back } = transfersOf()
  return (rows) => {
    kernels.throughTables(rows, into)
    work(rows)
    kernels.throughTables(rows, back)
  }
}

/** Work on linear light, whatever the card's pixels are. */
export function inLinear({ kernels, linear }: FinishBench, work: RowWork): RowWork {
  if (linear) return work
  const { toDisplay: back, toLinear: into } = transfersOf()
  return (rows) => {
    kernels.throughTables(rows, into)
    work(rows)
    kernels.throughTables(rows, back)
  }
}

type Curve = (v: number) => number

/** What display values become by functions of red, green and blue, as one look-up whatever the card's pixels are. */
export function byDisplay(bench: FinishBench, curves: readonly [Curve, Curve, Curve]): RowWork {
  const { kernels, linear } = bench
  const root = linear
  const cut = (v: number) => Math.min(1, Math.max(0, v))
  const table = (curve: Curve) =>
    tableOf(linear ? (v) => toLinear(cut(curve(toDisplay(v)))) : (v) => cut(curve(v)), root)
  const [r, g, b] = curves
  const red = table(r)
  const green = g === r ? red : table(g)
  const tables: Tables = [red, green, b === r ? red : b === g ? green : table(b)]
  return (rows) => kernels.throughTables(rows, { tables, root })
}

/** A curve on one channel, or on all. */
export function onChannel(
  channel: 'all' | 'red' | 'green' | 'blue' | string,
  curve: Curve,
): readonly [Curve, Curve, Curve] {
  const on = (name: string) => (channel === 'all' || channel === name ? curve : SAME)
  return [on('red'), on('green'), on('blue')]
}

const SAME: Curve = (v) => v
