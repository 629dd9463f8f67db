import type { FramePicture } from '../../frame/engine'

// A horizontal line less than two lines high stands in one field of an interlaced picture only, and flickers at half the rate.
// Common practice, no published source.

/** The least length of what counts as a line, in px. */
const LENGTH = 16
/** Luma by which it stands out from above and below, of 255. */
const APART = 64

export interface ThinLine {
  y: number
  from: number
  to: number
}

/** Lines one pixel high, over a grey of 128: straight pixels of 8 bits. */
export function thinLines({ width, height, pixels }: FramePicture): ThinLine[] {
  const found: ThinLine[] = []
  const lumaOf = (y: number, into = new Float64Array(width)) => {
    for (let x = 0, at = y * width * 4; x < width; x++, at += 4) {
      const alpha = pixels[at + 3]!
      const own = 0.2126 * pixels[at]! + 0.7152 * pixels[at + 1]! + 0.0722 * pixels[at + 2]!
      into[x] = alpha === 0 ? 128 : 128 + ((own - 128) * alpha) / 255
    }
    return into
  }
  if (height < 3) return found
  let [before, row, after] = [lumaOf(0), lumaOf(1), lumaOf(2)]
  for (let y = 1; y < height - 1; y++) {
    if (y > 1) [before, row, after] = [row, after, lumaOf(y + 1, before)]
    let from = -1
    let side = 0
    for (let x = 0; x <= width; x++) {
      let now = 0
      if (x < width) {
        const above = row[x]! - before[x]!
        const below = row[x]! - after[x]!
        if (above > APART && below > APART) now = 1
        if (above < -APART && below < -APART) now = -1
      }
      if (now === side) continue
      if (side !== 0 && x - from >= LENGTH) found.push({ y, from, to: x })
      side = now
      from = x
    }
  }
  return found
}
