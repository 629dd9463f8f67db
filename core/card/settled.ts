import { colourAt, numberAt } from '../time/keyframes'
import type { Frames, Rgba } from '../units'
import { readColour } from './colour'
import type { StoredCurve } from '../curves/curve'
import type { Length, Movable, Moving, StoredGradient, StoredPaint, StoredTexture } from './moving'
import { isMoving } from './moving'
import type { Parameter, Parameters } from './parameters'

// A settled value is what a parameter is at one frame: no keys, no hex text.

export interface SettledStop {
  /** 0–1. */
  at: number
  colour: Rgba
  /** 0–1 of the way to the next stop. */
  middle: number
}

/** Scale, shift and middle are shares: 1 is the whole span. */
export interface SettledGradient extends Pick<StoredGradient, 'type' | 'form' | 'spread' | 'mix' | 'hang'> {
  stops: SettledStop[]
  angle: number
  scale: number
  shift: number
  x: number
  y: number
}

/** Scale and weight are shares, shifts are px. */
export interface SettledTexture extends Pick<StoredTexture, 'type' | 'pattern' | 'picture' | 'hang'> {
  colour: Rgba
  ground: Rgba
  scale: number
  angle: number
  x: number
  y: number
  weight: number
  seed: number
}

export type SettledPaint = { type: 'solid'; colour: Rgba } | SettledGradient | SettledTexture

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
          : P extends { type: 'curve' }
            ? StoredCurve
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
  const share = (value: Movable<number>) => settleNumber(value, at) / 100
  if (paint.type === 'solid') return { type: 'solid', colour: settleColour(paint.colour, at) }
  if (paint.type === 'texture') {
    const { type, pattern, picture, hang } = paint
    return {
      ...{ type, pattern, picture, hang },
      colour: settleColour(paint.colour, at),
      ground: settleColour(paint.ground, at),
      scale: share(paint.scale),
      weight: share(paint.weight),
      angle: settleNumber(paint.angle, at),
      x: settleNumber(paint.x, at),
      y: settleNumber(paint.y, at),
      seed: settleNumber(paint.seed, at),
    }
  }
  const { type, form, spread, mix, hang } = paint
  const stops = paint.stops.map((stop) => ({
    at: share(stop.at),
    colour: settleColour(stop.colour, at),
    middle: share(stop.middle ?? 50),
  }))
  return {
    ...{ type, form, spread, mix, hang, stops },
    angle: settleNumber(paint.angle, at),
    scale: share(paint.scale),
    shift: share(paint.shift),
    x: share(paint.x),
    y: share(paint.y),
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
