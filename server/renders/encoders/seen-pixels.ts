import type { FramePicture } from '../../../core/frame/engine'
import type { SeenPicture } from './encoder'

/** Pixels of RGBA as numbers of 0–1. */
export function seenInPixels(pixels: Uint8Array, { width, bits }: Pick<FramePicture, 'width' | 'bits'>): SeenPicture {
  const values =
    bits === 8
      ? pixels
      : bits === 16
        ? new Uint16Array(pixels.buffer, pixels.byteOffset, pixels.byteLength / 2)
        : new Float32Array(pixels.buffer, pixels.byteOffset, pixels.byteLength / 4)
  const scale = { 8: 1 / 255, 16: 1 / 65_535, half: 1, float: 1 }[bits]
  const row = new Float32Array(width * 4)
  return {
    row(y, from, to) {
      for (let i = from * 4, at = (y * width + from) * 4; i < to * 4; i++, at++) row[i] = values[at]! * scale
      return row
    },
    alpha: (y) => ({ values, at: y * width * 4 + 3, stride: 4, zero: 0, scale }),
    luma: null,
  }
}
