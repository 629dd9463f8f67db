import { IDENTITY, inverted, multiplied, stretchBy } from '../outline/linear'
import type { Placement } from '../outline/outline'
import { linearOf } from '../outline/outline'
import { PLACE_PARAMETERS } from '../pieces/place'
import { momentIn } from '../time/clock'
import type { Frames, Point } from '../units'
import { valuesAt } from '../values/evaluated'
import type { Card } from '../card/schema'
import { allPieces } from '../card/tree'
import type { StandingPiece } from './arrange'
import { shiftPiece } from './arrange'
import { writeValue } from './values'

/** A piece stretched by two factors from what it is at a frame; a point of its own space stays where it is on the card. */
export function stretchPiece(
  card: Card,
  piece: StandingPiece & { placement: Placement },
  by: { x: number; y: number },
  fixed: Point,
  frame: Frames,
): Card {
  const own = allPieces(card.pieces).find(({ id }) => id === piece.id)
  if (!own) return card
  const at = { ...momentIn(card, piece.id, frame), bare: true }
  const { stretchX, stretchY, skew, anchorX, anchorY } = valuesAt(PLACE_PARAMETERS, own, at)
  const [x, y] = [tenths(stretchX * by.x), tenths(stretchY * by.y)]
  if (x === 0 || y === 0) return card
  const before = stretchBy(stretchX / 100, stretchY / 100, skew) ?? IDENTITY
  const after = stretchBy(x / 100, y / 100, skew) ?? IDENTITY
  const was = linearOf(piece.placement)
  const is = multiplied(was, multiplied(inverted(before), after))
  const [dx, dy] = [fixed.x - anchorX, fixed.y - anchorY]
  const shift = {
    x: (was.a - is.a) * dx + (was.b - is.b) * dy,
    y: (was.c - is.c) * dx + (was.d - is.d) * dy,
  }
  let next = card
  if (x !== stretchX) next = writeValue(next, `${piece.id}/stretchX`, frame, x)
  if (y !== stretchY) next = writeValue(next, `${piece.id}/stretchY`, frame, y)
  return shiftPiece(next, piece, shift, frame)
}

const tenths = (value: number) => Math.round(value * 10) / 10
