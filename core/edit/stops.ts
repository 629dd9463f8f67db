import type { Movable, StoredStop } from '../values/moving'
import { mapped } from './mapped'

// Edits of a gradient's colours.

const mirrored = (value: Movable<number>): Movable<number> => mapped(value, (percent) => 100 - percent)

/** The gradient from its last colour to its first: places, midpoints, their keys and motors are mirrored. */
export function turnAround(stops: readonly StoredStop[]): StoredStop[] {
  const last = stops.length - 1
  return stops.map((_, i) => {
    const { at, colour } = stops[last - i]!
    // A midpoint belongs to the stretch that starts at its stop.
    const middle = stops[last - i - 1]?.middle
    return { at: mirrored(at), colour, ...(middle === undefined ? {} : { middle: mirrored(middle) }) }
  })
}

/** Two neighbouring colours change places; what moves of them moves along. */
export function swapColours(stops: readonly StoredStop[], index: number): StoredStop[] {
  const other = index + 1 < stops.length ? index + 1 : index - 1
  const [a, b] = [stops[index], stops[other]]
  if (!a || !b) return [...stops]
  return stops.map((stop, i) =>
    i === index ? { ...stop, colour: b.colour } : i === other ? { ...stop, colour: a.colour } : stop,
  )
}
