import { writeColour } from '../card/colour'
import type { StoredValue } from '../card/moving'
import { isMoving } from '../card/moving'
import type { Parameter } from '../card/parameters'
import type { ParameterPlace } from '../card/addresses'
import { listParameters } from '../card/addresses'
import type { Card, TypePiece } from '../card/schema'
import { allPieces } from '../card/tree'
import { settle, settleColour } from '../card/settled'
import type { Frames } from '../units'
import { momentIn } from './clock'
import type { Moment, Ring } from './moment'
import { onRing, STANDSTILL } from './moment'
import { perSecond } from './rate'

/** One parameter's value at a frame, in the words of the file. */
export interface EvaluatedParameter {
  address: string
  label: string
  moving: boolean
  /** Colours as the nearest hex colour, lengths in % as `{ unit, value }`. */
  value: unknown
}

/** Every parameter of the card at one frame; frames beyond the loop come round again. */
export function evaluateCard(card: Card, frame: Frames): EvaluatedParameter[] {
  const moments = new Map<string | null, Moment>()
  const momentFor = (piece: string | null) => {
    const at = moments.get(piece) ?? momentIn(card, piece, frame)
    moments.set(piece, at)
    return at
  }
  return listParameters(card).map((place) => stillOf(place) ?? evaluated(place, momentFor(place.piece)))
}

const evaluated = ({ address, label, parameter, value }: ParameterPlace, at: Moment): EvaluatedParameter => ({
  ...{ address, label, moving: isMoving(value), value: currentValue(parameter, value, at) },
})

const stills = new WeakMap<ParameterPlace, EvaluatedParameter | null>()

/** What does not move is the same at every frame; null for what moves. */
function stillOf(place: ParameterPlace): EvaluatedParameter | null {
  let still = stills.get(place)
  if (still === undefined) {
    still = isMoving(place.value) || place.parameter.type === 'paint' ? null : evaluated(place, STANDSTILL)
    stills.set(place, still)
  }
  return still
}

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

/** A parameter's value at one moment as the document would write it without keys. */
export function currentValue(parameter: Parameter, value: StoredValue, at: Moment): unknown {
  switch (parameter.type) {
    case 'colour':
      return writeColour(settleColour(value, at))
    case 'paint':
      return value
    default:
      return settle(parameter, value, at)
  }
}
