import type { Frames } from '../units'
import type { Motor } from '../values/motors/schema'
import { createMotor } from '../values/motors/schema'
import type { Moving } from '../values/moving'
import { isMoving } from '../values/moving'
import type { Card } from '../card/schema'
import { setStored, storedAt, toggleKey } from './values'

/** Puts a motor behind the others; a value that stands still gets its one key first. */
export function addMotor(card: Card, address: string, kind: string, frame: Frames): Card {
  const keyed = isMoving(storedAt(card, address)) ? card : toggleKey(card, address, frame)
  const moving = storedAt(keyed, address) as Moving<number>
  return setStored(keyed, address, { ...moving, motors: [...(moving.motors ?? []), createMotor(kind)] })
}

/** Changes one motor; null takes it out. */
export function changeMotor(card: Card, address: string, index: number, change: Partial<Motor> | null): Card {
  const { motors = [], ...moving } = storedAt(card, address) as Moving<number> & { unit?: '%' }
  const next = motors.flatMap((motor, i) => (i !== index ? [motor] : change ? [{ ...motor, ...change } as Motor] : []))
  if (next.length > 0) return setStored(card, address, { ...moving, motors: next })
  // Without its last motor a value of one key stands still.
  const [only, ...more] = moving.keys
  if (more.length > 0) return setStored(card, address, moving)
  return setStored(card, address, moving.unit ? { unit: moving.unit, value: only!.value } : only!.value)
}
