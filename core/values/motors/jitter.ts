import { ringNoise } from '../ring-noise'
import { amount, defineMotor, PER, perLoop } from './definition'

/** Random movement that comes round with the loop whatever its rate. */
export const jitter = defineMotor({
  kind: 'jitter',
  label: 'Jitter',
  help: 'Moves at random, the same at every turn of the loop; its mean is the value itself',
  parameters: {
    amount: amount({
      moves: true,
      label: 'Amount',
      help: 'How far it goes at most to each side, in the unit of the value',
      default: 10,
    }),
    rate: {
      ...{ type: 'number', label: 'Rate', help: 'How many random points lie in the loop or in a second', default: 8 },
      ...{ min: 0.1, max: 1000, step: 1, unit: '' },
    },
    per: { ...PER, default: 'second' as const },
    form: {
      ...{
        type: 'choice',
        label: 'Form',
        help: 'A smooth way between the random points, or jumps from one to the next',
      },
      default: 'smooth',
      options: [
        { value: 'smooth', label: 'Smooth' },
        { value: 'jumps', label: 'Jumps' },
      ],
    },
    seed: {
      ...{ type: 'number', label: 'Seed', help: 'Another number, another movement', default: 1 },
      ...{ min: 0, max: 65_535, step: 1, unit: '' },
    },
  },
  valueAt: (values, place, frame) => {
    const points = Math.min(100_000, Math.max(2, Math.round(values.rate * perLoop(values.per, place))))
    const noise = ringNoise(points, values.seed)
    const at = frame / place.length
    return place.before(frame) + values.amount * (values.form === 'jumps' ? noise.jumps(at) : noise.smooth(at))
  },
  gap: () => null,
})
