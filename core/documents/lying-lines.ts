import { MOST_MOTORS } from '../values/motors/schema'
import type { Stored } from './upgrades'

// `lines` as a texture once stood upright at 0°, where those of the finish lie: they lie in both since.

const TURN = 90
/** The largest angle that a texture may have. */
const MOST = 36_000

/** A document whose textures of lines keep their direction, wherever in it they are. */
export const lyingLines = (document: Stored): Stored => turned(document) as Stored

function turned(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(turned)
  if (typeof value !== 'object' || value === null) return value
  const parts = Object.fromEntries(Object.entries(value).map(([name, part]) => [name, turned(part)]))
  return parts.type === 'texture' && parts.pattern === 'lines' ? { ...parts, angle: turnedAngle(parts.angle) } : parts
}

/** A number, a value that moves, or none: 0. What is neither is left to the check. */
function turnedAngle(angle: unknown): unknown {
  if (angle === undefined) return TURN
  if (typeof angle === 'number') return angle + TURN > MOST ? angle - TURN : angle + TURN
  const { keys, motors } = (angle ?? {}) as { keys?: unknown; motors?: unknown }
  if (!Array.isArray(keys)) return angle
  // Motors work on what the keys give, or take its place: after all of them it is turned. Where there is no room for one more, before.
  const hasMotors = Array.isArray(motors) && motors.length > 0
  if (hasMotors && motors.length < MOST_MOTORS)
    return { ...(angle as object), motors: [...motors, { kind: 'formula', text: `v + ${TURN}` }] }
  const by = keys.every((key) => typeof key?.value !== 'number' || key.value + TURN <= MOST) ? TURN : -TURN
  const turn = (value: number) => Math.max(-MOST, value + by)
  return {
    ...(angle as object),
    keys: keys.map((key) => (typeof key?.value === 'number' ? { ...key, value: turn(key.value) } : key)),
  }
}
