import { segmentAt } from '../values/keyframes'
import type { Frames, Point } from '../units'
import type { Bend, Key, Moving } from '../values/moving'
import { isMoving } from '../values/moving'
import { PLACE_PARAMETERS } from '../pieces/place'
import type { Card, Piece } from '../card/schema'
import { numberValue } from '../values/evaluated'
import { allPieces } from '../card/tree'
import { setKey, setStored, storedAt, writeValue } from './values'

// The way of a piece's place over the card: keys on x and y at the same frames, bent together.

const AXES = ['x', 'y'] as const

/** Frames at which the place has a key on one coordinate or on both. */
export function routeFrames({ x, y }: Pick<Piece, 'x' | 'y'>): Frames[] {
  const frames = [x, y].flatMap((value) => (isMoving(value) ? value.keys.map(({ frame }) => frame) : []))
  return [...new Set(frames)].sort((a, b) => a - b)
}

/** The place by its keys alone, in the space that it counts from. */
export function placeAt({ x, y }: Pick<Piece, 'x' | 'y'>, frame: Frames, length: Frames): Point {
  const at = { ring: { length }, frame, bare: true }
  return { x: numberValue(x, at, PLACE_PARAMETERS.x), y: numberValue(y, at, PLACE_PARAMETERS.y) }
}

/**
 * Gives both coordinates a key wherever one of them has it, eased as on the other one, so that both run along one curve.
 * Nothing moves at the keys; what moves on while the other one is held keeps its own easing.
 */
export function pairPlace(card: Card, id: string): Card {
  const piece = pieceOf(card, id)
  if (!piece) return card
  const frames = routeFrames(piece)
  return AXES.reduce((next, axis) => {
    const address = `${id}/${axis}`
    return frames.reduce((done, frame) => {
      const stored = storedAt(done, address) as number | Moving<number>
      if (isMoving(stored) && stored.keys.some((key) => key.frame === frame)) return done
      const other = piece[axis === 'x' ? 'y' : 'x']
      const easing = isMoving(other) ? other.keys.find((key) => key.frame === frame)?.easing : undefined
      const value = placeAt(pieceOf(done, id)!, frame, card.length)[axis]
      const keyed = isMoving(stored)
        ? setKey(done, address, frame, value)
        : setStored(done, address, {
            keys: [{ frame, value }],
            ...(isMoving(other) ? { loop: other.loop ?? true } : {}),
          })
      return easing && !isHeld(easing) ? withKey(keyed, address, frame, (key) => ({ ...key, easing })) : keyed
    }, next)
  }, card)
}

/**
 * Bends the way at a key: `by` leads from the key to the control point of the way before it (`in`) or after it (`out`).
 * `smooth` turns the other one into the same line.
 */
export function bendRoute(card: Card, id: string, frame: Frames, side: keyof Bend, by: Point, smooth: boolean): Card {
  const paired = pairPlace(card, id)
  const other = side === 'in' ? 'out' : 'in'
  const opposite = smooth ? inLine(controlOf(paired, id, frame, other), by) : null
  return AXES.reduce(
    (next, axis) =>
      withKey(next, `${id}/${axis}`, frame, (key) => ({
        ...key,
        bend: { ...key.bend, [side]: tidy(by[axis]), ...(opposite ? { [other]: tidy(opposite[axis]) } : {}) },
      })),
    paired,
  )
}

/** As long as it was, opposite to the other one. */
function inLine(own: Point | null, by: Point): Point | null {
  const length = Math.sqrt(by.x * by.x + by.y * by.y)
  if (!own || length < 1e-9) return null
  const reach = Math.sqrt(own.x * own.x + own.y * own.y)
  return { x: (-by.x / length) * reach, y: (-by.y / length) * reach }
}

/** Makes the way straight on both sides of a key. */
export function straightenRoute(card: Card, id: string, frame: Frames): Card {
  const piece = pieceOf(card, id)
  if (!piece) return card
  const frames = routeFrames(piece)
  const at = frames.indexOf(frame)
  const [before, after] = [frames[at - 1] ?? frames.at(-1)!, frames[at + 1] ?? frames[0]!]
  const without = (next: Card, where: Frames, ...sides: (keyof Bend)[]) =>
    AXES.reduce(
      (done, axis) =>
        withKey(done, `${id}/${axis}`, where, ({ bend = {}, ...key }) => {
          const left = Object.fromEntries(Object.entries(bend).filter(([side]) => !sides.includes(side as keyof Bend)))
          return Object.keys(left).length > 0 ? { ...key, bend: left } : key
        }),
      next,
    )
  return without(without(without(card, frame, 'in', 'out'), before, 'out'), after, 'in')
}

/** Moves a key of the way. */
export function moveRouteKey(card: Card, id: string, frame: Frames, to: Point): Card {
  const piece = pieceOf(card, id)
  if (!piece) return card
  const now = placeAt(piece, frame, card.length)
  return AXES.reduce(
    (next, axis) =>
      Math.abs(to[axis] - now[axis]) < 1e-9 ? next : writeValue(next, `${id}/${axis}`, frame, tidy(to[axis])),
    card,
  )
}

/**
 * From a key of the way to the control point on one side, as it is or would be on a straight way; null where there is no
 * way on that side, or where it jumps.
 */
export function controlOf(card: Card, id: string, frame: Frames, side: keyof Bend): Point | null {
  const piece = pieceOf(card, id)
  const frames = piece ? routeFrames(piece) : []
  const at = frames.indexOf(frame)
  if (!piece || at < 0 || frames.length < 2) return null
  const open = AXES.some((axis) => isMoving(piece[axis]) && (piece[axis] as Moving<number>).loop === false)
  const next = frames[at + (side === 'out' ? 1 : -1)] ?? (open ? undefined : side === 'out' ? frames[0] : frames.at(-1))
  if (next === undefined) return null
  if (AXES.some((axis) => holds(piece[axis], side === 'out' ? frame : next, card.length))) return null
  const [here, there] = [placeAt(piece, frame, card.length), placeAt(piece, next, card.length)]
  const along = (axis: 'x' | 'y') => {
    const stored = piece[axis]
    const bent = isMoving(stored)
      ? (stored as Moving<number>).keys.find((key) => key.frame === frame)?.bend?.[side]
      : undefined
    return bent ?? (there[axis] - here[axis]) / 3
  }
  return { x: along('x'), y: along('y') }
}

/** Whether a value is held from a frame on. */
function holds(value: Piece['x'], frame: Frames, length: Frames): boolean {
  if (!isMoving(value)) return false
  const { from } = segmentAt(value as Moving<number>, frame, length)
  return isHeld(from.easing)
}

const isHeld = (easing: string | undefined) => easing === 'hold' || easing === 'step-end'

const pieceOf = (card: Card, id: string): Piece | undefined => allPieces(card.pieces).find((piece) => piece.id === id)

function withKey(card: Card, address: string, frame: Frames, change: (key: Key<number>) => Key<number>): Card {
  const moving = storedAt(card, address) as number | Moving<number>
  if (!isMoving(moving)) return card
  const keys = (moving as Moving<number>).keys.map((key) => (key.frame === frame ? change(key) : key))
  return setStored(card, address, { ...moving, keys })
}

const tidy = (value: number) => Math.round(value * 100) / 100
