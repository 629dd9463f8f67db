import { hashed } from '../values/ring-noise'
import type { Frames } from '../units'
import { listParameters, parameterAt } from '../card/addresses'
import type { Moving, StoredValue } from '../values/moving'
import { isMoving } from '../values/moving'
import type { Card, Piece } from '../card/schema'
import { allPieces } from '../card/tree'
import { shiftedKeys } from './keys'
import { mapped } from './mapped'
import { sharedAddresses } from './several'
import { setStored } from './values'

export type StaggerOrder = 'stack' | 'place' | 'seed'

export interface Stagger {
  /** The pieces, any order. The one that comes first gives the motion; in the stack that is the foremost. */
  ids: readonly string[]
  /** Frames from piece to piece. */
  by: Frames
  order: StaggerOrder
  /** For the order by seed. */
  seed: number
  /** Where the pieces stand, for the order of place: left to right, then top to bottom. */
  places?: ReadonlyMap<string, { x: number; y: number }>
}

/** The pieces in the order in which they move. */
export function staggerOrder(card: Card, { ids, order, seed, places }: Stagger): Piece[] {
  const pieces = allPieces(card.pieces).filter(({ id }) => ids.includes(id))
  if (order === 'stack') return pieces
  if (order === 'seed') {
    return pieces
      .map((piece, i) => ({ piece, at: hashed(i, seed) }))
      .sort((a, b) => a.at - b.at)
      .map(({ piece }) => piece)
  }
  const at = ({ id }: Piece) => places?.get(id) ?? { x: 0, y: 0 }
  return [...pieces].sort((a, b) => at(a).x - at(b).x || at(a).y - at(b).y)
}

/** Places stay: a piece moves from its own place as the first does from its. */
const RELATIVE = ['x', 'y', 'anchorX', 'anchorY']

/**
 * The motion of the first piece on all of them, each so many frames after the one before it. A piece's own place, once
 * it has come to rest, stays; every other value moves as the first one's does.
 */
export function stagger(card: Card, how: Stagger): Card {
  const [first, ...others] = staggerOrder(card, how)
  if (!first) return card
  const lanes = listParameters(card).filter(({ piece, value }) => piece === first.id && isMoving(value))
  return lanes.reduce(
    (before, lane) =>
      others.reduce((next, other, i) => {
        const [, target] = sharedAddresses(next, lane.address, [other.id])
        if (!target) return next
        const name = target.split('/').slice(1).join('/')
        const moving = lane.value as Moving<never>
        const keys = shiftedKeys(moving, how.by * (i + 1), card.length)
        const by = RELATIVE.includes(name) ? apart(lane.value, storedOf(next, target)) : 0
        const later = { ...moving, keys }
        return setStored(next, target, by === 0 ? later : mapped(later, (v) => v + by))
      }, before),
    card,
  )
}

const storedOf = (card: Card, address: string): StoredValue => parameterAt(card, address)?.value

/**
 * How far a piece stands from the first one. A motion that was staggered before is known by its values, which lie the
 * same distance from the first one's all along, wherever the seam cut it; otherwise it is where both come to rest.
 */
function apart(first: StoredValue, other: StoredValue): number {
  if (isMoving(first) && isMoving(other) && first.keys.length === other.keys.length) {
    const [a, b] = [first.keys, other.keys].map((keys) => keys.map(({ value }) => value as number)) as [
      number[],
      number[],
    ]
    for (let turn = 0; turn < a.length; turn++) {
      const by = b[turn]! - a[0]!
      if (a.every((value, i) => Math.abs(b[(i + turn) % a.length]! - value - by) < 1e-9)) return by
    }
  }
  return restOf(other) - restOf(first)
}

/** Where a number comes to rest: its last key, or itself. */
const restOf = (value: StoredValue): number =>
  isMoving(value) ? (value.keys.at(-1)!.value as number) : typeof value === 'number' ? value : 0
