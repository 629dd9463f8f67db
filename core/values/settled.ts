import type { Moment } from './moment'
import { colourAt, curveAt, heldAt, numberAt, pathAt } from './moved'
import type { Rgba } from '../units'
import { readColour } from './colour'
import type { StoredCurve } from '../curves/curve'
import type { Length, Movable, Moving, StoredGradient, StoredPaint, StoredTexture } from './moving'
import { isMoving } from './moving'
import { GRADIENT_PARAMETERS, STOP_PARAMETERS, TEXTURE_PARAMETERS } from './paints'
import type { Parameter, Parameters } from './parameter-kinds'

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
            : P extends { type: 'text' | 'path' }
              ? string
              : SettledPaint

export type SettledValues<T extends Parameters> = { [K in keyof T]: Settled<T[K]> }

export type { Moment }

interface Range {
  min: number
  max: number
}

/** Easings and motors overshoot; what a parameter cannot be it does not become. */
const kept = (value: number, { min, max }: Range) => Math.min(max, Math.max(min, value))

export function settleNumber(value: unknown, at: Moment, range: Range): number {
  return isMoving(value) ? kept(numberAt(value as Moving<number>, at), range) : (value as number)
}

export function settleLength(value: unknown, at: Moment, range: Range): Length {
  if (!isMoving(value)) return value as Length
  const moved = kept(numberAt(value as Moving<number>, at), range)
  return (value as { unit?: '%' }).unit ? { unit: '%', value: moved } : moved
}

/** A switch, which changes at its keys. */
export const settleSwitch = (value: unknown, at: Moment): boolean =>
  isMoving(value) ? heldAt(value as Moving<boolean>, at) : (value as boolean)

export function settleColour(value: unknown, at: Moment): Rgba {
  return isMoving(value) ? colourAt(value as Moving<string>, at) : readColour(value as string)
}

export function settlePaint(paint: StoredPaint, at: Moment): SettledPaint {
  const share = (value: Movable<number>, range: Range) => settleNumber(value, at, range) / 100
  if (paint.type === 'solid') return { type: 'solid', colour: settleColour(paint.colour, at) }
  if (paint.type === 'texture') {
    const { type, pattern, picture, hang } = paint
    return {
      ...{ type, pattern, picture, hang },
      colour: settleColour(paint.colour, at),
      ground: settleColour(paint.ground, at),
      scale: share(paint.scale, TEXTURE_PARAMETERS.scale),
      weight: share(paint.weight, TEXTURE_PARAMETERS.weight),
      angle: settleNumber(paint.angle, at, TEXTURE_PARAMETERS.angle),
      x: settleNumber(paint.x, at, TEXTURE_PARAMETERS.x),
      y: settleNumber(paint.y, at, TEXTURE_PARAMETERS.y),
      seed: settleNumber(paint.seed, at, TEXTURE_PARAMETERS.seed),
    }
  }
  const { type, form, spread, mix, hang } = paint
  const stops = paint.stops.map((stop) => ({
    at: share(stop.at, STOP_PARAMETERS.at),
    colour: settleColour(stop.colour, at),
    middle: share(stop.middle ?? 50, STOP_PARAMETERS.middle),
  }))
  return {
    ...{ type, form, spread, mix, hang, stops },
    angle: settleNumber(paint.angle, at, GRADIENT_PARAMETERS.angle),
    scale: share(paint.scale, GRADIENT_PARAMETERS.scale),
    shift: share(paint.shift, GRADIENT_PARAMETERS.shift),
    x: share(paint.x, GRADIENT_PARAMETERS.x),
    y: share(paint.y, GRADIENT_PARAMETERS.y),
  }
}

/** What a parameter is at one moment. */
export function settle(parameter: Parameter, value: unknown, at: Moment): unknown {
  switch (parameter.type) {
    case 'number':
      return settleNumber(value, at, parameter)
    case 'length':
      return settleLength(value, at, parameter)
    case 'colour':
      return settleColour(value, at)
    case 'paint':
      return settlePaint(value as StoredPaint, at)
    case 'curve':
      return isMoving(value) ? curveAt(value as Moving<StoredCurve>, at) : value
    case 'path':
      return isMoving(value) ? pathAt(value as Moving<string>, at) : value
    case 'toggle':
    case 'text':
      return isMoving(value) ? heldAt(value, at) : value
    case 'choice':
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
