import type { Card, Piece } from '../card/schema'
import { allPieces, holdsPieces, pathTo } from '../card/tree'
import type { Point } from '../units'
import type { GridBox } from './grid-box'
import type { Moment } from '../values/moment'
import { isSeen } from './piece'
import type { PieceOutlook } from './outlook'

/** Alpha of 255 from which a pixel counts as seen: the thin end of a soft shadow does not. */
const SEEN = 24
/** Pixels around the point that count as well: hairlines can be hit. */
const AROUND = 2
const CELL = 64

type Look = (card: Card, region: GridBox) => { width: number; pixels: Uint8Array }

/** See Engine.pick. Where no pixel shows, the foremost piece whose bounds hold the point: a letter has holes. */
export function pickPiece(
  card: Card,
  outlook: readonly PieceOutlook[],
  point: Point,
  group: string | null,
  at: Moment,
  look: Look,
): string | null {
  const owner = group ? allPieces(card.pieces).find(({ id }) => id === group) : null
  const list = holdsPieces(owner) ? owner.pieces : card.pieces
  const open = list.filter((piece) => piece.kind !== 'wash' && !piece.locked && isSeen(piece, at))
  const region = cellAround(card, point)
  const seen = region && open.find((piece) => shows(look(alone(card, piece), region), region, point))
  if (seen) return seen.id
  const held = open.find(({ id }) => {
    const entry = outlook.find((other) => other.id === id)
    return entry && holds(entry.corners, point)
  })
  return held?.id ?? null
}

/** The cells of the render grid around a point; null beyond the frame. */
function cellAround(card: Card, { x, y }: Point): GridBox | null {
  const { width, height } = card.frame
  if (!(x >= 0 && y >= 0 && x < width && y < height)) return null
  const start = (v: number) => Math.max(0, Math.floor((v - AROUND) / CELL)) * CELL
  const [left, top] = [start(x), start(y)]
  const size = (v: number, from: number, side: number) => Math.min(side, Math.floor(v) + AROUND + 1) - from
  return { x: left, y: top, w: size(x, left, width), h: size(y, top, height) }
}

/**
 * The card with one piece alone, inside the bare groups that it stands in. The others are switched off, not taken out:
 * values and words may follow theirs.
 */
export function alone(card: Card, piece: Piece): Card {
  const way = pathTo(card.pieces, piece.id) ?? []
  const kept = (pieces: readonly Piece[], [first, ...rest]: readonly number[]): Piece[] => {
    return pieces.map((here, i) => {
      if (i !== first) return { ...here, on: false }
      if (rest.length === 0 || !holdsPieces(here)) return here
      return { ...here, coats: { face: [], behind: [] }, pieces: kept(here.pieces, rest) }
    })
  }
  return { ...card, background: null, pieces: kept(card.pieces, way) }
}

function shows({ width, pixels }: ReturnType<Look>, region: GridBox, point: Point): boolean {
  const [x, y] = [Math.floor(point.x) - region.x, Math.floor(point.y) - region.y]
  for (let j = Math.max(0, y - AROUND); j <= Math.min(region.h - 1, y + AROUND); j++) {
    for (let i = Math.max(0, x - AROUND); i <= Math.min(region.w - 1, x + AROUND); i++) {
      if (pixels[(j * width + i) * 4 + 3]! >= SEEN) return true
    }
  }
  return false
}

/** Whether a polygon holds a point (even-odd). */
export function holds(corners: readonly Point[], { x, y }: Point): boolean {
  let inside = false
  for (let i = 0, j = corners.length - 1; i < corners.length; j = i++) {
    const a = corners[i]!
    const b = corners[j]!
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) inside = !inside
  }
  return inside
}
