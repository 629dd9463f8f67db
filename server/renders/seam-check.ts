import type { FilePlan, SeenPicture } from './encoders/encoder'
import type { CheckResult } from './report'

/** How far the step over the seam may be from that of the frames, in steps of 8 bits: what codecs change of either end. */
const STEP = 1

/** A frame over black as it is read, and as it was meant: premultiplied RGBA of 8 bits. */
export interface SeamPicture {
  read: Uint8Array
  meant: Uint8Array
}

export const seamPicture = (meant: SeenPicture, read: SeenPicture, { width, height }: FilePlan): SeamPicture => ({
  read: bytesOf(read, width, height),
  meant: bytesOf(meant, width, height),
})

/** Holds the step from the last frame to the first, as it is read, against that of the frames. */
export function seamCheck(first: SeamPicture, last: SeamPicture): CheckResult {
  const read = step(last.read, first.read)
  const meant = step(last.meant, first.meant)
  const words = (value: number) => `a step of ${value.toFixed(2)} of 255`
  return {
    ...{ name: 'seam', label: 'Seam, last to first', found: words(read), expected: words(meant) },
    passed: Math.abs(read - meant) <= STEP,
  }
}

function bytesOf({ row, alpha }: SeenPicture, width: number, height: number): Uint8Array {
  const bytes = new Uint8ClampedArray(width * height * 4)
  for (let y = 0; y < height; y++) {
    const colours = row(y, 0, width)
    const stored = alpha?.(y)
    // Premultiplied: what is not seen does not count.
    for (let i = 0, at = y * width * 4; i < width * 4; i += 4, at += 4) {
      const cover = stored ? (stored.values[stored.at + (i / 4) * stored.stride]! - stored.zero) * stored.scale : 1
      for (let c = 0; c < 3; c++) bytes[at + c] = colours[i + c]! * cover * 255
      bytes[at + 3] = cover * 255
    }
  }
  return new Uint8Array(bytes.buffer)
}

function step(one: Uint8Array, other: Uint8Array): number {
  let sum = 0
  for (let i = 0; i < one.length; i++) sum += Math.abs(one[i]! - other[i]!)
  return sum / one.length
}
