import type { Motor } from '../values/motors/schema'
import { motorOf } from '../values/motors/table'
import type { Bend, Movable, Moving } from '../values/moving'
import { isMoving } from '../values/moving'

/**
 * A number, still or moving, on another scale: its keys are changed, and what its motors add grows as the keys'
 * differences do. `change` is linear: times a factor, plus an offset.
 */
export function mapped<T>(value: T, change: (value: number) => number): T {
  if (!isMoving(value)) return change(value as number) as T
  const { keys, motors } = value as Moving<number>
  const factor = change(1) - change(0)
  return {
    ...value,
    keys: keys.map((key) => ({ ...key, value: change(key.value), ...grownBend(key.bend, factor) })),
    ...(motors && factor !== 1 ? { motors: motors.map((motor) => grown(motor, factor)) } : {}),
  }
}

function grownBend(bend: Bend | undefined, factor: number): { bend?: Bend } {
  if (!bend) return {}
  const grow = (v: number | undefined) => (v === undefined ? undefined : tidy(v * factor))
  return { bend: { in: grow(bend.in), out: grow(bend.out) } }
}

/** A motor whose amounts, which are in the unit of the value, are multiplied. */
function grown(motor: Motor, factor: number): Motor {
  const amounts = Object.entries(motorOf(motor.kind).parameters).filter(([, { type }]) => type === 'amount')
  return {
    ...motor,
    ...Object.fromEntries(
      amounts.map(([name]) => [name, mapped(motor[name] as Movable<number>, (v) => tidy(v * factor))]),
    ),
  }
}

const tidy = (value: number) => Math.round(value * 1e6) / 1e6
