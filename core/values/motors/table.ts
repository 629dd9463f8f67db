import type { MotorDefinition } from './definition'
import { follow } from './follow'
import { formula } from './formula'
import { jitter } from './jitter'
import { repeat } from './repeat'
import { settle } from './settle'
import { spin } from './spin'
import { step } from './step'
import { sway } from './sway'

/** All motors, in the order of the menu. */
export const MOTORS: readonly MotorDefinition[] = [sway, spin, jitter, settle, repeat, step, follow, formula]

const byKind = new Map(MOTORS.map((motor) => [motor.kind, motor]))

/** The definition of a kind; the schema lets no other kind in. */
export function motorOf(kind: string): MotorDefinition {
  const found = byKind.get(kind)
  if (!found) throw new Error(`${kind} is no motor`)
  return found
}
