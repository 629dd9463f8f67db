import type { Hash } from 'node:crypto'
import { createHash } from 'node:crypto'
import sharp from 'sharp'
import { toDisplay } from '../../core/values/oklab'
import { WaxError } from '../../core/errors'
import type { Picture } from '../../core/paint/pictures'
import { MOST_PIXELS } from '../../core/paint/pictures'
import type { PngLight } from './png-light'
import { pngLight } from './png-light'
import { inTurn } from './turns'

export const LARGEST_PICTURE_BYTES = 60 * 1024 * 1024

/** A picture that somebody brought, checked and decoded. */
export interface OwnPicture {
  id: string
  fileName: string
  picture: Picture
}

/**
 * Decodes a PNG, JPEG or WebP file, one at a time; throws a WaxError where it is none or too large. The id is made from the
 * bytes of the file.
 */
export const readOwnPicture = (bytes: Uint8Array, fileName: string): Promise<OwnPicture> =>
  inTurn(() => decodedPicture(bytes, fileName))

/** The id that an older application gave a picture: it was made from its pixels. */
export const formerId = ({ width, pixels }: Picture): string =>
  idOf(createHash('sha256').update(`${width} `).update(pixels))

const idOf = (hash: Hash): string => `picture-${hash.digest('hex').slice(0, 16)}`

async function decodedPicture(bytes: Uint8Array, fileName: string): Promise<OwnPicture> {
  if (bytes.length > LARGEST_PICTURE_BYTES) {
    const size = Math.round(bytes.length / 1024 / 1024)
    throw new WaxError('picture-too-large', fileName, `The file has ${size} MB.`, 'Pictures may have up to 60 MB.')
  }
  const { format, width, height, bitsPerSample } = await metadataOf(bytes, fileName)
  if (!['png', 'jpeg', 'webp'].includes(format)) {
    throw new WaxError(
      'not-a-picture',
      fileName,
      `A file of type ${format} is not read here.`,
      'Use PNG, JPEG or WebP.',
    )
  }
  // Asked before a pixel is decoded: a small file can hold a huge picture.
  if (width * height > MOST_PIXELS) {
    throw new WaxError(
      'picture-too-large',
      fileName,
      `The picture has ${width}×${height} px.`,
      `Pictures may have up to ${MOST_PIXELS / 1_000_000} million pixels: make it smaller.`,
    )
  }
  const light = format === 'png' ? pngLight(bytes) : null
  const decoded = sharp(bytes).autoOrient()
  // The file's own values, as deep as they are: 16 bits keep what linear light needs in the dark.
  const isDeep = light !== null && bitsPerSample === 16
  const { data, info } = await (
    isDeep
      ? decoded.toColourspace('rgb16').ensureAlpha().raw({ depth: 'ushort' })
      : decoded.toColourspace('srgb').ensureAlpha().raw({ depth: 'uchar' })
  )
    .toBuffer({ resolveWithObject: true })
    .catch(() => {
      throw notAPicture(fileName)
    })
  const values = isDeep
    ? new Uint16Array(data.buffer, data.byteOffset, data.byteLength / 2)
    : new Uint8Array(data.buffer, data.byteOffset, data.byteLength)
  const pixels = light ? await displayed(values, light) : (values as Uint8Array)
  return {
    id: idOf(createHash('sha256').update(bytes)),
    fileName,
    picture: { width: info.width, height: info.height, pixels },
  }
}

/** Values that are looked up at once: some milliseconds. */
const AT_ONCE = 4 * 500_000

/** Display-encoded sRGB of 8 bits from 8- or 16-bit values of another light; alpha is alpha. */
async function displayed(values: Uint8Array | Uint16Array, { gamma }: PngLight): Promise<Uint8Array> {
  const top = values.BYTES_PER_ELEMENT === 1 ? 255 : 65535
  const table = Uint8Array.from({ length: top + 1 }, (_, v) => Math.round(toDisplay((v / top) ** gamma) * 255))
  const alpha = Uint8Array.from({ length: top + 1 }, (_, v) => Math.round((v / top) * 255))
  const pixels = new Uint8Array(values.length)
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

async function metadataOf(bytes: Uint8Array, fileName: string) {
  try {
    const { format = '', width = 0, height = 0, bitsPerSample = 8 } = await sharp(bytes).metadata()
    return { format, width, height, bitsPerSample }
  } catch {
    throw notAPicture(fileName)
  }
}

const notAPicture = (fileName: string) =>
  new WaxError(
    'not-a-picture',
    fileName,
    'This file holds no picture that can be read.',
    'Use a PNG, JPEG or WebP file.',
  )
