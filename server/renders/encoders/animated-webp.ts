import { open } from 'node:fs/promises'
import sharp from '../../pictures/fresh-sharp'
import { WaxError } from '../../../core/errors'
import type { Rate } from '../../../core/values/rate'
import { Lanes } from '../lanes'
import { writeAll } from '../write-all'
import type { Part } from './changed'
import { Changes } from './changed'
import { webpChunk, webpChunks } from './chunks'
import type { Encoder, FilePlan, FrameWriter, ReadFile } from './encoder'
import { kept } from './png'

// RFC 9649, 2.7: parts of pictures, as much as changed, that are each a lossless WebP of their own, one after the other. sharp would
// hold all of them in the memory at once.

export const animatedWebp: Encoder = { tags: null, open: openFile, read }

/** Within 3 % of libwebp's own method 4, which takes up to half as long again; methods 0 and 1 are up to twice as large. Measured on demo cards. */
const LOSSLESS = { lossless: true, effort: 2, exact: true }
/** Where a part begins is told in steps of two. */
const CELL = 2
/** The length of a RIFF file is told in 32 bits. */
const LARGEST = 2 ** 32 - 2

async function openFile(plan: FilePlan): Promise<FrameWriter> {
  const { width, height, rate } = plan
  const file = await open(plan.paths[0]!, 'w')
  let end = 0
  let index = 0
  const put = async (bytes: Buffer) => {
    if (end + bytes.length > LARGEST) {
      throw new WaxError(
        'file-too-large',
        'file',
        'A WebP file cannot be larger than 4 GB.',
        'Render fewer frames, at a smaller scale, or as another delivery.',
      )
    }
    await writeAll(file, bytes, end)
    end += bytes.length
  }
  await put(Buffer.concat([Buffer.from('RIFF\0\0\0\0WEBP', 'latin1'), extended(plan), animation()]))
  const changes = new Changes()
  const lanes = new Lanes<{ part: Part; whole: Buffer }>(async ({ part, whole }) => {
    const pictures = [...webpChunks(whole)].filter(({ type }) => ['VP8L', 'VP8 ', 'ALPH'].includes(type))
    const control = frameControl(part, shownFor(rate, index++))
    await put(webpChunk('ANMF', Buffer.concat([control, ...pictures.map(({ type, data }) => webpChunk(type, data))])))
  })
  return {
    write: (picture) => {
      const own = kept(picture)
      const part = changes.of(own, CELL)
      const encoded = sharp(own.pixels, { raw: { width, height, channels: 4 } })
        .extract(part)
        .webp(LOSSLESS)
        .toBuffer()
      return lanes.add(encoded.then((whole) => ({ part, whole })))
    },
    close: async () => {
      await lanes.end()
      const length = Buffer.alloc(4)
      length.writeUInt32LE(end - 8)
      await writeAll(file, length, 4)
      await file.close()
    },
    abort: () => file.close().catch(() => {}),
  }
}

/** Whole milliseconds: rounded so that the frames together last as long as they should. */
function shownFor({ numerator, denominator }: Rate, index: number): number {
  const at = (frame: number) => Math.round((frame * 1000 * denominator) / numerator)
  return at(index + 1) - at(index)
}

/** That it moves and has alpha, and its size. */
function extended({ width, height }: FilePlan): Buffer {
  const data = Buffer.alloc(10)
  data[0] = 0x10 | 0x02
  data.writeUIntLE(width - 1, 4, 3)
  data.writeUIntLE(height - 1, 7, 3)
  return webpChunk('VP8X', data)
}

/** Clear behind all, played without end. */
const animation = () => webpChunk('ANIM', Buffer.alloc(6))

/** A part in place of what was there before. */
function frameControl({ left, top, width, height }: Part, milliseconds: number): Buffer {
  const control = Buffer.alloc(16)
  control.writeUIntLE(left / CELL, 0, 3)
  control.writeUIntLE(top / CELL, 3, 3)
  control.writeUIntLE(width - 1, 6, 3)
  control.writeUIntLE(height - 1, 9, 3)
  control.writeUIntLE(milliseconds, 12, 3)
  control[15] = 0x02
  return control
}

async function read(plan: FilePlan): Promise<ReadFile> {
  const path = plan.paths[0]!
  const {
    width,
    height,
    pageHeight,
    pages = 1,
    delay = [],
    loop = 1,
  } = await sharp(path, { animated: true }).metadata()
  const tall = pageHeight ?? height
  const time = delay.reduce((sum, one) => sum + one, 0)
  return {
    ...{ width, height: tall, tags: null, timecode: null, stored: { kind: 'pixels', bits: 8 } },
    times: { each: delay.map((shown) => shown / 1000), plays: loop },
    // Whole milliseconds that were rounded from a rate stand for it.
    rate: delay.every((shown, i) => shown === shownFor(plan.rate, i))
      ? plan.rate
      : { numerator: delay.length * 1000, denominator: Math.max(1, time) },
    frames: pictures(path, { width, height: tall, pages }),
  }
}

/** Pixels that are decoded at once. */
const AT_ONCE = 32_000_000

async function* pictures(path: string, of: { width: number; height: number; pages: number }): ReadFile['frames'] {
  const bytes = of.width * of.height * 4
  // Each lot is read from the beginning: few of them are better than many.
  const lot = Math.max(1, Math.floor(AT_ONCE / (of.width * of.height)))
  for (let from = 0; from < of.pages; from += lot) {
    const count = Math.min(lot, of.pages - from)
    const all = await sharp(path, { page: from, pages: count }).toColourspace('srgb').ensureAlpha().raw().toBuffer()
    for (let i = 0; i < count; i++) {
      yield all.subarray(i * bytes, (i + 1) * bytes)
    }
  }
}
