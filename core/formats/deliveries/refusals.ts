import type { Fault } from '../../errors'
import { rateLabel } from '../../values/rate'
import type { Measure } from './delivery'

// What a format cannot carry, said before the first frame is made.

const refused = (place: string, message: string, remedy: string): Fault => ({
  code: 'cannot-carry',
  place,
  message,
  remedy,
})

/** A format whose sides, or whose whole picture, have a limit. */
export function tooLarge({ width, height }: Measure, name: string, side: number, area = Infinity): Fault | null {
  if (Math.max(width, height) <= side && width * height <= area) return null
  const most =
    area === Infinity ? `${side} px a side` : `${side} px a side and ${(area / 1e6).toFixed(0)} million pixels`
  return refused(
    'frame',
    `${name} cannot carry ${width}×${height} px: it takes at most ${most}.`,
    'Render at a smaller scale, or as another delivery.',
  )
}

/** Formats that keep colour for two pixels at once. */
export function oddSides({ width, height }: Measure, name: string, both: boolean): Fault | null {
  if (width % 2 === 0 && (!both || height % 2 === 0)) return null
  return refused(
    'frame',
    `${name} needs ${both ? 'even sides' : 'an even width'}, and the picture has ${width}×${height} px.`,
    'Give the card an even size, or choose another delivery.',
  )
}

/** GIF counts the time of a picture in hundredths of a second (GIF89a, Delay Time). */
export function unevenHundredths({ rate }: Measure): Fault | null {
  if ((100 * rate.denominator) % rate.numerator === 0) return null
  return refused(
    'rate',
    `GIF counts in hundredths of a second: ${rateLabel(rate)} pictures a second cannot be kept.`,
    'Use 25 or 50 pictures a second, or animated WebP or APNG, which take any rate.',
  )
}

/** Programs show pictures that follow faster as if they were slow (common practice of browsers, no published source). */
export const fastestOf = ({ rate }: Measure, name: string, most: number): Fault | null =>
  rate.numerator / rate.denominator <= most
    ? null
    : refused(
        'rate',
        `${name} is shown at ${most} pictures a second at the most; the card has ${rateLabel(rate)}.`,
        'Choose another delivery, or a slower card.',
      )
