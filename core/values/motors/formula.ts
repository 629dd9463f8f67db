import { readFormula } from '../formula'
import { defineMotor } from './definition'

/** A formula over time and the value before it. */
export const formula = defineMotor({
  kind: 'formula',
  label: 'Formula',
  help: 'Computes the value: t seconds, f frame, p place in the loop from 0 to 1, v the value before',
  parameters: {
    text: { type: 'formula', label: 'Formula', help: 'For example v + 20 * sin(tau * p)', default: 'v' },
  },
  valueAt: ({ text }, place, frame) => {
    const { run } = readFormula(text)
    const v = place.before(frame)
    if (!run) return v
    const { length, rate } = place
    return run({ t: frame / rate, f: frame, p: frame / length, v })
  },
  gap: ({ text }, place) => {
    const { run } = readFormula(text)
    if (!run) return null
    const { length, rate, before } = place
    const start = run({ t: 0, f: 0, p: 0, v: before(0) })
    const end = run({ t: length / rate, f: length, p: 1, v: before(0) })
    const jump = place.turn === null ? end - start : (end - start) % place.turn
    return Math.abs(jump) > 1e-6 * Math.max(1, Math.abs(start))
      ? 'has another value at the end of the loop than at its start; with p (0 to 1) it can be made to meet'
      : null
  },
})
