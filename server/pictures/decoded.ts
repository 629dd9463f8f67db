import sharp from 'sharp'
import { toDisplay } from '../../core/values/oklab'
import type { Picture } from '../../core/paint/pictures'
import type { PngLight } from './png-light'

/** Values that are looked up at once: some milliseconds. */
const AT_ONCE = 4 * 500_000

/** The values of a picture file as deep as they are, straight RGBA; 16 bits keep what linear light needs in the dark. */
export async function decodedValues(bytes: Uint8Array | string, isDeep: boolean): Promise<Picture> {
  const decoded = sharp(bytes).autoOrient()
  const { data, info } = await (
    isDeep
      ? decoded.toColourspace('rgb16').ensureAlpha().raw({ depth: 'ushort' })
      : decoded.toColourspace('srgb').ensureAlpha().raw({ depth: 'uchar' })
  ).toBuffer({ resolveWithObject: true })
  const pixels = isDeep
    ? new Uint16Array(data.buffer, data.byteOffset, data.byteLength / 2)
    : new Uint8Array(data.buffer, data.byteOffset, data.byteLength)
  return { width: info.width, height: info.height, pixels }
}

/** Display-encoded sRGB of so many bits from 8- or 16-bit values of another light; alpha is alpha. */
export async function displayed(
  values: Uint8Array | Uint16Array,
  { gamma }: PngLight,
  bits: 8 | 16,
): Promise<Uint8Array | Uint16Array> {
  const top = values.BYTES_PER_ELEMENT === 1 ? 255 : 65535
  const most = bits === 8 ? 255 : 65535
  const empty = (count: number) => (bits === 8 ? new Uint8Array(count) : new Uint16Array(count))
  const [table, alpha] = [empty(top + 1), empty(top + 1)]
  for (let v = 0; v <= top; v++) {
    table[v] = Math.round(toDisplay((v / top) ** gamma) * most)
    alpha[v] = Math.round((v / top) * most)
  }
  const pixels = empty(values.length)
  for (let i = 0; i < pixels.length; i += 4) {
    // Others are answered meanwhile.
    if (i % AT_ONCE === 0) await new Promise(setImmediate)
    pixels[i] = table[values[i]!]!
    pixels[i + 1] = table[values[i + 1]!]!
    pixels[i + 2] = table[values[i + 2]!]!
    pixels[i + 3] = alpha[values[i + 3]!]!
  }
  return pixels
}
