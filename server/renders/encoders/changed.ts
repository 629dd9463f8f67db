import type { FramePicture } from '../../../core/frame/engine'

// Animated PNG and WebP lay a rectangle of a picture over the one before: what stayed is not written again.

/** A rectangle of a picture, in px. */
export interface Part {
  left: number
  top: number
  width: number
  height: number
}

/** What of a picture differs from the one before, kept for the next. Pictures of one size, RGBA of 8 bits. */
export class Changes {
  private before: Buffer | null = null

  /**
   * The smallest rectangle that holds all that changed: the whole of the first picture, and one cell where nothing did, as every
   * frame is written. `cell`: px of which its left and its top are whole multiples. The picture's memory is kept: hand over a copy.
   */
  of({ width, height, pixels }: FramePicture, cell = 1): Part {
    const now = Buffer.from(pixels.buffer, pixels.byteOffset, pixels.byteLength)
    const { before } = this
    this.before = now
    if (!before) return { left: 0, top: 0, width, height }
    const row = width * 4
    const isSame = (y: number) => now.compare(before, y * row, (y + 1) * row, y * row, (y + 1) * row) === 0
    let top = 0
    while (top < height && isSame(top)) top++
    if (top === height) return { left: 0, top: 0, width: 1, height: 1 }
    let bottom = height
    while (isSame(bottom - 1)) bottom--
    let [left, right] = [width, 0]
    const [own, other] = [wordsOf(now), wordsOf(before)]
    for (let y = top, at = top * width; y < bottom; y++, at += width) {
      for (let x = 0; x < left; x++) if (own[at + x] !== other[at + x]) left = x
      for (let x = width - 1; x >= right; x--) if (own[at + x] !== other[at + x]) right = x + 1
    }
    left -= left % cell
    top -= top % cell
    return { left, top, width: right - left, height: bottom - top }
  }
}

/** A pixel in each word. */
const wordsOf = ({ buffer, byteOffset, byteLength }: Buffer) => new Uint32Array(buffer, byteOffset, byteLength / 4)
