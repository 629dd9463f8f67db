import { parentPort, workerData } from 'node:worker_threads'
import { uncompressSync } from 'snappy'
import type { ComparedFile, FrameAsked } from './compare'
import { compareFrame } from './compare'
import type { CompareAnswer } from './compare-pool'
import { encoderOf } from './encoders/table'

// A thread that holds frames against each other.

const file = workerData as ComparedFile
const { width, height, options, form } = file.plan
const shown = encoderOf(options.format).shown?.(file.plan)
const port = parentPort!

interface Task extends FrameAsked {
  raw: Uint8Array<ArrayBuffer>
  packed: Uint8Array
}

port.on('message', (task: Task) => {
  compare(task).catch((error: unknown) => {
    throw error
  })
})

async function compare({ raw, packed, ...asked }: Task): Promise<void> {
  const bytes = Buffer.from(packed.buffer, packed.byteOffset, packed.byteLength)
  const unpacked = uncompressSync(bytes, { asBuffer: true }) as Buffer<ArrayBuffer>
  // Wider numbers are read from it where they may begin.
  const made =
    unpacked.byteOffset % 4 === 0
      ? new Uint8Array(unpacked.buffer, unpacked.byteOffset, unpacked.length)
      : new Uint8Array(unpacked)
  const picture = { width, height, bits: form.bits, pixels: made }
  const meant = (await shown)?.(picture, asked.at) ?? picture
  const compared = compareFrame(file, asked, raw, made, meant)
  const back = [raw.buffer, ...(compared.seam ? [compared.seam.read.buffer, compared.seam.meant.buffer] : [])]
  port.postMessage({ at: asked.at, compared, raw } satisfies CompareAnswer, back as ArrayBuffer[])
}
