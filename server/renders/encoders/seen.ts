import type { SeenPicture, StoredForm } from './encoder'
import { bytesOfPlanes, planeForm, seenInPlanes } from './planes'
import { seenInPixels } from './seen-pixels'

interface Size {
  width: number
  height: number
}

/** What is to be seen in a frame as it is stored. */
export function seenIn(raw: Uint8Array, stored: StoredForm, size: Size): SeenPicture {
  if (stored.kind === 'pixels') return seenInPixels(aligned(raw), { width: size.width, bits: stored.bits })
  const form = planeForm(stored.format)!
  const { key, full } = stored
  if (!key) return seenInPlanes(aligned(raw), size, form, full)
  const colours = bytesOfPlanes(size, form)
  const fill = seenInPlanes(aligned(raw.subarray(0, colours)), size, form, full)
  const { luma } = seenInPlanes(aligned(raw.subarray(colours)), size, planeForm(key.format)!)
  const alpha = (y: number) => ({ ...luma!(y), zero: key.zero, scale: 1 / key.span })
  return {
    ...fill,
    alpha,
    row(y, from, to) {
      const row = fill.row(y, from, to)
      const { values, at, zero, scale } = alpha(y)
      for (let x = from; x < to; x++) row[x * 4 + 3] = (values[at + x]! - zero) * scale
      return row
    },
  }
}

/** Wider numbers are read where they may begin. */
const aligned = (bytes: Uint8Array) => (bytes.byteOffset % 4 === 0 ? bytes : bytes.slice())
