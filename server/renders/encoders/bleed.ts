import type { FramePicture } from '../../../core/frame/engine'

/** A macroblock: what codecs that round look at together, and whole for those that keep a colour for four pixels. */
const BLOCK = 16

/**
 * A straight picture of 8 bits whose clear pixels have the colour of what is seen beside them instead of black. A codec that keeps
 * a colour for several pixels, and rounds, mixes it into the edges, where a dark rim would show. Alpha stays.
 */
export function bled(picture: FramePicture): FramePicture {
  const { width, height } = picture
  const pixels = picture.pixels.slice()
  const words = new Uint32Array(pixels.buffer)
  for (let top = 0; top < height; top += BLOCK) {
    const foot = Math.min(height, top + BLOCK)
    for (let left = 0; left < width; left += BLOCK)
      fillBlock(pixels, words, width, { top, foot, left, right: Math.min(width, left + BLOCK) })
  }
  return { ...picture, pixels }
}

interface Block {
  top: number
  foot: number
  left: number
  right: number
}

function fillBlock(pixels: Uint8Array, words: Uint32Array, width: number, { top, foot, left, right }: Block): void {
  let [red, green, blue, alpha, empty] = [0, 0, 0, 0, 0]
  for (let y = top; y < foot; y++) {
    for (let i = y * width + left; i < y * width + right; i++) {
      if (words[i] === 0) {
        empty++
        continue
      }
      const at = i * 4
      const cover = pixels[at + 3]!
      red += pixels[at]! * cover
      green += pixels[at + 1]! * cover
      blue += pixels[at + 2]! * cover
      alpha += cover
    }
  }
  if (empty === 0 || alpha === 0) return
  // Red is the lowest byte: pixels are little-endian.
  const mean = Math.round(red / alpha) | (Math.round(green / alpha) << 8) | (Math.round(blue / alpha) << 16)
  for (let y = top; y < foot; y++) {
    for (let i = y * width + left; i < y * width + right; i++) if (words[i] === 0) words[i] = mean
  }
}
