import { createWriteStream } from 'node:fs'
import { mkdir, readFile, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { Readable } from 'node:stream'
import type { FramePicture } from '../../../core/frame/engine'
import { probe, rawFrames } from '../ffmpeg'
import type { Encoder, FilePlan, FrameWriter, ReadFile } from './encoder'
import { withFacts } from './exr-header'
import { filesIn, frameName, numberedFiles, numbersIn } from './numbered-files'
import { pipeInto, rawInput } from './piped'

// OpenEXR holds linear light, premultiplied (Technical Introduction to OpenEXR, "Scene-linear", "Alpha"); without a chromaticity
// of its own its primaries are those of BT.709. ffmpeg takes planes of 32-bit numbers and rounds to half: what was rounded
// already goes through unchanged.

export const openExr: Encoder = {
  tags: null,
  shown: () => Promise.resolve({ of: (picture) => (picture.bits === 'half' ? widened(picture) : picture) }),
  open,
  read,
}

const INSIDE = '%06d.exr'

async function open(plan: FilePlan): Promise<FrameWriter> {
  const path = plan.paths[0]!
  const folder = `${path}.frames`
  await rm(folder, { force: true, recursive: true })
  await mkdir(folder, { recursive: true })
  const numbers = plan.form.bits === 'half' ? 'half' : 'float'
  const encoder = pipeInto(
    [
      ...rawInput(plan, 'gbrapf32le'),
      ...['-c:v', 'exr', '-format', numbers, '-compression', 'zip16'],
      ...['-f', 'image2', '-start_number', '0', '-y', join(folder, INSIDE)],
    ],
    planes(plan),
  )
  return {
    write: (picture) => encoder.write(picture),
    close: async () => {
      await encoder.close()
      const files = await numberedFiles(path)
      try {
        for (let i = 0; i < plan.frames; i++) {
          const from = join(folder, String(i).padStart(6, '0') + '.exr')
          const number = plan.first + i
          await files.add(frameName(plan.stem, number, '.exr'), withFacts(await readFile(from), plan.rate, number))
          await rm(from)
        }
        await files.close()
      } catch (error) {
        await files.abort()
        throw error
      }
      await rm(folder, { recursive: true })
    },
    abort: async () => {
      await encoder.abort()
      await rm(folder, { force: true, recursive: true })
    },
  }
}

async function read(plan: FilePlan): Promise<ReadFile> {
  const path = plan.paths[0]!
  const folder = `${path}.read`
  await rm(folder, { force: true, recursive: true })
  await mkdir(folder, { recursive: true })
  try {
    let count = 0
    for await (const file of filesIn(path, '.exr')) {
      await pipeline(Readable.from([file]), createWriteStream(join(folder, String(count++).padStart(6, '0') + '.exr')))
    }
    const { width, height } = await probe(join(folder, INSIDE), ['-f', 'image2', '-start_number', '0'])
    const stored = { kind: 'pixels', bits: 'float' } as const
    const frames = pictures(folder, width, height)
    const numbers = await numbersIn(path, '.exr')
    return { width, height, rate: null, tags: null, timecode: null, numbers, stored, frames }
  } catch (error) {
    await rm(folder, { force: true, recursive: true })
    throw error
  }
}

async function* pictures(folder: string, width: number, height: number): ReadFile['frames'] {
  const input = ['-f', 'image2', '-start_number', '0']
  const pixels = new Float32Array(width * height * 4)
  const bytes = new Uint8Array(pixels.buffer)
  try {
    for await (const frame of rawFrames(join(folder, INSIDE), 'gbrapf32le', width * height * 16, input)) {
      const planes = new Float32Array(frame.buffer, frame.byteOffset, frame.byteLength / 4)
      const count = width * height
      for (let i = 0, at = 0; i < count; i++, at += 4) {
        pixels[at] = planes[2 * count + i]!
        pixels[at + 1] = planes[i]!
        pixels[at + 2] = planes[count + i]!
        pixels[at + 3] = planes[3 * count + i]!
      }
      yield bytes
    }
  } finally {
    await rm(folder, { force: true, recursive: true })
  }
}

/** Green, blue, red and alpha, one after the other, of numbers of 32 bits. The bytes are used again. */
function planes({ width, height }: FilePlan): (picture: FramePicture) => Uint8Array {
  const count = width * height
  const out = new Float32Array(count * 4)
  return ({ pixels }) => {
    const rgba = new Float32Array(pixels.buffer, pixels.byteOffset, count * 4)
    for (let i = 0, at = 0; i < count; i++, at += 4) {
      out[i] = rgba[at + 1]!
      out[count + i] = rgba[at + 2]!
      out[2 * count + i] = rgba[at]!
      out[3 * count + i] = rgba[at + 3]!
    }
    return new Uint8Array(out.buffer)
  }
}

/** Every number of IEEE 754 binary16 by its bits. */
const HALF = Float32Array.from({ length: 65_536 }, (_, bits) => {
  const sign = bits & 0x8000 ? -1 : 1
  const exponent = (bits >> 10) & 31
  const fraction = bits & 1023
  if (exponent === 31) return fraction ? NaN : sign * Infinity
  return sign * (exponent === 0 ? fraction * 2 ** -24 : (1 + fraction / 1024) * 2 ** (exponent - 15))
})

/** The same numbers in 32 bits. */
export function widened({ width, height, pixels }: FramePicture): FramePicture {
  const halves = new Uint16Array(pixels.buffer, pixels.byteOffset, pixels.byteLength / 2)
  const wide = new Float32Array(halves.length)
  for (let i = 0; i < halves.length; i++) wide[i] = HALF[halves[i]!]!
  return { width, height, bits: 'float', pixels: new Uint8Array(wide.buffer) }
}
