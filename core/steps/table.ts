import { dashes } from './dashes'
import type { StepDefinition } from './definition'
import { drawOn } from './draw-on'
import { grow } from './grow'
import { line } from './line'
import { rough } from './rough'
import { round } from './round'
import { slices } from './slices'
import { taper } from './taper'
import { warp } from './warp'

/** All kinds of outline step, in the order in which they are offered. A new kind is one file and one line here. */
const TABLE = [line, drawOn, dashes, taper, grow, round, rough, slices, warp]

// Each definition takes values of its own kind alone; whoever goes through the table gives each the values of its kind.
export const STEPS = TABLE as unknown as readonly StepDefinition[]
export const STEP_KINDS = STEPS.map(({ kind }) => kind)

export function stepOf(kind: string): StepDefinition {
  const step = STEPS.find((definition) => definition.kind === kind)
  if (!step) throw new Error(`No outline step of kind ${kind}`)
  return step
}
