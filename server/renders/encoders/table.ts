import type { RenderFormat } from '../options'
import type { EncoderDefinition } from './encoder'
import { pngSequence } from './png-sequence'
import { proRes4444 } from './prores4444'

/** Every delivery format, all of them with alpha. */
export const ENCODERS: readonly EncoderDefinition[] = [pngSequence, proRes4444]

export function encoderOf(format: RenderFormat): EncoderDefinition {
  return ENCODERS.find((encoder) => encoder.format === format)!
}
