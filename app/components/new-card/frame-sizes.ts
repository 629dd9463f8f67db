import type { Rate } from '#core/values/rate'
import { COMMON_RATES } from '#core/values/rate'

/** Sizes that cards mostly have. */
export const FRAME_SIZES = [
  { label: 'Full HD', width: 1920, height: 1080 },
  { label: 'Ultra HD', width: 3840, height: 2160 },
  { label: 'Upright', width: 1080, height: 1920 },
  { label: 'Square', width: 1080, height: 1080 },
] as const

export interface FrameChoice {
  width: number
  height: number
  /** Index into the common rates. */
  rate: number
}

export const FIRST_FRAME: FrameChoice = { width: 1920, height: 1080, rate: 2 }

export const rateOf = ({ rate }: FrameChoice): Rate => COMMON_RATES[rate]!
