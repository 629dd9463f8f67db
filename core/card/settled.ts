import { colourAt, numberAt } from '../time/keyframes'
import type { Frames, Rgba } from '../units'
import { readColour } from './colour'
import type { Length, Moving, StoredPaint } from './moving'
import { isMoving } from './moving'
import type { Parameter, Parameters } from './parameters'

// A settled value is what a parameter is at one frame: no keys, no hex text.

export interface SettledStop {
  /** 0–1. */
  at: number
  colour: Rgba
}

export type SettledPaint =
  | { type: 'solid'; colour: Rgba }
  | {
      type: 'linear'
      stops: SettledStop[]
      angle: number
      /** 1 = the whole span. */
      scale: number
      shift: number
      hang: 'piece' | 'card'
    }

/** The value that a parameter's definition settles to. */
export type Settled<P extends Parameter> = P extends { type: 'number' }
  ? number
  : P extends { type: 'length' }
    ? Length
    : P extends { type: 'colour' }
      ? Rgba
      : P extends { type: 'choice'; default: infer T }
        ? T
        : P extends { type: 'toggle' }
          ? boolean
          : SettledPaint

export type SettledValues<T extends Parameters> = { [K in keyof T]: Settled<T[K]> }

/** The moment for which values are settled. */
export interface Moment {
  frame: Frames
  /** The card's loop length. */
  length: Frames
}

export function settleNumber(value: unknown, at: Moment): number {
  return isMoving(value) ? numberAt(value as Moving<number>, at.frame, at.length) : (value as number)
}

export function settleLength(value: unknown, at: Moment): Length {
  if (!isMoving(value)) return value as Length
  const moved = numberAt(value as Moving<number>, at.frame, at.length)
  return (value as { unit?: '%' }).unit ? { unit: '%', value: moved } : moved
}

export function settleColour(value: unknown, at: Moment): Rgba {
  return isMoving(value) ? colourAt(value as Moving<string>, at.frame, at.length) : readColour(value as string)
}

export function settlePaint(paint: StoredPaint, at: Moment): SettledPaint {
  if (paint.type === 'solid') return { type: 'solid', colour: settleColour(paint.colour, at) }
  const stops = paint.stops.map((stop) => ({
    at: settleNumber(stop.at, at) / 100,
    colour: settleColour(stop.colour, at),
  }))
  return {
    type: 'linear',
    stops,
    angle: settleNumber(paint.angle, at),
    scale: settleNumber(paint.scale, at) / 100,
    shift: settleNumber(paint.shift, at) / 100,
    hang: paint.hang,
  }
}

function settle(parameter: Parameter, value: unknown, at: Moment): unknown {
  switch (parameter.type) {
    case 'number':
      return settleNumber(value, at)
    case 'length':
      return settleLength(value, at)
    case 'colour':
      return settleColour(value, at)
    case 'paint':
      return settlePaint(value as StoredPaint, at)
    default:
      return value
  }
}

/** All values of a table at one moment. */
export function settleAll<T extends Parameters>(
  parameters: T,
  stored: Readonly<Record<string, unknown>>,
  at: Moment,
): SettledValues<T> {
  return Object.fromEntries(
    Object.entries(parameters).map(([name, p]) => [name, settle(p, stored[name], at)]),
  ) as SettledValues<T>
}
