import type { RenderFormat } from '../../../core/formats/deliveries'
import type { Encoder } from './encoder'
import { pngSequence } from './png-sequence'
import { proRes4444 } from './prores4444'

/** The encoder of every row of the table of deliveries. */
const ENCODERS: Record<RenderFormat, Encoder> = { png: pngSequence, prores4444: proRes4444 }

export const encoderOf = (format: RenderFormat): Encoder => ENCODERS[format]
