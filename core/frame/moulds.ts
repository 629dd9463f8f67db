import type { Fineness, Mould, MouldPart } from '../outline/mould'
import { ringsOf } from '../outline/mould'
import { combine, unite } from '../outline/unite'
import type { StepWork } from '../steps/definition'
import type { Px, Rect } from '../units'
import type { LaidStep } from './laid-steps'
import { lengthIn } from './recipe-tools'

/** What steps count by. */
export interface MouldSetting extends Fineness {
  /** What the outline spans at rest, and the px that 100 % stands for. */
  whole: Rect
  reference: Px
  /** See StepWork.banded and StepWork.pressure. */
  banded: boolean
  pressure: readonly number[]
}

/** A mould after its steps, one after the other. */
export function formedMould(mould: Mould, steps: readonly LaidStep[], setting: MouldSetting): Mould {
  const { whole, reference, tolerance, grid, banded, pressure } = setting
  const fineness = { tolerance, grid }
  return steps.reduce<Mould>((parts, { definition, values, letters, chance }) => {
    const work: StepWork = {
      ...fineness,
      ...{ whole, letters, chance, banded, pressure },
      px: lengthIn(1, reference),
      around: ({ rest }) => (letters ? rest : whole),
      rings: (part: MouldPart) => ringsOf(part.form, fineness),
      united: (rings) => unite(rings, grid),
      common: (a, b) => combine('intersect', a, b, grid),
    }
    return definition.apply(values, parts, work)
  }, mould)
}
