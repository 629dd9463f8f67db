import { z } from 'zod'
import type { StoredCurve } from '../curves/curve'
import type { Motor } from './motors/schema'
import { motorsSchema } from './motors/schema'
import { HEX_COLOUR } from './colour'
import type { Bend, Key } from './keys'
import { bend, keysOf, loop } from './keys'

export type { Bend, Key }

/** A value that moves. */
export interface Moving<T> {
  keys: Key<T>[]
  /**
   * True (the default): the ribbon is a ring and the segment after the last key leads to the first one, across
   * the seam. False: the first and last values are held.
   */
  loop?: boolean
  /** Numbers only: what moves the value beside its keys, each on what the one before it gives. */
  motors?: Motor[]
  /** Colours only: the space in which they are mixed; sRGB where left out. */
  mix?: 'srgb' | 'oklab'
}

export type Movable<T> = T | Moving<T>

/** A length in % of the piece's reference size instead of px. */
export type Length = number | { unit: '%'; value: number }
export type MovableLength = Length | (Moving<number> & { unit?: '%' })

/** Anything that the document can hold at a parameter's place. */
export type StoredValue =
  | Movable<number>
  | MovableLength
  | Movable<string>
  | Movable<boolean>
  | StoredPaint
  | Movable<StoredCurve>
  | string[]
  | null
  | undefined

export interface StoredStop {
  /** 0–100 % along the gradient. */
  at: Movable<number>
  colour: Movable<string>
  /** Where the mix with the next stop is half and half; 50 where left out. */
  middle?: Movable<number>
}

/** A gradient of any kind; see core/values/paints.ts for what each value means and where it counts. */
export interface StoredGradient {
  type: 'linear' | 'radial' | 'conic' | 'edge'
  stops: StoredStop[]
  angle: Movable<number>
  scale: Movable<number>
  shift: Movable<number>
  x: Movable<number>
  y: Movable<number>
  form: 'circle' | 'ellipse'
  spread: 'pad' | 'reflect' | 'repeat'
  mix: 'srgb' | 'linear' | 'oklab'
  hang: 'piece' | 'card'
}

export interface StoredTexture {
  type: 'texture'
  pattern: 'noise' | 'flow' | 'grid' | 'lines' | 'brushed' | 'paper' | 'picture'
  picture: string | null
  colour: Movable<string>
  ground: Movable<string>
  scale: Movable<number>
  angle: Movable<number>
  x: Movable<number>
  y: Movable<number>
  weight: Movable<number>
  seed: Movable<number>
  /** Flowing noise only, as is all up to the evolution. */
  sizeX: Movable<number>
  sizeY: Movable<number>
  detail: Movable<number>
  brightness: Movable<number>
  evolution: Movable<number>
  hang: 'piece' | 'card'
}

export type StoredPaint = { type: 'solid'; colour: Movable<string> } | StoredGradient | StoredTexture

export const isGradient = (paint: StoredPaint): paint is StoredGradient => 'stops' in paint

const motors = motorsSchema.optional()

export const colourSchema = z.string().regex(HEX_COLOUR, 'is no colour: write #RRGGBB or #RRGGBBAA')

export function movableNumber(min: number, max: number) {
  const value = z.number().min(min).max(max)
  return z.union([value, z.strictObject({ keys: keysOf(value, { bend }), loop, motors })])
}

export function movableLength(min: number, max: number) {
  const value = z.number().min(min).max(max)
  const unit = z.literal('%')
  return z.union([
    value,
    z.strictObject({ unit, value }),
    z.strictObject({ unit: unit.optional(), keys: keysOf(value, { bend }), loop, motors }),
  ])
}

export const movableColour = z.union([
  colourSchema,
  z.strictObject({ keys: keysOf(colourSchema), loop, mix: z.enum(['srgb', 'oklab']).optional() }),
])

/** What has keys and no motors: wording, switches, paths, curves. */
export const movable = <T extends z.ZodType>(value: T) =>
  z.union([value, z.strictObject({ keys: keysOf(value), loop })])

export function isMoving(value: unknown): value is Moving<unknown> {
  return typeof value === 'object' && value !== null && Array.isArray((value as Moving<unknown>).keys)
}
