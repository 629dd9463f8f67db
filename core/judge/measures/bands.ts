// Bands in what should be smooth: how far a value stands still before it takes its next step. In a soft ramp of 8 bits these are
// the widths that the eye sees as edges (Mach bands); dithering breaks them up.

export interface Band {
  /** The longest stretch of one value between two steps of one, in px. */
  length: number
  row: number
  from: number
}

export interface BandOptions {
  /** Whether what was rounded does climb or fall from one pixel to another of a row; where it stands still the value does so by right. */
  ramps?: (from: number, to: number) => boolean
  /** How many values each pixel has, and which of them is looked at. */
  channels?: number
  channel?: number
}

/**
 * The longest band of rows of whole numbers. Only what climbs or falls by one step at both of its ends counts: a flat colour
 * between two hard edges is no band, and neither is one that ends at the rim of the picture.
 */
export function longestBand(
  values: Uint8Array,
  width: number,
  height: number,
  { ramps = () => true, channels = 1, channel = 0 }: BandOptions = {},
): Band {
  const longest: Band = { length: 0, row: 0, from: 0 }
  for (let row = 0; row < height; row++) {
    const start = row * width
    let at = start * channels + channel
    let before = values[at]!
    let from = 0
    // The step into the stretch; 0 where it is none of one.
    let into = 0
    for (let x = 1; x < width; x++) {
      at += channels
      const step = values[at]! - before
      if (step === 0) continue
      before += step
      const isSame = into !== 0 && step === into
      if (isSame && x - from > longest.length && ramps(start + from, start + x - 1))
        Object.assign(longest, { length: x - from, row, from })
      from = x
      into = Math.abs(step) === 1 ? step : 0
    }
  }
  return longest
}
