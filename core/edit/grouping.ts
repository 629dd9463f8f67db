import { IDENTITY, multiplied, parted, stretchBy, turnBy } from '../outline/linear'
import { place, within } from '../outline/outline'
import type { Placement } from '../outline/outline'
import type { Frames } from '../units'
import { createPiece } from '../card/create'
import type { Key, Moving } from '../values/moving'
import { isMoving } from '../values/moving'
import { PLACE_PARAMETERS } from '../pieces/place'
import type { Card, GroupPiece, Piece } from '../card/schema'
import { numberValue, valuesAt } from '../values/evaluated'
import { allPieces, holdsPieces, replacePiece } from '../card/tree'
import { momentIn } from '../time/clock'
import type { Moment } from '../values/moment'
import { mapped } from './mapped'
import { withPiece } from './path'
import { controlOf, pairPlace } from './route'

// Pieces put into a group and taken out of it, without anything moving on the card.

/** The list in which all of these pieces stand side by side, or null where they do not. */
function commonList(pieces: readonly Piece[], ids: readonly string[]): readonly Piece[] | null {
  if (ids.every((id) => pieces.some((piece) => piece.id === id))) return pieces
  for (const piece of pieces) {
    const inner = holdsPieces(piece) ? commonList(piece.pieces, ids) : null
    if (inner) return inner
  }
  return null
}

export const canGroup = (card: Card, ids: readonly string[]): boolean =>
  ids.length > 0 && commonList(card.pieces, ids) !== null

/**
 * A group around pieces that stand in one list, where the foremost of them was. It stands at the list's own origin,
 * so that the places of its pieces stay what they were, keys and all; its anchor is `centre`, a point of that list.
 */
export function groupPieces(
  card: Card,
  ids: readonly string[],
  centre = { x: card.frame.width / 2, y: card.frame.height / 2 },
): { card: Card; id: string } {
  const list = commonList(card.pieces, ids)
  if (!list || ids.length === 0) return { card, id: '' }
  const members = list.filter(({ id }) => ids.includes(id))
  const [foremost] = members
  const made = createPiece('group', card) as GroupPiece
  const group: GroupPiece = { ...made, ...centre, anchorX: centre.x, anchorY: centre.y, pieces: members }
  const without = members
    .slice(1)
    .reduce((pieces, { id }) => replacePiece(pieces, id, () => []), card.pieces as readonly Piece[])
  return { card: { ...card, pieces: replacePiece(without, foremost!.id, () => [group]) }, id: group.id }
}

/**
 * Takes a group apart: its pieces stand where they were, in its place. The group's coats go with it. A group that
 * moves, or whose pieces move, passes on what it is at this frame to the pieces' places as far as they stand still.
 */
export function ungroupPiece(card: Card, id: string, frame: Frames): { card: Card; ids: string[] } {
  const at = { ...momentIn(card, id, frame), bare: true }
  const group = allPieces(card.pieces).find((piece) => piece.id === id)
  if (!holdsPieces(group)) return { card, ids: [] }
  const ids = group.pieces.map((inner) => inner.id)
  const outer = placementOf(group, at)
  // In a turned group each coordinate comes of both: they need keys at the same frames.
  const paired = isUpright(outer) ? card : ids.reduce(pairPlace, card)
  const pieces = replacePiece(paired.pieces, id, (piece) =>
    holdsPieces(piece) ? piece.pieces.map((inner) => freed(paired, inner, outer, at)) : [piece],
  )
  return { card: { ...card, pieces }, ids }
}

function placementOf(piece: Piece, at: Moment): Placement {
  const { x, y, rotation, scale, stretchX, stretchY, skew, anchorX, anchorY } = valuesAt(PLACE_PARAMETERS, piece, at)
  const stretch = stretchBy(stretchX / 100, stretchY / 100, skew)
  const turned = { x, y, rotation, scale: scale / 100, ...(stretch ? { stretch } : {}) }
  return within(turned, { x: -anchorX, y: -anchorY, rotation: 0, scale: 1 })
}

/** A piece as it stands outside of its group: every value and every key of its place, turn and scale carried over. */
function freed(card: Card, inner: Piece, outer: Placement, at: Moment): Piece {
  const { scale, rotation } = outer
  const [x, y] = [numberValue(inner.x, at, PLACE_PARAMETERS.x), numberValue(inner.y, at, PLACE_PARAMETERS.y)]
  // Keys of one coordinate are carried over beside the other one: as it is at this frame, or at the same key.
  const carried = {
    x: mapped(inner.x, (v) => tidy(place(outer, { x: v, y }).x)),
    y: mapped(inner.y, (v) => tidy(place(outer, { x, y: v }).y)),
  }
  return {
    ...inner,
    ...(isUpright(outer) ? carried : turnedWay(card, inner, outer, carried)),
    scale: mapped(inner.scale, (v) => tidy(v * scale)),
    rotation: mapped(inner.rotation, (v) => tidy(v + rotation)),
    ...(outer.stretch ? stretched(inner, outer, at) : {}),
  }
}

/** Whether each coordinate goes by itself. */
const isUpright = ({ rotation, stretch }: Placement) => rotation % 360 === 0 && (!stretch || stretch.b === 0)

/** The stretch of a group passed on to what it held: true at this frame, and as much more or less at all others. */
function stretched(
  inner: Piece,
  outer: Placement,
  at: Moment,
): Pick<Piece, 'rotation' | 'stretchX' | 'stretchY' | 'skew'> {
  const { rotation, stretchX, stretchY, skew } = valuesAt(PLACE_PARAMETERS, inner, at)
  const own = stretchBy(stretchX / 100, stretchY / 100, skew) ?? IDENTITY
  const whole = parted(
    multiplied(turnBy(outer.rotation), multiplied(outer.stretch!, multiplied(turnBy(rotation), own))),
  )
  const before = outer.rotation + rotation
  // The turn nearest to what it would be without a stretch.
  const turn = whole.turn + 360 * Math.round((before - whole.turn) / 360) - rotation
  return {
    rotation: mapped(inner.rotation, (v) => tidy(v + turn)),
    stretchX: mapped(inner.stretchX, (v) => tidy((v * whole.x * 100) / stretchX)),
    stretchY: mapped(inner.stretchY, (v) => tidy((v * whole.y * 100) / stretchY)),
    skew: mapped(inner.skew, (v) => tidy(v + whole.skew - skew)),
  }
}

/** The keys of both coordinates turned together, bends and all; motors as `carried` has them. */
function turnedWay(
  card: Card,
  inner: Piece,
  outer: Placement,
  carried: Pick<Piece, 'x' | 'y'>,
): Pick<Piece, 'x' | 'y'> {
  const { x, y } = inner
  if (!isMoving(x) || !isMoving(y)) return carried
  const spin: Placement = { ...outer, x: 0, y: 0 }
  const places = (x as Moving<number>).keys.map((key) => {
    const other = (y as Moving<number>).keys.find(({ frame }) => frame === key.frame)!
    const bends = (['in', 'out'] as const).flatMap((side) => {
      const bent = key.bend?.[side] !== undefined || other.bend?.[side] !== undefined
      const by = bent ? controlOf(card, inner.id, key.frame, side) : null
      return by ? [[side, place(spin, by)] as const] : []
    })
    return { frame: key.frame, at: place(outer, { x: key.value, y: other.value }), bends }
  })
  const turned = (axis: 'x' | 'y') => {
    const moving = carried[axis] as Moving<number>
    const keys = moving.keys.map(({ frame, easing }): Key<number> => {
      const { at, bends } = places.find((one) => one.frame === frame)!
      const bend = Object.fromEntries(bends.map(([side, by]) => [side, tidy(by[axis])]))
      return { frame, value: tidy(at[axis]), ...(easing ? { easing } : {}), ...(bends.length > 0 ? { bend } : {}) }
    })
    return { ...moving, keys }
  }
  return { x: turned('x'), y: turned('y') }
}

const tidy = (value: number) => Math.round(value * 1e4) / 1e4

/**
 * Puts the anchor of a piece at another point of its own space and moves its place along, so that nothing moves on the
 * card at this frame.
 */
export function moveAnchor(card: Card, id: string, anchor: { x: number; y: number }, frame: Frames): Card {
  const at = { ...momentIn(card, id, frame), bare: true }
  return withPiece(card, id, (piece) => {
    const { anchorX, anchorY } = valuesAt(PLACE_PARAMETERS, piece, at)
    const spin = { ...placementOf(piece, at), x: 0, y: 0 }
    const by = place(spin, { x: anchor.x - anchorX, y: anchor.y - anchorY })
    return {
      ...piece,
      anchorX: tidy(anchor.x),
      anchorY: tidy(anchor.y),
      x: mapped(piece.x, (v) => tidy(v + by.x)),
      y: mapped(piece.y, (v) => tidy(v + by.y)),
    }
  })
}
