import type { FramePicture } from '../../frame/engine'
import type { Px } from '../../units'

/** Rows of a picture, [top, bottom). */
export interface Rows {
  top: Px
  bottom: Px
}

/** The rows in which something is seen, and so many clear ones around them. Straight or premultiplied pixels of 8 bits; none where all is clear. */
export function inkRows({ width, height, pixels }: FramePicture, margin: Px): Rows {
  const hasInk = (row: number) => {
    for (let at = row * width * 4 + 3, end = at + width * 4; at < end; at += 4) if (pixels[at]! > 0) return true
    return false
  }
  let top = 0
  while (top < height && !hasInk(top)) top++
  if (top === height) return { top: 0, bottom: 0 }
  let bottom = height
  while (!hasInk(bottom - 1)) bottom--
  return { top: Math.max(0, top - margin), bottom: Math.min(height, bottom + margin) }
}

/** Those rows as a picture of their own, over the same memory. */
export function onlyRows(picture: FramePicture, { top, bottom }: Rows): FramePicture {
  const { width, height, pixels } = picture
  const row = pixels.length / height
  return { ...picture, width, height: bottom - top, pixels: pixels.subarray(top * row, bottom * row) }
}
