import type { FramePicture } from '../../frame/engine'

const DARK = 40
const LIGHT = 215

/**
 * The levels of 8 bits over black as stripes, every other one dark: above as they are when they are rounded, below as they are
 * delivered, dithered. Long stripes are bands; what is grained does not show any. `exact` is the same frame in floats.
 */
export function bandingPicture(picture: FramePicture, exact: FramePicture): FramePicture {
  const { width, height } = picture
  const made = new Uint8Array(width * height * 8).fill(255)
  const numbers = new Float32Array(exact.pixels.buffer, exact.pixels.byteOffset, exact.pixels.byteLength / 4)
  const draw = (values: ArrayLike<number>, scale: number, from: number) => {
    for (let at = 0; at < width * height * 4; at += 4) {
      const alpha = values[at + 3]! * scale
      const luma = (0.2126 * values[at]! + 0.7152 * values[at + 1]! + 0.0722 * values[at + 2]!) * scale
      // What is clear and what is white as a whole stay plain.
      const level = Math.round(luma * alpha * 255)
      made.fill(alpha === 0 ? 0 : level % 2 === 0 ? DARK : LIGHT, from + at, from + at + 3)
    }
  }
  draw(numbers, 1, 0)
  draw(picture.pixels, 1 / 255, width * height * 4)
  return { width, height: height * 2, bits: 8, pixels: made }
}
