// Bands in what should be smooth: how far a value stands still before it takes its next step. In a soft ramp of 8 bits these are
// the widths that the eye sees as edges (Mach bands); dithering breaks them up.

export interface Band {
  /** The longest stretch of one value between two steps of one, in px. */
  length: number
  /** Whether it lies along a row or a column. */
  along: 'row' | 'column'
  /** Its row, or its column. */
  at: number
  /** Where along it the stretch begins. */
  from: number
}

export interface BandOptions {
  along?: Band['along']
  /** Whether what was rounded does climb or fall from one pixel to another, by their places in the order of rows; where it stands still the value does so by right. */
  ramps?: (from: number, to: number) => boolean
  /** How many values each pixel has, and which of them is looked at. */
  channels?: number
  channel?: number
}

/**
 * The longest band of rows, or of columns, of whole numbers. Only what climbs or falls by one step at both of its ends counts: a
 * flat colour between two hard edges is no band, and neither is one that ends at the rim of the picture.
 */
export function longestBand(
  values: Uint8Array,
  width: number,
  height: number,
  { along = 'row', ramps = () => true, channels = 1, channel = 0 }: BandOptions = {},
): Band {
  const longest: Band = { length: 0, along, at: 0, from: 0 }
  // From line to line, and from pixel to pixel of a line.
  const [lines, length, next, step] = along === 'row' ? [height, width, width, 1] : [width, height, 1, width]
  for (let line = 0; line < lines; line++) {
    const start = line * next
    let at = start * channels + channel
    let before = values[at]!
    let from = 0
    // The step into the stretch; 0 where it is none of one.
    let into = 0
    for (let i = 1; i < length; i++) {
      at += step * channels
      const climbs = values[at]! - before
      if (climbs === 0) continue
      before += climbs
      const isSame = into !== 0 && climbs === into
      if (isSame && i - from > longest.length && ramps(start + from * step, start + (i - 1) * step))
        Object.assign(longest, { length: i - from, at: line, from })
      from = i
      into = Math.abs(climbs) === 1 ? climbs : 0
    }
  }
  return longest
}
