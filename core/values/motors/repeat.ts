import type { Frames } from '../../units'
import type { MotorPlace } from './definition'
import { defineMotor, isWhole, tidy } from './definition'

/** The keyed stretch, from its first key to its last, over and over. */
export const repeat = defineMotor({
  kind: 'repeat',
  label: 'Repeat',
  help: 'Repeats what lies between the first and the last key',
  parameters: {
    way: {
      ...{ type: 'choice', label: 'Way', help: 'From the start again, to and fro, or on from where it ended' },
      default: 'again',
      options: [
        { value: 'again', label: 'Again' },
        { value: 'to-and-fro', label: 'To and fro' },
        { value: 'carry-on', label: 'Carry on' },
      ],
    },
  },
  valueAt: ({ way }, place, frame) => {
    const stretch = stretchOf(place)
    if (!stretch) return place.before(frame)
    const { first, span } = stretch
    const turns = (frame - first) / span
    const turn = Math.floor(turns)
    const within = (turns - turn) * span
    if (way === 'to-and-fro' && turn % 2 !== 0) return place.before(first + span - within)
    const value = place.before(first + within)
    return way === 'carry-on' ? value + turn * risen(place, stretch) : value
  },
  gap: ({ way }, place) => {
    const stretch = stretchOf(place)
    if (!stretch) return null
    const times = place.length / stretch.span
    if (way === 'carry-on') {
      const rise = risen(place, stretch) * times
      const meets = place.turn === null ? rise === 0 : isWhole(rise / place.turn)
      return meets && isWhole(times) ? null : `carries on by ${tidy(rise)} in a loop and jumps back at the seam`
    }
    const whole = way === 'to-and-fro' ? times / 2 : times
    return isWhole(whole)
      ? null
      : `fits ${tidy(whole)} times into the loop; put the last key so that it fits a whole number of times`
  },
})

interface Stretch {
  first: Frames
  span: Frames
}

function stretchOf({ keys }: Pick<MotorPlace, 'keys'>): Stretch | null {
  const [first, last] = [keys[0], keys.at(-1)]
  return first === undefined || last === undefined || last <= first ? null : { first, span: last - first }
}

const risen = ({ before }: Pick<MotorPlace, 'before'>, { first, span }: Stretch) => before(first + span) - before(first)
