import type { FramePicture } from '../../frame/engine'
import type { Px } from '../../units'

// A horizontal line less than two lines high stands more in one field of an interlaced picture than in the other, and flickers at
// half the rate. Common practice, no published source.

/** The least length of what counts as a line, in px. */
const LENGTH = 16
/** What one field shows of it more than the other, in luma of 255: a line 1.5 px high flickers half as much as one of 1 px. */
const FLICKERS = 64

export interface ThinLine {
  /** Its strongest row. */
  y: number
  from: number
  to: number
  /** By what its rows cover: 1.5 for one that is full beside one of half the strength. */
  height: Px
}

/** Lines less than two pixels high, over a grey of 128: straight pixels of 8 bits. */
export function thinLines({ width, height, pixels }: FramePicture): ThinLine[] {
  const found: ThinLine[] = []
  const lumaOf = (y: number, into = new Float64Array(width)) => {
    // Beyond the rim it goes on as it ends.
    for (let x = 0, at = Math.min(height - 1, Math.max(0, y)) * width * 4; x < width; x++, at += 4) {
      const alpha = pixels[at + 3]!
      const own = 0.2126 * pixels[at]! + 0.7152 * pixels[at + 1]! + 0.0722 * pixels[at + 2]!
      into[x] = alpha === 0 ? 128 : 128 + ((own - 128) * alpha) / 255
    }
    return into
  }
  const rows = [-2, -1, 0, 1, 2].map((y) => lumaOf(y))
  for (let y = 0; y < height; y++) {
    if (y > 0) rows.push(lumaOf(y + 2, rows.shift()))
    let from = -1
    // 1 for a light line, -1 for a dark one, 0 for none.
    let side = 0
    let sum = 0
    for (let x = 0; x <= width; x++) {
      const high = x < width ? heightAt(rows, x) : 0
      const now = Math.sign(high)
      if (now !== side) {
        if (side !== 0 && x - from >= LENGTH) found.push({ y, from, to: x, height: Math.abs(sum) / (x - from) })
        side = now
        from = x
        sum = 0
      }
      sum += high
    }
  }
  return found
}

/** How high the line is that is strongest in the middle of five rows; negative for a dark one, 0 for none that is thin. */
function heightAt([above, before, row, after, below]: Float64Array[], x: number): number {
  const own = row![x]!
  // What it lies on: the row beside it, or the next one where that is half of the line.
  const light = own - Math.max(Math.min(above![x]!, before![x]!), Math.min(after![x]!, below![x]!))
  const dark = own - Math.min(Math.max(above![x]!, before![x]!), Math.max(after![x]!, below![x]!))
  const [strength, side] = light > FLICKERS ? [light, 1] : dark < -FLICKERS ? [dark, -1] : [0, 0]
  if (side === 0) return 0
  const share = (luma: number) => Math.min(1, Math.max(0, (luma - own + strength) / strength))
  const high = 1 + share(before![x]!) + share(after![x]!)
  return (2 - high) * Math.abs(strength) <= FLICKERS ? 0 : side * high
}
