import { z } from 'zod'
import type { Frames } from '../units'

/** Frames per second as an exact fraction: 30000/1001 is 29.97… without rounding. */
export const rateSchema = z.strictObject({
  numerator: z.number().int().min(1).max(240_000),
  denominator: z.number().int().min(1).max(1001),
})
export type Rate = z.infer<typeof rateSchema>

/** Rates in use in television and film. */
export const COMMON_RATES: readonly Rate[] = [
  { numerator: 24000, denominator: 1001 },
  { numerator: 24, denominator: 1 },
  { numerator: 25, denominator: 1 },
  { numerator: 30000, denominator: 1001 },
  { numerator: 30, denominator: 1 },
  { numerator: 50, denominator: 1 },
  { numerator: 60000, denominator: 1001 },
  { numerator: 60, denominator: 1 },
]

export const perSecond = (rate: Rate): number => rate.numerator / rate.denominator

export const seconds = (frames: Frames, rate: Rate): number => (frames * rate.denominator) / rate.numerator

/** `25`, `29.97`: as people write it. */
export function rateLabel(rate: Rate): string {
  const value = perSecond(rate)
  return Number.isInteger(value) ? String(value) : value.toFixed(rate.numerator % 1000 === 0 ? 2 : 3)
}

/** Seconds and frames as shown on the ribbon, `3:07` = 3 s and 7 frames, counted at the nominal rate. */
export function ribbonTime(frame: Frames, rate: Rate): string {
  const nominal = Math.round(perSecond(rate))
  const whole = Math.floor(frame)
  return `${Math.floor(whole / nominal)}:${String(whole % nominal).padStart(2, '0')}`
}
