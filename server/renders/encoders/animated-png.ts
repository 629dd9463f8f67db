import { open } from 'node:fs/promises'
import { Lanes } from '../lanes'
import { writeAll } from '../write-all'
import { pngChunk, pngChunks } from './chunks'
import type { Encoder, FilePlan, FrameWriter } from './encoder'
import { readRgba } from './movie'
import type { Part } from './changed'
import { Changes } from './changed'
import { encodePngPart, kept } from './png'
import { pngTimes, rateOfTimes } from './shown-times'

// W3C PNG, third edition, 11.3.6: the first picture is that of a plain PNG, the others follow in chunks of their own, each as much as
// changed.

const SIGNATURE = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])

export const animatedPng: Encoder = {
  tags: null,
  open: openFile,
  read: async ({ paths: [path] }) => {
    const times = await pngTimes(path!)
    return { ...(await readRgba(path!, 'rgba', ['-f', 'apng'])), times, rate: rateOfTimes(times) }
  },
}

async function openFile(plan: FilePlan): Promise<FrameWriter> {
  const file = await open(plan.paths[0]!, 'w')
  let index = 0
  // Frame controls and later frames are counted together.
  let sequence = 0
  const put = (...chunks: Buffer[]) => writeAll(file, Buffer.concat(chunks), null)
  const changes = new Changes()
  const lanes = new Lanes<{ part: Part; png: Buffer }>(async ({ part, png }) => {
    const chunks = [...pngChunks(png)]
    const data = chunks.filter(({ type }) => type === 'IDAT').map((chunk) => chunk.data)
    const control = pngChunk('fcTL', frameControl(plan, part, sequence++))
    if (index++ === 0) {
      const header = chunks.find(({ type }) => type === 'IHDR')!.data
      const start = [
        SIGNATURE,
        pngChunk('IHDR', header),
        pngChunk('sRGB', Buffer.of(0)),
        pngChunk('acTL', counts(plan)),
      ]
      await put(...start, control, ...data.map((part) => pngChunk('IDAT', part)))
    } else {
      const parts = data.map((part) => pngChunk('fdAT', Buffer.concat([uint32(sequence++), part])))
      await put(control, ...parts)
    }
  })
  return {
    write: (picture) => {
      const own = kept(picture)
      const part = changes.of(own)
      return lanes.add(encodePngPart(own, part).then((png) => ({ part, png })))
    },
    close: async () => {
      await lanes.end()
      await put(pngChunk('IEND', Buffer.alloc(0)))
      await file.close()
    },
    abort: () => file.close().catch(() => {}),
  }
}

/** How many pictures, and how often they are played: 0 for without end. */
const counts = ({ frames }: FilePlan) => Buffer.concat([uint32(frames), uint32(0)])

/** A part, for its time, in place of what was there before. */
function frameControl({ rate }: FilePlan, { width, height, left, top }: Part, sequence: number): Buffer {
  const control = Buffer.alloc(26)
  ;[sequence, width, height, left, top].forEach((value, i) => control.writeUInt32BE(value, i * 4))
  control.writeUInt16BE(rate.denominator, 20)
  control.writeUInt16BE(rate.numerator, 22)
  return control
}

function uint32(value: number): Buffer {
  const bytes = Buffer.alloc(4)
  bytes.writeUInt32BE(value)
  return bytes
}
