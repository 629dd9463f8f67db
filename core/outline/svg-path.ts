import { SVGPathData, SVGPathDataTransformer } from 'svg-pathdata'
import { WaxError } from '../errors'
import type { PathCommand } from './contour'

const MOST_COMMANDS = 20_000
/** Px from a piece's place: ten times as far as a piece itself can stand. */
const FARTHEST = 1_000_000

/** H and V become L. Straight curves stay curves: a key of the same commands may bend them. One for each path: it has a state. */
const longLines = () => SVGPathDataTransformer.NORMALIZE_HVZ(false, true, true, false)

/** Reads SVG path data (SVG 2 §9.3); arcs become cubic curves. Throws a WaxError where it is none. */
export function readPathData(text: string, place: string): PathCommand[] {
  expectShortPath(text, place)
  let commands
  try {
    commands = new SVGPathData(text).toAbs().transform(longLines()).normalizeST().aToC().commands
  } catch {
    throw new WaxError(
      'not-a-path',
      place,
      'This is no SVG path data.',
      'Write commands such as M 0 0 L 10 0 C 10 5 5 10 0 10 Z.',
    )
  }
  if (commands.length > MOST_COMMANDS) throw tooLong(place, commands.length)
  const far = commands.flatMap((c) => Object.values(c) as unknown[]).find((v) => typeof v === 'number' && !isNear(v))
  if (far !== undefined) {
    throw new WaxError(
      'out-of-range',
      place,
      `The path goes to ${String(far)} px.`,
      `Coordinates go up to ${FARTHEST} px: scale it down.`,
    )
  }
  return commands.map((c): PathCommand => {
    switch (c.type) {
      case SVGPathData.CLOSE_PATH:
        return { type: 'Z' }
      case SVGPathData.MOVE_TO:
        return { type: 'M', x: c.x, y: c.y }
      case SVGPathData.LINE_TO:
        return { type: 'L', x: c.x, y: c.y }
      case SVGPathData.QUAD_TO:
        return { type: 'Q', x1: c.x1, y1: c.y1, x: c.x, y: c.y }
      case SVGPathData.CURVE_TO:
        return { type: 'C', x1: c.x1, y1: c.y1, x2: c.x2, y2: c.y2, x: c.x, y: c.y }
      default:
        throw new WaxError(
          'not-a-path',
          place,
          'A command of this path is not known.',
          'Use M, L, H, V, C, S, Q, T, A, Z.',
        )
    }
  })
}

/** Numbers of the command that has most of them, an arc (SVG 2 §9.3.8). */
const MOST_NUMBERS = 7

/** Refuses a path that is certainly too long, by counting its letters and numbers: to read it first would take its time. */
export function expectShortPath(text: string, place: string): void {
  const most = MOST_COMMANDS * (MOST_NUMBERS + 1)
  if (text.length <= most) return
  const letters = text.match(/[a-df-z]/gi)?.length ?? 0
  const numbers = text.match(/\d*\.?\d+(e[+-]?\d+)?/gi)?.length ?? 0
  const least = Math.max(letters, Math.ceil(numbers / MOST_NUMBERS))
  if (least > MOST_COMMANDS) throw tooLong(place, least)
}

const tooLong = (place: string, count: number) =>
  new WaxError(
    'path-too-long',
    place,
    `The path has ${count} commands or more.`,
    `The most is ${MOST_COMMANDS}: simplify it.`,
  )

const isNear = (value: number) => Math.abs(value) <= FARTHEST

export function isPathData(text: string): boolean {
  try {
    readPathData(text, 'path')
    return true
  } catch {
    return false
  }
}
