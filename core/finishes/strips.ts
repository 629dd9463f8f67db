import type { Kernels, Picture } from '../kernels/kernels'

/** Pixels worked on at once: they stay in the processor's cache from one operation to the next. */
const STRIP = 16_384

/** A picture in strips of a few whole rows each. */
export function* rowsOf(kernels: Kernels, picture: Picture): Generator<Picture> {
  const { w, h, box } = picture
  const step = Math.max(4, Math.floor(STRIP / w))
  for (let y = 0; y < h; y += step) yield rowsFrom(kernels, picture, box.y + y, Math.min(step, h - y))
}

/** Some rows of a picture, from a row of the card on. */
export function rowsFrom(kernels: Kernels, picture: Picture, y: number, h: number): Picture {
  const { w, box } = picture
  return { ...kernels.window(picture, 0, y - box.y, w, h), box: { x: box.x, y, w, h } }
}
