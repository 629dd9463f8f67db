import { sinDegrees } from '../../kernels/exact'
import { amount, defineMotor, isWhole, PER, perLoop, tidy } from './definition'

/** A sine. */
export const sway = defineMotor({
  kind: 'sway',
  label: 'Sway',
  help: 'Goes to and fro as a sine',
  parameters: {
    amount: amount({
      moves: true,
      label: 'Amount',
      help: 'How far it goes to each side, in the unit of the value',
      default: 20,
    }),
    cycles: {
      ...{ type: 'number', label: 'Cycles', help: 'How often it goes to and fro', default: 1 },
      ...{ min: 0, max: 1000, step: 1, unit: '' },
    },
    per: PER,
    phase: {
      ...{ type: 'number', label: 'Phase', help: 'Where it begins, in degrees: 90 is the far end', default: 0 },
      ...{ min: -3600, max: 3600, step: 5, unit: '°', moves: true },
    },
  },
  valueAt: (values, place, frame) => {
    const cycles = values.cycles * perLoop(values.per, place)
    return place.before(frame) + values.amount * sinDegrees(360 * cycles * (frame / place.length) + values.phase)
  },
  gap: (values, place) => {
    const cycles = values.cycles * perLoop(values.per, place)
    return isWhole(cycles) || values.amount === 0
      ? null
      : `sways ${tidy(cycles)} times in a loop; only whole cycles meet at the seam`
  },
  mend: (values, place) => {
    const cycles = values.cycles * perLoop(values.per, place)
    const whole = Math.max(1, Math.round(cycles))
    return {
      values: { ...values, cycles: whole, per: 'loop' },
      says: `sways ${whole} times in a loop instead of ${tidy(cycles)}`,
    }
  },
})
