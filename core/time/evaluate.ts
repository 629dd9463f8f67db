import { readColour, writeColour } from '../card/colour'
import type { StoredValue } from '../card/moving'
import { isMoving } from '../card/moving'
import type { Parameter } from '../card/parameters'
import type { ParameterPlace } from '../card/addresses'
import { listParameters } from '../card/addresses'
import type { Card } from '../card/schema'
import type { Moment } from '../card/settled'
import { settleColour, settleLength, settleNumber } from '../card/settled'
import type { Frames } from '../units'

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
  const at = momentOf(card, frame)
  return listParameters(card).map((place) => ({
    address: place.address,
    label: place.label,
    moving: isMoving(place.value),
    value: valueOf(place, at),
  }))
}

/** The moment on the ring for any frame number. */
export function momentOf(card: Pick<Card, 'length'>, frame: Frames): Moment {
  const turn = frame % card.length
  return { frame: turn < 0 ? turn + card.length : turn, length: card.length }
}

function valueOf({ parameter, value }: ParameterPlace, at: Moment): unknown {
  return currentValue(parameter, value, at)
}

/** A parameter's value at one moment as the document would write it without keys. */
export function currentValue(parameter: Parameter, value: StoredValue, at: Moment): unknown {
  switch (parameter.type) {
    case 'number':
      return settleNumber(value, at)
    case 'length':
      return settleLength(value, at)
    case 'colour':
      return isMoving(value) ? writeColour(settleColour(value, at)) : writeColour(readColour(value as string))
    default:
      return value
  }
}
