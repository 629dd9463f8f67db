import type { HeldValues } from '../../../core/kernels/hold'
import type { StoredRow } from './encoder'

// Most of a title's frame is clear: rows of which nothing is seen are found fast, and left out of what is done with the others.

const NOTHING = Buffer.alloc(8192 * 16)

/** Whether numbers in a row are all 0. Compared as bytes: most of a title's frame is. */
export function isZero(values: HeldValues, at: number, count: number): boolean {
  const size = values.BYTES_PER_ELEMENT
  const bytes = Buffer.from(values.buffer, values.byteOffset + at * size, count * size)
  return bytes.compare(NOTHING, 0, bytes.length) === 0
}

/** Whether nothing is seen of a row: its alpha is stored as what stands for clear. */
export const isClear = ({ values, at, stride, zero }: StoredRow, width: number): boolean => {
  if (zero === 0) return stride === 1 ? isZero(values, at, width) : isZero(values, at + 1 - stride, width * stride)
  // A key has a level of its own for what is clear. At the first that is another one it is over.
  for (let x = 0, i = at; x < width; x++, i += stride) if (values[i] !== zero) return false
  return true
}
