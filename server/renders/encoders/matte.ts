import type { FramePicture } from '../../../core/frame/engine'
import { readColour } from '../../../core/values/colour'
import type { Encoder } from './encoder'

/** Whole numbers of a picture as they are. */
export function numbersOf({ pixels, bits }: FramePicture): Uint8Array | Uint16Array {
  return bits === 8 ? pixels : new Uint16Array(pixels.buffer, pixels.byteOffset, pixels.byteLength / 2)
}

/** A premultiplied picture of integers with its colours laid over a matte colour; alpha stays. Black changes nothing. */
export function overMatte(picture: FramePicture, matte: string): FramePicture {
  const top = picture.bits === 8 ? 255 : 65535
  const under = readColour(matte)
    .slice(0, 3)
    .map((value) => value * top)
  if (under.every((value) => value === 0)) return picture
  const made = { ...picture, pixels: picture.pixels.slice() }
  const values = numbersOf(made)
  for (let at = 0; at < values.length; at += 4) {
    const clear = 1 - values[at + 3]! / top
    if (clear === 0) continue
    for (let c = 0; c < 3; c++) values[at + c] = Math.min(top, Math.round(values[at + c]! + under[c]! * clear))
  }
  return made
}

/** For deliveries whose alpha can be chosen. */
export const shownOverMatte: Encoder['shown'] = ({ options: { alpha, matte = '#000000' } }) =>
  Promise.resolve({ of: (picture) => (alpha === 'premultiplied' ? overMatte(picture, matte) : picture) })
