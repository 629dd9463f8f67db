import { writeColour } from '../values/colour'
import type { StoredValue } from '../values/moving'
import { isMoving } from '../values/moving'
import type { Parameter } from '../values/parameters'
import type { ParameterPlace } from '../card/addresses'
import { listParameters } from '../card/addresses'
import type { Card } from '../card/schema'
import { valueAt, colourValue } from '../values/evaluated'
import type { Frames } from '../units'
import { momentIn } from './clock'
import type { Moment } from '../values/moment'
import { STANDSTILL } from '../values/moment'

/** One parameter's value at a frame, in the words of the file. */
export interface EvaluatedParameter {
  address: string
  label: string
  moving: boolean
  /** Colours as the nearest hex colour, lengths in % as `{ unit, value }`. */
  value: unknown
}

/** Every parameter of the card at one frame; frames beyond the loop come round again. */
export function evaluateCard(
  card: Card,
  frame: Frames,
  places: readonly ParameterPlace[] = listParameters(card),
): EvaluatedParameter[] {
  const moments = new Map<string | null, Moment>()
  const momentFor = (piece: string | null) => {
    const at = moments.get(piece) ?? momentIn(card, piece, frame)
    moments.set(piece, at)
    return at
  }
  return places.map((place) => stillOf(place) ?? evaluated(place, momentFor(place.piece)))
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

/** A parameter's value at one moment as the document would write it without keys. */
export function currentValue(parameter: Parameter, value: StoredValue, at: Moment): unknown {
  switch (parameter.type) {
    case 'colour':
      return writeColour(colourValue(value, at))
    case 'paint':
      return value
    default:
      return valueAt(parameter, value, at)
  }
}
