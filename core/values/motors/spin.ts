import { amount, defineMotor, isWhole, PER, perLoop, tidy } from './definition'

const inTurns = (value: number, turn: number) => value / turn

/** A steady rate: angles turn, all else runs on. */
export const spin = defineMotor({
  kind: 'spin',
  label: 'Spin',
  help: 'Runs on at a steady rate; an angle turns',
  parameters: {
    amount: amount({
      label: 'Amount',
      help: 'How far it runs, in the unit of the value; 360° is a whole turn',
      default: 360,
    }),
    per: PER,
  },
  valueAt: (values, place, frame) =>
    place.before(frame) + values.amount * perLoop(values.per, place) * (frame / place.length),
  gap: (values, place) => {
    const run = values.amount * perLoop(values.per, place)
    if (run === 0) return null
    if (place.turn === null) return `runs on by ${tidy(run)} in a loop and jumps back at the seam`
    if (isWhole(inTurns(run, place.turn))) return null
    return `makes ${tidy(inTurns(run, place.turn))} turns in a loop; only whole turns meet at the seam`
  },
  mend: (values, place) => {
    if (place.turn === null) return null
    const turns = inTurns(values.amount * perLoop(values.per, place), place.turn)
    const whole = Math.round(turns) || Math.sign(turns)
    return {
      values: { ...values, amount: whole * place.turn, per: 'loop' },
      says: `spins ${whole} whole turn${Math.abs(whole) === 1 ? '' : 's'} in a loop instead of ${tidy(turns)}`,
    }
  },
})
