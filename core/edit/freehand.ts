import { extentOf } from '../extent'
import fitCurve from 'fit-curve'
import simplify from 'simplify-js'
import type { PathPoint } from '../outline/path-points'
import { writePoints } from '../outline/path-points'
import { distanceBetween } from '../outline/measure'
import type { Point, Px } from '../units'
import type { Card, OutlineStep, PathPiece } from '../card/schema'
import { drawPath } from './draw'
import { changePiece } from './stack'
import { addStep } from './steps'

/** A point of a freehand line: where it was, when, and how hard the pen was pressed, 0–1; null without a pen. */
export interface FreehandPoint extends Point {
  /** Milliseconds. */
  time: number
  pressure: number | null
}

/** Values of pressure that are kept along a line. */
const SAMPLES = 48
/** Px a millisecond at which a line without a pen is as thin as it gets. */
const FAST = 3
/** Neighbours to each side over which pressure is smoothed. */
const AROUND = 3
/** Ends that lie closer together than this share of the length are one: the line is a ring. */
const HOME = 0.02
/** A line whose pressure differs by less than this was drawn evenly. */
const EVEN = 0.08

/** A line drawn by hand, fitted. */
interface FittedLine {
  closed: boolean
  nodes: PathPoint[]
  /** The points that it was fitted to, and how far along it each of them lies. */
  points: FreehandPoint[]
  lengths: Px[]
}

/**
 * A line drawn by hand, fitted to few points (P. J. Schneider, An Algorithm for Automatically Fitting Digitized Curves, Graphics Gems,
 * 1990) that keep within `error` px of it. Null for a line of no length.
 */
function fitted(drawn: readonly FreehandPoint[], error: Px, ring: boolean): FittedLine | null {
  const points = drawn.filter((point, i) => i === 0 || distanceBetween(point, drawn[i - 1]!) > 0)
  if (points.length < 2) return null
  const lengths = lengthsOf(points)
  const whole = lengths.at(-1)!
  if (whole <= 0) return null
  const meets = distanceBetween(points[0]!, points.at(-1)!) < whole * HOME
  const plain = simplify(
    points.map(({ x, y }) => ({ x, y })),
    error / 4,
    true,
  )
  const line = meets ? [...plain.slice(0, -1), plain[0]!] : ring ? [...plain, plain[0]!] : plain
  const closed = meets || ring
  const curves = fitCurve(
    line.map(({ x, y }) => [x, y]),
    error * error,
  ) as [number, number][][]
  return curves.length === 0 ? null : { closed, nodes: nodesOf(curves, closed), points, lengths }
}

/** SVG path data of an area drawn by hand around its edge, which is closed; to hundredths of a px. Null where it has no size. */
export function freehandArea(drawn: readonly FreehandPoint[], error: Px): string | null {
  const found = fitted(drawn, error, true)
  return found && writePoints([{ closed: true, points: found.nodes }])
}

/**
 * A path through a line drawn by hand. Its pressure is kept, that of a pen or else from the speed of the hand, and a taper uses it. Null
 * for a line of no length.
 */
export function drawFreehand(
  card: Card,
  drawn: readonly FreehandPoint[],
  error: Px,
): { card: Card; id: string } | null {
  const found = fitted(drawn, error, false)
  if (!found) return null
  const made = drawPath(card, { closed: found.closed, points: found.nodes })
  const pressure = pressureAlong(found.points, found.lengths)
  const change: Partial<PathPiece> = { pressure, thickness: 16, cap: 'round', join: 'round' }
  const drawnCard = changePiece(made.card, made.id, change)
  const [least, most] = extentOf(pressure)
  if (most - least < EVEN) return { id: made.id, card: drawnCard }
  const values = { by: 'pressure', start: 35, end: 100 } as unknown as Partial<OutlineStep>
  return { id: made.id, card: addStep(drawnCard, made.id, 'taper', { values }).card }
}

function nodesOf(curves: readonly [number, number][][], closed: boolean): PathPoint[] {
  const at = ([x, y]: [number, number]): Point => ({ x, y })
  const nodes = curves.map(([start, out], i): PathPoint => {
    const before = curves[i - 1]?.[2] ?? (closed ? curves.at(-1)![2] : undefined)
    return { ...at(start!), before: before ? at(before) : null, after: at(out!) }
  })
  if (closed) return nodes
  const last = curves.at(-1)!
  return [...nodes, { ...at(last[3]!), before: at(last[2]!), after: null }]
}

function lengthsOf(points: readonly Point[]): Px[] {
  const lengths = [0]
  for (let i = 1; i < points.length; i++) lengths.push(lengths[i - 1]! + distanceBetween(points[i - 1]!, points[i]!))
  return lengths
}

/** The pressure at each point, that of a pen or else from the speed of the hand, smoothed over its neighbours; a single point is pressed whole. */
export function pressures(points: readonly FreehandPoint[]): number[] {
  if (points.length < 2) return points.map(({ pressure }) => pressure ?? 1)
  const lengths = lengthsOf(points)
  return smoothed(points.map((point, i) => point.pressure ?? fromSpeed(points, lengths, i)))
}

/** The mean of each with its neighbours. */
function smoothed(values: readonly number[]): number[] {
  return values.map((_, i) => {
    const near = values.slice(Math.max(0, i - AROUND), i + AROUND + 1)
    return near.reduce((sum, v) => sum + v, 0) / near.length
  })
}

/** Pressure at even distances, smoothed over its neighbours; to hundredths. */
function pressureAlong(points: readonly FreehandPoint[], lengths: readonly Px[]): number[] {
  const own = points.map((point, i) => point.pressure ?? fromSpeed(points, lengths, i))
  const whole = lengths.at(-1)!
  let k = 0
  const even = Array.from({ length: SAMPLES }, (_, i) => {
    const at = (whole * i) / (SAMPLES - 1)
    while (k < lengths.length - 2 && lengths[k + 1]! < at) k++
    const span = lengths[k + 1]! - lengths[k]!
    const t = span > 0 ? Math.min(1, Math.max(0, (at - lengths[k]!) / span)) : 0
    return own[k]! + (own[k + 1]! - own[k]!) * t
  })
  return smoothed(even).map((v) => Math.round(v * 100) / 100)
}

/** The faster the hand, the lighter it presses. */
function fromSpeed(points: readonly FreehandPoint[], lengths: readonly Px[], i: number): number {
  const [a, b] = [Math.max(0, i - 2), Math.min(points.length - 1, i + 2)]
  const time = points[b]!.time - points[a]!.time
  return time > 0 ? Math.min(1, Math.max(0, 1 - (lengths[b]! - lengths[a]!) / time / FAST)) : 0.5
}
