import type { DeliveryFormat } from '../../../core/formats/deliveries/table'
import { animatedPng } from './animated-png'
import { animatedWebp } from './animated-webp'
import type { Encoder } from './encoder'
import { fillAndKey } from './fill-and-key'
import { gif } from './gif'
import { pngInMov, runLength } from './lossless-mov'
import { openExr } from './open-exr'
import { pngSequence } from './png-sequence'
import { proRes4444 } from './prores4444'
import { reviewCopy } from './review-copy'
import { still } from './still'
import { webm } from './webm'

/** The encoder of every row of the table of deliveries. */
const ENCODERS: Record<DeliveryFormat, Encoder> = {
  png: pngSequence,
  exr: openExr,
  prores4444: proRes4444,
  rle: runLength,
  movpng: pngInMov,
  webm,
  apng: animatedPng,
  webp: animatedWebp,
  gif,
  fillkey: fillAndKey,
  review: reviewCopy,
  still,
}

export const encoderOf = (format: DeliveryFormat): Encoder => ENCODERS[format]
