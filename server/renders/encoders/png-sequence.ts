import { once } from 'node:events'
import { createWriteStream } from 'node:fs'
import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { finished } from 'node:stream/promises'
import sharp from 'sharp'
import yauzl from 'yauzl'
import { ZipFile } from 'yazl'
import type { FramePicture } from '../../../core/frame/engine'
import type { AlphaPlane, DecodedFile, DecodedFrame, Encoder, FilePlan, FrameWriter } from './encoder'

/** PNGs are packed already: the archive stores them as they are. */
const STORED = { compress: false }
const SRGB_RENDERING = { compressionLevel: 1, adaptiveFiltering: false }

/** One frame as a PNG file: straight alpha, 8 or 16 bits a channel. */
export async function encodePng({ width, height, bits, pixels }: FramePicture): Promise<Buffer> {
  if (bits === 8) {
    return sharp(pixels, { raw: { width, height, channels: 4 } })
      .png(SRGB_RENDERING)
      .toBuffer()
  }
  const values = new Uint16Array(pixels.buffer, pixels.byteOffset, pixels.byteLength / 2)
  return sharp(values, { raw: { width, height, channels: 4 } })
    .toColourspace('rgb16')
    .png(SRGB_RENDERING)
    .toBuffer()
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

const frameName = (stem: string, index: number) => `${stem}-${String(index).padStart(5, '0')}.png`

export const pngSequence: Encoder = {
  // A path that ends in .zip becomes an archive, any other a folder.
  open: async (plan) => (plan.path.endsWith('.zip') ? openArchive(plan) : openFolder(plan)),
  decode: async (plan) => {
    const first = await firstPng(plan)
    return { width: first.width, height: first.height, rate: null, frames: decodeAll(plan) }
  },
}

async function openArchive(plan: FilePlan): Promise<FrameWriter> {
  const zip = new ZipFile()
  const file = createWriteStream(plan.path)
  zip.outputStream.pipe(file)
  // A disk that is full says so here, whenever it likes; from then on every wait ends with it.
  const ended = finished(file)
  ended.catch(() => {})
  let index = plan.first
  return {
    write: async (picture) => {
      if (file.errored) throw file.errored
      zip.addBuffer(await encodePng(picture), frameName(plan.stem, index++), STORED)
      // yazl queues: wait while the disk is behind.
      if (file.writableNeedDrain) await Promise.race([once(file, 'drain'), ended])
    },
    close: async () => {
      zip.end()
      await ended
    },
    abort: async () => {
      file.destroy()
      await ended.catch(() => {})
    },
  }
}

async function openFolder(plan: FilePlan): Promise<FrameWriter> {
  await mkdir(plan.path, { recursive: true })
  let index = plan.first
  return {
    write: async (picture) => writeFile(join(plan.path, frameName(plan.stem, index++)), await encodePng(picture)),
    close: async () => {},
    abort: async () => {},
  }
}

async function firstPng(plan: FilePlan): Promise<FramePicture> {
  for await (const png of storedPngs(plan)) return decodePng(png)
  throw new Error('The sequence has no frame.')
}

async function* decodeAll(plan: FilePlan): DecodedFile['frames'] {
  for await (const png of storedPngs(plan)) {
    const { pixels, bits } = await decodePng(png)
    yield { alpha: alphaOf(pixels, bits), exact: pixels, colour: null } satisfies DecodedFrame
  }
}

/** The alpha channel of straight RGBA pixels, in their own integers. */
export function alphaOf(pixels: Uint8Array, bits: 8 | 16): AlphaPlane {
  const channels = bits === 8 ? pixels : new Uint16Array(pixels.buffer, pixels.byteOffset, pixels.byteLength / 2)
  const count = channels.length / 4
  const values = bits === 8 ? new Uint8Array(count) : new Uint16Array(count)
  for (let i = 0, at = 3; i < count; i++, at += 4) values[i] = channels[at]!
  return { values, top: bits === 8 ? 255 : 65535 }
}

async function* storedPngs(plan: FilePlan): AsyncGenerator<Buffer> {
  if (!plan.path.endsWith('.zip')) {
    const names = (await readdir(plan.path)).filter((name) => name.startsWith(`${plan.stem}-`)).sort()
    for (const name of names) yield readFile(join(plan.path, name))
    return
  }
  const zip = await yauzl.openPromise(plan.path)
  try {
    for await (const entry of zip.eachEntry()) {
      const parts: Buffer[] = []
      for await (const part of await zip.openReadStreamPromise(entry)) parts.push(part as Buffer)
      yield Buffer.concat(parts)
    }
  } finally {
    zip.close()
  }
}
