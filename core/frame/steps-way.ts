import { shownFrom } from '../card/links'
import type { Piece } from '../card/schema'
import { allPieces } from '../card/tree'
import type { Outline } from '../outline/outline'
import type { Px } from '../units'
import type { Length } from '../values/moving'
import { isMoving } from '../values/moving'
import { numberValue, valueAt, valuesAt } from '../values/evaluated'
import type { Moment } from '../values/moment'
import { stepOf } from '../steps/table'
import { finenessOf } from './form'
import { heldPieces, holdsOthers } from './held-pieces'
import { namingPiece } from './naming'
import type { FormedPiece } from './outlines'
import type { FoundPiece } from './other-piece'
import { standingOf } from './piece'
import { lengthIn } from './recipe-tools'

// How far outline steps move points while the shutter is open: what a form's corners do not tell.

const steady = new WeakMap<Piece, boolean>()

/** Whether no step of a piece itself has a value that moves. */
function isSteady(piece: Piece): boolean {
  let is = steady.get(piece)
  if (is === undefined) {
    is = piece.outlineSteps.every((step) => !Object.values(step).some(isMoving))
    steady.set(piece, is)
  }
  return is
}

const standingIn = ({ piece, drawing: { list } }: FoundPiece) =>
  standingOf({ ...piece, on: true, opacity: 100, span: null }, list.parent, list.at)

/**
 * The longest way in render pixels that steps of a piece, or of what it holds or shows, move a point through some moments:
 * `through` is the same piece at each of them.
 */
export function stepsWay(through: readonly FoundPiece[]): Px {
  const middle = through[through.length >> 1]!
  const { piece, drawing, place: path } = middle
  if ([...allPieces([piece]), ...shownFrom(drawing.card, piece)].every(isSteady)) return 0
  const standing = standingIn(middle)
  if (!standing) return 0
  if (holdsOthers(piece)) {
    const held = through.map((one) => {
      const there = standingIn(one)
      return there ? heldPieces(one.drawing, there, path) : []
    })
    const ways = held[through.length >> 1]!.map((_, i) => stepsWay(held.flatMap((pieces) => pieces[i] ?? [])))
    return Math.max(0, ...ways)
  }
  const moments = through.map((one) => one.drawing.list.at)
  const { rest } = namingPiece(piece, path, () =>
    drawing.outlines.of(piece as FormedPiece, standing.at, finenessOf(standing.placement), path),
  )
  const { bounds, reference } = rest.outline
  if (!bounds) return 0
  const [left, top, right, bottom] = [bounds.left, bounds.top, bounds.right, bounds.bottom].map((v) => v * rest.enlarge)
  const px = lengthIn(1, reference * rest.enlarge)
  const work = {
    ...{ px, thickness: thicknessOf(piece, standing.at, px) },
    whole: { left: left!, top: top!, right: right!, bottom: bottom! },
    ...lengthsOf(rest.outline, rest.enlarge),
  }
  const ways = piece.outlineSteps.map((step) => {
    const { parameters, way } = stepOf(step.kind)
    if (!Object.values(step).some(isMoving)) return 0
    const values = moments.map((at) => valuesAt(parameters, step, at))
    return values.slice(1).reduce((sum, value, i) => sum + way(values[i]!, value, work), 0)
  })
  return ways.reduce((sum, way) => sum + way, 0) * finenessOf(standing.placement)
}

/** The thickness of the thickest line that a piece begins as, or that a step makes of it. */
function thicknessOf(piece: Piece, at: Moment, px: (length: Length) => Px): Px {
  const { parameters } = stepOf('line')
  const lines = piece.outlineSteps
    .filter(({ kind }) => kind === 'line')
    .map((step) => px(valueAt(parameters.thickness!, step.thickness, at) as Length))
  const own = 'thickness' in piece ? numberValue(piece.thickness, at, { min: 0, max: Infinity }) : 0
  return Math.max(own, ...lines)
}

/** Lengths of an outline's rings: the longest, and all together. */
function lengthsOf({ segments, comesFrom }: Outline, enlarge: number): { longest: Px; together: Px } {
  let [longest, together, ring] = [0, 0, 0]
  for (let i = 0; i < comesFrom.length; i++) {
    if (comesFrom[i] !== i - 1) ring = 0
    const [dx, dy] = [segments[i * 4 + 2]! - segments[i * 4]!, segments[i * 4 + 3]! - segments[i * 4 + 1]!]
    const length = Math.sqrt(dx * dx + dy * dy) * enlarge
    ring += length
    together += length
    longest = Math.max(longest, ring)
  }
  return { longest, together }
}
