import { WaxError } from '../errors'
import type { Rect } from '../units'
import type { Ring } from './contour'
import type { Strand } from './strand'
import { lengthOf } from './strand'
import { spanOf } from './span'
import type { LineStyle } from './stroked'
import { strokeRings } from './stroked'
import { combine, unite } from './unite'

// What outline steps work on: an outline in parts (the letters of type, or one for all else), each an area or a line that
// has not got its thickness yet. All of it in px of the piece, before its place.

/** On which side of a closed edge a line lies. */
export type LineSide = 'across' | 'inside' | 'outside'

export type LineForm = LineStyle & {
  side: LineSide
  strands: Strand[]
  /** What lies within the edge; empty where lines go across. */
  within: Ring[]
}

export interface MouldPart {
  /** The letter that it belongs to, in reading order; 0 where there are none. */
  letter: number
  /** The band of the first slices that cut it, from 0; null where it was not cut. */
  band: number | null
  /** What it spans at rest, before any step. */
  rest: Rect
  /** Closed rings that do not overlap, or a line. */
  form: Ring[] | LineForm
}

export type Mould = readonly MouldPart[]

export const isLine = (form: MouldPart['form']): form is LineForm => !Array.isArray(form)

/** How finely outlines are made. */
export interface Fineness {
  /** Straight pieces keep within so many px of their curves. */
  tolerance: number
  /** Points of united outlines are snapped to 1/grid px. */
  grid: number
}

/** A form as an area: a line gets its thickness. */
export function ringsOf(form: MouldPart['form'], { tolerance, grid }: Fineness): Ring[] {
  if (!isLine(form)) return form
  const { strands, side, within, thickness } = form
  const split = side !== 'across' && within.length > 0
  // Half of what goes across the edge is cut away.
  const style = split ? { ...form, thickness: thickness * 2 } : form
  // An offset curve keeps within twice the tolerance of the curve it runs beside.
  const sides = strands.flatMap((strand) => strokeRings(strand, style, tolerance / 2))
  refuseTangle(sides, strands, style.thickness)
  const line = unite(sides, grid)
  if (!split) return line
  return combine(side === 'inside' ? 'intersect' : 'difference', line, within, grid)
}

/** Points of lines' sides times how often the lines lie over each other on the mean, up to which they are united in a second or two. */
const MOST_TANGLED = 500_000

/** Throws a WaxError for lines that lie over themselves so often that nobody would wait for their outline. */
function refuseTangle(sides: readonly Ring[], strands: readonly Strand[], thickness: number): void {
  const points = sides.reduce((sum, { smooth }) => sum + smooth.length, 0)
  const span = points < 5000 ? null : spanOf(strands)
  if (!span) return
  const room = (span.right - span.left + thickness) * (span.bottom - span.top + thickness)
  const inked = strands.reduce((sum, strand) => sum + lengthOf(strand), 0) * thickness
  if (points * Math.max(1, inked / room) <= MOST_TANGLED) return
  throw new WaxError('too-much', 'card', 'A line lies over itself too often.', 'Make it thinner, or its path simpler.')
}

/** Rings as lines to be drawn along: each begins at its highest point, of several the one farthest to the left. */
export const strandsOf = (rings: readonly Ring[]): Strand[] =>
  rings.map(({ points, smooth }) => {
    let first = 0
    for (let i = 1; i < smooth.length; i++) {
      const [dy, dx] = [points[i * 2 + 1]! - points[first * 2 + 1]!, points[i * 2]! - points[first * 2]!]
      if (dy < 0 || (dy === 0 && dx < 0)) first = i
    }
    return {
      points: [...points.slice(first * 2), ...points.slice(0, first * 2)],
      smooth: [...smooth.slice(first), ...smooth.slice(0, first)],
      closed: true,
    }
  })
