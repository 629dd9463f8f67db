import type { Key, Moving, StoredValue } from '../values/moving'
import { isMoving } from '../values/moving'
import type { Card } from '../card/schema'
import { parameterAt } from '../card/addresses'
import { frameIn, momentIn, pieceAt } from '../time/clock'
import { currentValue } from '../time/evaluate'
import { isBent, splitBend } from '../values/bend'
import { segmentAt } from '../values/keyframes'
import type { Moment } from '../values/moment'
import type { Frames } from '../units'
import { mapped } from './mapped'
import { pathOf, replacedAt, valueAtPath } from './path'

// Edits of values and keys. Every edit is a pure function from card to card; the former card is its inverse.

type KeyValue = number | string | boolean

export function storedAt(card: Card, address: string): StoredValue {
  return valueAtPath(card, pathOf(card, address)) as StoredValue
}

/** Replaces whatever stands at the address. */
export function setStored(card: Card, address: string, value: unknown): Card {
  return replacedAt(card, pathOf(card, address), value)
}

/**
 * Gives a parameter a value at a frame of the card, as a hand on its control means it: a moving parameter gets a key
 * where its piece stands then, a still one the value itself. The unit of a length stays.
 */
export function writeValue(card: Card, address: string, frame: Frames, value: unknown): Card {
  const stored = storedAt(card, address)
  if (isMoving(stored)) {
    // One key beside motors is the value that they play around, at every frame.
    const [only, ...more] = stored.keys
    const at = stored.motors?.length && more.length === 0 ? only!.frame : frameIn(card, pieceAt(address), frame)
    return setKey(card, address, at, value as KeyValue)
  }
  if (typeof stored === 'object' && stored !== null && 'unit' in stored && typeof value === 'number') {
    return setStored(card, address, { ...stored, value })
  }
  return setStored(card, address, value)
}

/**
 * Sets the key at a frame of the piece's own time, or adds one; a new key takes over the easing of the way that it splits, and the two parts of a
 * bent way keep its form.
 */
export function setKey(card: Card, address: string, frame: Frames, value: KeyValue): Card {
  const moving = storedAt(card, address) as Moving<KeyValue>
  const here = moving.keys.find((key) => key.frame === frame)
  if (here)
    return withKeys(
      card,
      address,
      moving.keys.map((key) => (key === here ? { ...key, value } : key)),
    )
  const before = [...moving.keys].reverse().find((key) => key.frame < frame) ?? moving.keys[moving.keys.length - 1]
  const key: Key<KeyValue> = { frame, value, ...(before?.easing ? { easing: before.easing } : {}) }
  return withKeys(card, address, [...bentAround(moving, key, card.length)])
}

/** The keys with a new one, the way that it splits bent as it was. */
function bentAround(moving: Moving<KeyValue>, key: Key<KeyValue>, length: Frames): Key<KeyValue>[] {
  const { from, to, progress } = segmentAt(moving, key.frame, length)
  if (from === to || typeof from.value !== 'number') return [...moving.keys, key]
  const [start, end] = [from as Key<number>, to as Key<number>]
  if (!isBent(start, end)) return [...moving.keys, key]
  const split = splitBend(start, end, progress)
  const keys = moving.keys.map((other) => {
    if (other !== from && other !== to) return other
    const out = other === from ? { out: split.out } : {}
    return { ...other, bend: { ...other.bend, ...out, ...(other === to ? { in: split.in } : {}) } }
  })
  return [...keys, { ...key, bend: split.at }]
}

/**
 * Starts moving a parameter with one key at a frame of the card, adds a key with its present value, or takes the key here
 * away.
 */
export function toggleKey(card: Card, address: string, cardFrame: Frames): Card {
  const stored = storedAt(card, address)
  const at = { ...momentIn(card, pieceAt(address), cardFrame), bare: true }
  const { frame } = at
  const value = plainValue(card, address, at)
  if (!isMoving(stored)) {
    const unit = typeof stored === 'object' && stored !== null && 'unit' in stored ? { unit: '%' as const } : {}
    return setStored(card, address, { ...unit, keys: [{ frame, value, easing: 'ease-in-out' }] })
  }
  if (stored.keys.some((key) => key.frame === frame)) return withoutKeys(card, address, new Set([frame]))
  return setKey(card, address, frame, value)
}

/** Without the keys at these frames. Without any a parameter stands still at the first one's value; motors play on around it. */
export function withoutKeys(card: Card, address: string, frames: ReadonlySet<Frames>): Card {
  const moving = storedAt(card, address) as Moving<KeyValue> & { unit?: '%' }
  const keys = moving.keys.filter((key) => !frames.has(key.frame))
  if (keys.length > 0) return withKeys(card, address, keys)
  const { value } = moving.keys[0]!
  if (moving.motors?.length) return withKeys(card, address, [{ frame: 0, value }])
  return setStored(card, address, moving.unit ? { unit: moving.unit, value } : value)
}

/** Stops moving: the present value stays, with what its motors add to it. */
export function stopMoving(card: Card, address: string, frame: Frames): Card {
  const stored = storedAt(card, address) as { unit?: '%' }
  const value = plainValue(card, address, momentIn(card, pieceAt(address), frame))
  return setStored(card, address, stored.unit ? { unit: stored.unit, value } : value)
}

/** Writes a length in the other unit; `reference` is the px that 100 % stands for. All keys and motors are converted. */
export function changeUnit(card: Card, address: string, unit: 'px' | '%', reference: number): Card {
  const stored = storedAt(card, address)
  const isPercent = typeof stored === 'object' && stored !== null && (stored as { unit?: string }).unit === '%'
  if (isPercent === (unit === '%') || reference <= 0) return card
  const convert = (value: number) => rounded(unit === '%' ? (value / reference) * 100 : (value / 100) * reference)
  if (isMoving(stored)) {
    const moved: Moving<number> & { unit?: '%' } = mapped(stored as Moving<number>, convert)
    if (unit === '%') moved.unit = unit
    else delete moved.unit
    return setStored(card, address, moved)
  }
  const value = convert(isPercent ? (stored as { value: number }).value : (stored as number))
  return setStored(card, address, unit === '%' ? { unit, value } : value)
}

/** Fine enough that no pixel changes with the unit. */
const rounded = (value: number) => Math.round(value * 1e6) / 1e6

/** The value of a parameter at a moment, as a key would hold it: a number without its unit, a hex colour, a text. */
function plainValue(card: Card, address: string, at: Moment): KeyValue {
  const place = parameterAt(card, address)
  if (!place) throw new Error(`${address} is no parameter that moves`)
  const value = currentValue(place.parameter, place.value, at)
  return (
    typeof value === 'object' && value !== null && 'unit' in value && 'value' in value ? value.value : value
  ) as KeyValue
}

function withKeys(card: Card, address: string, keys: readonly Key<KeyValue>[]): Card {
  const moving = storedAt(card, address) as Moving<KeyValue>
  return setStored(card, address, { ...moving, keys: [...keys].sort((a, b) => a.frame - b.frame) })
}
