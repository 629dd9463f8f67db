import { amount, defineMotor } from './definition'

/** Another parameter's value, later, larger, moved. */
export const follow = defineMotor({
  kind: 'follow',
  label: 'Follow',
  help: 'Follows another value of the card: later, times a gain, plus an offset',
  parameters: {
    source: { type: 'source', label: 'Follows', help: 'The value that is followed', default: '' },
    delay: {
      ...{ type: 'number', label: 'Delay', help: 'How many frames later', default: 0 },
      ...{ min: -100_000, max: 100_000, step: 1, unit: '', slider: [-25, 25], moves: true },
    },
    gain: {
      ...{ type: 'number', label: 'Gain', help: 'In % of the value that is followed', default: 100 },
      ...{ min: -100_000, max: 100_000, step: 5, unit: '%', slider: [-200, 200], moves: true },
    },
    offset: amount({ label: 'Offset', help: 'Added to it', default: 0, moves: true }),
    way: {
      ...{ type: 'choice', label: 'Way', help: 'Takes the place of the value, or is added to it' },
      default: 'instead',
      options: [
        { value: 'instead', label: 'Instead' },
        { value: 'added', label: 'Added' },
      ],
    },
  },
  valueAt: ({ source, delay, gain, offset, way }, place, frame) => {
    const own = place.before(frame)
    const followed = source ? place.lookup(source, frame - delay) : null
    if (followed === null) return own
    return (way === 'added' ? own : 0) + (followed * gain) / 100 + offset
  },
  // It closes where what it follows does, and that is told there.
  gap: () => null,
})
