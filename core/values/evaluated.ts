import type { Moment } from './moment'
import { colourAt, curveAt, heldAt, numberAt, pathAt } from './moved'
import type { Rgba } from '../units'
import { readColour } from './colour'
import type { StoredCurve } from '../curves/curve'
import type { Length, Movable, Moving, StoredGradient, StoredPaint, StoredTexture } from './moving'
import { isMoving } from './moving'
import { GRADIENT_PARAMETERS, STOP_PARAMETERS, TEXTURE_PARAMETERS } from './paints'
import type { Parameter, Parameters } from './parameter-kinds'

// An evaluated value is what a parameter is at one frame: no keys, no hex text.

export interface EvaluatedStop {
  /** 0–1. */
  at: number
  colour: Rgba
  /** 0–1 of the way to the next stop. */
  middle: number
}

/** Scale, shift and middle are shares: 1 is the whole span. */
export interface EvaluatedGradient extends Pick<StoredGradient, 'type' | 'form' | 'spread' | 'mix' | 'hang'> {
  stops: EvaluatedStop[]
  angle: number
  scale: number
  shift: number
  x: number
  y: number
}

/** Scale and weight are shares, shifts are px. */
export interface EvaluatedTexture extends Pick<StoredTexture, 'type' | 'pattern' | 'picture' | 'hang'> {
  colour: Rgba
  ground: Rgba
  scale: number
  angle: number
  x: number
  y: number
  weight: number
  seed: number
  /** Flowing noise: sizes in px, octaves, brightness as a share, evolution in turns. */
  sizeX: number
  sizeY: number
  detail: number
  brightness: number
  evolution: number
}

export type EvaluatedPaint = { type: 'solid'; colour: Rgba } | EvaluatedGradient | EvaluatedTexture

/** The value that a parameter's definition settles to. */
export type Evaluated<P extends Parameter> = P extends { type: 'number' }
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
              : P extends { type: 'piece' }
                ? string | null
                : P extends { type: 'pieces' }
                  ? readonly string[]
                  : EvaluatedPaint

export type EvaluatedValues<T extends Parameters> = { [K in keyof T]: Evaluated<T[K]> }

export type { Moment }

interface Range {
  min: number
  max: number
}

/** Easings and motors overshoot; what a parameter cannot be it does not become. */
const kept = (value: number, { min, max }: Range) => Math.min(max, Math.max(min, value))

export function numberValue(value: unknown, at: Moment, range: Range): number {
  return isMoving(value) ? kept(numberAt(value as Moving<number>, at), range) : (value as number)
}

export function lengthValue(value: unknown, at: Moment, range: Range): Length {
  if (!isMoving(value)) return value as Length
  const moved = kept(numberAt(value as Moving<number>, at), range)
  return (value as { unit?: '%' }).unit ? { unit: '%', value: moved } : moved
}

/** A switch, which changes at its keys. */
export const switchValue = (value: unknown, at: Moment): boolean =>
  isMoving(value) ? heldAt(value as Moving<boolean>, at) : (value as boolean)

export function colourValue(value: unknown, at: Moment): Rgba {
  return isMoving(value) ? colourAt(value as Moving<string>, at) : readColour(value as string)
}

export function paintValue(paint: StoredPaint, at: Moment): EvaluatedPaint {
  const share = (value: Movable<number>, range: Range) => numberValue(value, at, range) / 100
  if (paint.type === 'solid') return { type: 'solid', colour: colourValue(paint.colour, at) }
  if (paint.type === 'texture') {
    const { type, pattern, picture, hang } = paint
    return {
      ...{ type, pattern, picture, hang },
      colour: colourValue(paint.colour, at),
      ground: colourValue(paint.ground, at),
      scale: share(paint.scale, TEXTURE_PARAMETERS.scale),
      weight: share(paint.weight, TEXTURE_PARAMETERS.weight),
      angle: numberValue(paint.angle, at, TEXTURE_PARAMETERS.angle),
      x: numberValue(paint.x, at, TEXTURE_PARAMETERS.x),
      y: numberValue(paint.y, at, TEXTURE_PARAMETERS.y),
      seed: numberValue(paint.seed, at, TEXTURE_PARAMETERS.seed),
      sizeX: numberValue(paint.sizeX, at, TEXTURE_PARAMETERS.sizeX),
      sizeY: numberValue(paint.sizeY, at, TEXTURE_PARAMETERS.sizeY),
      detail: numberValue(paint.detail, at, TEXTURE_PARAMETERS.detail),
      brightness: share(paint.brightness, TEXTURE_PARAMETERS.brightness),
      evolution: numberValue(paint.evolution, at, TEXTURE_PARAMETERS.evolution),
    }
  }
  const { type, form, spread, mix, hang } = paint
  const stops = paint.stops.map((stop) => ({
    at: share(stop.at, STOP_PARAMETERS.at),
    colour: colourValue(stop.colour, at),
    middle: share(stop.middle ?? 50, STOP_PARAMETERS.middle),
  }))
  return {
    ...{ type, form, spread, mix, hang, stops },
    angle: numberValue(paint.angle, at, GRADIENT_PARAMETERS.angle),
    scale: share(paint.scale, GRADIENT_PARAMETERS.scale),
    shift: share(paint.shift, GRADIENT_PARAMETERS.shift),
    x: share(paint.x, GRADIENT_PARAMETERS.x),
    y: share(paint.y, GRADIENT_PARAMETERS.y),
  }
}

/** What a parameter is at one moment. */
export function valueAt(parameter: Parameter, value: unknown, at: Moment): unknown {
  switch (parameter.type) {
    case 'number':
      return numberValue(value, at, parameter)
    case 'length':
      return lengthValue(value, at, parameter)
    case 'colour':
      return colourValue(value, at)
    case 'paint':
      return paintValue(value as StoredPaint, at)
    case 'curve':
      return isMoving(value) ? curveAt(value as Moving<StoredCurve>, at) : value
    case 'path':
      return isMoving(value) ? pathAt(value as Moving<string>, at) : value
    case 'toggle':
    case 'text':
      return isMoving(value) ? heldAt(value, at) : value
    case 'choice':
    case 'piece':
    case 'pieces':
      return value
  }
}

/** All values of a table at one moment; `stored` is what holds them: a piece, a coat, a range, a motor. */
export function valuesAt<T extends Parameters>(parameters: T, stored: object, at: Moment): EvaluatedValues<T> {
  // The check of the card has seen to it that what holds values has one for each parameter.
  const values = stored as Readonly<Record<string, unknown>>
  return Object.fromEntries(
    Object.entries(parameters).map(([name, p]) => [name, valueAt(p, values[name], at)]),
  ) as EvaluatedValues<T>
}
