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
  return { ...fill, alpha: (y) => ({ ...luma!(y), zero: key.zero, scale: 1 / key.span }) }
}

/** Wider numbers are read where they may begin. */
const aligned = (bytes: Uint8Array) => (bytes.byteOffset % 4 === 0 ? bytes : bytes.slice())
