import sharp from 'sharp'
import type { FramePicture } from '../../../core/frame/engine'
import type { Part } from './changed'
import { pngChunk, pngChunks } from './chunks'

const FAST = { compressionLevel: 1, adaptiveFiltering: false }

/** One frame as a PNG file: straight alpha, 8 or 16 bits a channel; or fewer channels of 16 bits: 1 grey, 3 RGB. */
export async function encodePng(
  { width, height, bits, pixels }: FramePicture,
  channels: 1 | 3 | 4 = 4,
): Promise<Buffer> {
  if (bits === 8) {
    return saidSrgb(await sharp(pixels, { raw: { width, height, channels } }).png(FAST).toBuffer())
  }
  const values = new Uint16Array(pixels.buffer, pixels.byteOffset, pixels.byteLength / 2)
  const png = await sharp(values, { raw: { width, height, channels } })
    .toColourspace(channels === 1 ? 'grey16' : 'rgb16')
    .png(FAST)
    .toBuffer()
  return saidSrgb(png)
}

/** A third to a half of what the fast way makes, in two to four times its time; from here on it gains little. Measured on demo cards. */
const SMALL = { compressionLevel: 4, adaptiveFiltering: true }

/** A part of a frame of 8 bits as a PNG file by itself, made small. */
export const encodePngPart = ({ width, height, pixels }: FramePicture, part: Part): Promise<Buffer> =>
  sharp(pixels, { raw: { width, height, channels: 4 } })
    .extract(part)
    .png(SMALL)
    .toBuffer()

/** The signature and the header chunk of a PNG file (W3C PNG, 5.2, 11.2.1). */
const HEAD = 8 + 12 + 13

/** Says that the values are those of sRGB (W3C PNG, 11.3.2.5), and nothing of a size in print, which nobody meant. */
function saidSrgb(png: Buffer): Buffer {
  const rest = [...pngChunks(png)].filter(({ type }) => !['IHDR', 'sRGB', 'pHYs', 'gAMA', 'cHRM'].includes(type))
  const chunks = [{ type: 'sRGB', data: Buffer.of(0) }, ...rest].map(({ type, data }) => pngChunk(type, data))
  return Buffer.concat([png.subarray(0, HEAD), ...chunks])
}

/** The straight pixels of a PNG file, RGBA; 16-bit values little-endian. */
export async function decodePng(png: Buffer): Promise<FramePicture> {
  const { bitsPerSample } = await sharp(png).metadata()
  const bits = bitsPerSample === 16 ? 16 : 8
  const image = sharp(png).ensureAlpha()
  const raw =
    bits === 16
      ? image.toColourspace('rgb16').raw({ depth: 'ushort' })
      : image.toColourspace('srgb').raw({ depth: 'uchar' })
  const { data, info } = await raw.toBuffer({ resolveWithObject: true })
  const pixels = new Uint8Array(new Uint8Array(data.buffer, data.byteOffset, data.byteLength))
  return { width: info.width, height: info.height, bits, pixels }
}

/** A picture whose pixels stay, while those of the one that was handed over are used again. */
export const kept = (picture: FramePicture): FramePicture => ({ ...picture, pixels: picture.pixels.slice() })
