import { listParameters } from '../card/addresses'
import type { StoredValue } from '../values/moving'
import type { Card, TypePiece } from '../card/schema'
import { allPieces } from '../card/tree'
import type { Frames } from '../units'
import type { Moment, Ring } from '../values/moment'
import { onRing } from '../values/moment'
import { perSecond } from '../values/rate'

// What a card is for all its moments.

/** The moment on the ring for any frame number. */
export function momentOf(card: Card, frame: Frames): Moment {
  return { ring: ringOf(card), frame: onRing(frame, card.length) }
}

const rings = new WeakMap<Card, Ring>()

function ringOf(card: Card): Ring {
  let ring = rings.get(card)
  if (!ring) {
    ring = {
      length: card.length,
      rate: perSecond(card.rate),
      seed: card.seed,
      read: (address) => storedValues(card).get(address),
      typePiece: (id) => typePieces(card).get(id),
    }
    rings.set(card, ring)
  }
  return ring
}

const types = new WeakMap<Card, ReadonlyMap<string, TypePiece>>()

/** The type pieces of a card by id. */
export function typePieces(card: Card): ReadonlyMap<string, TypePiece> {
  let pieces = types.get(card)
  if (!pieces) {
    pieces = new Map(
      allPieces(card.pieces).flatMap((piece) => (piece.kind === 'type' ? [[piece.id, piece] as const] : [])),
    )
    types.set(card, pieces)
  }
  return pieces
}

const read = new WeakMap<Card, ReadonlyMap<string, StoredValue>>()

/** What the card holds, by address; made when a value follows another for the first time. */
function storedValues(card: Card): ReadonlyMap<string, StoredValue> {
  let values = read.get(card)
  if (!values) {
    values = new Map(listParameters(card).map(({ address, value }) => [address, value]))
    read.set(card, values)
  }
  return values
}
