import type { Picture } from '../paint/pictures'
import type { TipDefinition } from './definition'

// A picture as the tip of a brush.

/** Whether a tip is a picture that was brought in: it is named by the picture's id. */
export const isOwnTip = (kind: string): boolean => kind.startsWith('picture-')

export const ownTip = (id: string, label = 'Own tip'): TipDefinition => ({
  kind: id,
  label,
  help: 'A picture that was brought in: its opaque parts, or, where all of it is opaque, its dark ones',
  law: 'What the picture covers, as large as it fits',
  starts: { spacing: 20 },
})

/**
 * How much each pixel of a square of `side` px covers, 0–1, row by row: of the picture's alpha, or, where all of it is opaque, of its
 * darkness (1 − BT.709 luma of the display values). It lies in the middle, as large as it fits, each pixel the mean of what it spans.
 */
export function ownRaster({ width, height, pixels }: Picture, side: number): Float32Array {
  const top = pixels.BYTES_PER_ELEMENT === 1 ? 255 : 65535
  const cover = new Float64Array(width * height)
  let opaque = true
  for (let i = 0; i < cover.length; i++) opaque &&= pixels[i * 4 + 3] === top
  for (let i = 0; i < cover.length; i++) {
    const [r, g, b, a] = [pixels[i * 4]!, pixels[i * 4 + 1]!, pixels[i * 4 + 2]!, pixels[i * 4 + 3]!]
    cover[i] = opaque ? 1 - (0.2126 * r + 0.7152 * g + 0.0722 * b) / top : a / top
  }
  // A pixel is left free all around: dabs cover nothing at their border.
  const room = side - 2
  const scale = Math.max(width, height) / room
  const [left, upper] = [(side - width / scale) / 2, (side - height / scale) / 2]
  return Float32Array.from({ length: side * side }, (_, k) => {
    const [x, y] = [k % side, Math.floor(k / side)]
    if (x === 0 || y === 0 || x === side - 1 || y === side - 1) return 0
    return meanOf(cover, width, height, (x - left) * scale, (y - upper) * scale, scale)
  })
}

/** The mean over a square of a plane; what lies beyond it is 0. */
function meanOf(plane: Float64Array, w: number, h: number, x0: number, y0: number, size: number): number {
  let sum = 0
  for (let y = Math.max(0, Math.floor(y0)); y < Math.min(h, Math.ceil(y0 + size)); y++) {
    const down = Math.min(y + 1, y0 + size) - Math.max(y, y0)
    for (let x = Math.max(0, Math.floor(x0)); x < Math.min(w, Math.ceil(x0 + size)); x++) {
      sum += plane[y * w + x]! * down * (Math.min(x + 1, x0 + size) - Math.max(x, x0))
    }
  }
  return sum / (size * size)
}
