import { boundsOf } from '../extent'
import { cosDegrees, sinDegrees } from '../kernels/exact'
import type { PathContour } from '../outline/path-points'
import { writePoints } from '../outline/path-points'
import { directionOf, distanceBetween } from '../outline/measure'
import type { Point } from '../units'
import type { Card, Piece } from '../card/schema'
import { changePiece, addPiece } from './stack'

// New pieces in the size in which they were drawn on the stage.

/** A box, ellipse or polygon that fills the rectangle between two points of the card, or a line from one to the other. */
export function drawForm(
  card: Card,
  kind: 'box' | 'ellipse' | 'polygon' | 'line',
  from: Point,
  to: Point,
): { card: Card; id: string } {
  const made = addPiece(card, kind)
  const middle = { x: tenths((from.x + to.x) / 2), y: tenths((from.y + to.y) / 2) }
  const size =
    kind === 'line'
      ? { length: Math.max(1, tenths(distanceBetween(from, to))), rotation: tenths(directionOf(from, to)) }
      : { width: Math.max(1, tenths(Math.abs(to.x - from.x))), height: Math.max(1, tenths(Math.abs(to.y - from.y))) }
  return { ...made, card: changePiece(made.card, made.id, { ...middle, ...size } as Partial<Piece>) }
}

/**
 * A path through points of the card. A closed one is filled; an open one becomes a line of 8 px. It stands in the
 * middle of its points.
 */
export function drawPath(card: Card, contour: PathContour): { card: Card; id: string } {
  const made = addPiece(card, 'path')
  const { points } = contour
  const { left, top, right, bottom } = boundsOf(points)
  const middle = { x: tenths((left + right) / 2), y: tenths((top + bottom) / 2) }
  const about = (p: Point): Point => ({ x: p.x - middle.x, y: p.y - middle.y })
  const own = points.map((point) => ({
    ...about(point),
    before: point.before && about(point.before),
    after: point.after && about(point.after),
  }))
  const path = writePoints([{ ...contour, points: own }])
  const change = { ...middle, path, thickness: contour.closed ? 0 : 8 }
  return { ...made, card: changePiece(made.card, made.id, change as Partial<Piece>) }
}

/** The point in a direction of whole 45° from another one, as far along it as the pointer is. */
export function squared(from: Point, to: Point): Point {
  const turn = Math.round(directionOf(from, to) / 45) * 45
  const way = { x: cosDegrees(turn), y: -sinDegrees(turn) }
  const along = (to.x - from.x) * way.x + (to.y - from.y) * way.y
  return { x: from.x + way.x * along, y: from.y + way.y * along }
}

const tenths = (value: number) => Math.round(value * 10) / 10
