import type { OutlineStep, Piece } from '../card/schema'
import { COMMON_STEP_PARAMETERS } from '../steps/definition'
import type { StepDefinition } from '../steps/definition'
import { stepOf } from '../steps/table'
import { isMoving } from '../values/moving'
import { switchValue, valueAt, valuesAt } from '../values/evaluated'
import type { Moment } from '../values/moment'
import { seedFrom } from './laid-coats'

/** An outline step with its values at a moment. */
export interface LaidStep {
  definition: StepDefinition
  values: never
  /** Whether each letter is for itself. */
  letters: boolean
  /** See StepWork.chance; 0 where chance plays no part. */
  chance: number
}

/** A large odd number: seeds of neighbouring throws have nothing in common (the golden ratio of 32 bits). */
const GOLDEN = 0x9e3779b9

/** Steps that do something, in the order in which they work. */
export const laidSteps = ({ kind, outlineSteps }: Pick<Piece, 'kind' | 'outlineSteps'>, at: Moment): LaidStep[] =>
  [...outlineSteps].reverse().flatMap((step) => laidStep(step, at, kind === 'type') ?? [])

function laidStep(step: OutlineStep, at: Moment, isType: boolean): LaidStep | null {
  if (!switchValue(step.on, at)) return null
  const definition = stepOf(step.kind)
  // Of the step's own kind, as its definition asks.
  const values = valuesAt(definition.parameters, step, at) as never
  if (definition.idle?.(values)) return null
  const every = definition.every?.(values) ?? 0
  const held = every > 0 ? Math.floor(at.frame / every + 1e-9) + 1 : 0
  const chance = 'seed' in definition.parameters ? seedFrom(at.ring.seed ?? 1, step.id) ^ Math.imul(held, GOLDEN) : 0
  const each = valueAt(COMMON_STEP_PARAMETERS.each, step.each, at)
  return { definition, values, letters: isType && each === 'letters', chance: chance >>> 0 }
}

/** Whether a piece's outline changes from frame to frame by chance, though none of its values moves. */
export const hasRestlessSteps = ({ outlineSteps }: Piece): boolean =>
  outlineSteps.some((step) => (isMoving(step.on) || step.on) && 'every' in step && step.every !== 0 && throwsAnew(step))

const throwsAnew = (step: OutlineStep) => step.kind !== 'slices' || step.order === 'chance'
