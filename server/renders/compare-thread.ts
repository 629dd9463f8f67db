import { parentPort, workerData } from 'node:worker_threads'
import type { ComparedFile, FrameAsked } from './compare'
import { compareFrame } from './compare'
import type { CompareAnswer } from './compare-pool'
import { encoderOf } from './encoders/table'
import { FrameUnpacker } from './packed-frame'

// A thread that holds frames against each other.

const file = workerData as ComparedFile
const { width, height, options, form } = file.plan
const shown = encoderOf(options.format).shown?.(file.plan)
const port = parentPort!
const unpacker = new FrameUnpacker()

interface Task extends FrameAsked {
  raw: Uint8Array
  packed: Uint8Array
}

// One after the other: they are unpacked into the same bytes.
let last = Promise.resolve()
port.on('message', (task: Task) => {
  last = last.then(() => compare(task))
})

async function compare({ raw, packed, ...asked }: Task): Promise<void> {
  const made = unpacker.unpack(packed)
  const picture = { width, height, bits: form.bits, pixels: made }
  const meant = (await (await shown)?.of(picture, asked.at)) ?? picture
  const compared = compareFrame(file, asked, raw, made, meant)
  const { seam } = compared
  const moved = seam ? [seam.read.buffer, seam.meant.buffer] : []
  port.postMessage({ at: asked.at, compared } satisfies CompareAnswer, moved as ArrayBuffer[])
}
