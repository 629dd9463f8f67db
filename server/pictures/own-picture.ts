import type { Hash } from 'node:crypto'
import { createHash } from 'node:crypto'
import sharp from 'sharp'
import { WaxError } from '../../core/errors'
import { sizeAllowed } from '../rim/sizes'
import type { Picture } from '../../core/paint/pictures'
import { MOST_PIXELS } from '../../core/paint/pictures'
import { decodedValues, displayed } from './decoded'
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
  const { most, fault } = sizeAllowed('picture', LARGEST_PICTURE_BYTES, fileName)
  if (bytes.length > most) {
    const size = Math.round(bytes.length / 1024 / 1024)
    throw new WaxError(fault.code, fileName, `The file has ${size} MB.`, fault.remedy)
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
  const isDeep = light !== null && bitsPerSample === 16
  const decoded = await decodedValues(bytes, isDeep).catch(() => {
    throw notAPicture(fileName)
  })
  const pixels = light ? await displayed(decoded.pixels, light, 8) : decoded.pixels
  return {
    id: idOf(createHash('sha256').update(bytes)),
    fileName,
    picture: { ...decoded, pixels },
  }
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
