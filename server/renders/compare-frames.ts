import type { Compared, ComparedFile, FrameAsked } from './compare'
import { compareFrame } from './compare'
import { ComparePool, WAITING } from './compare-pool'
import { digest } from './digest'
import { encoderOf } from './encoders/table'
import { inOrder } from './lanes'
import type { MadeFrames } from './verify'

/** What is asked of a frame, and which of the card's it is to be. */
export interface AskedOf extends FrameAsked {
  frame: number
}

/** Pixels of a whole file from which threads are worth their beginning. */
const MUCH = 40e6

/**
 * Holds the frames of a file against what the engine made, in their order: what was found of each, or its hash alone where nothing is
 * asked of it. Large files are compared by several threads.
 */
export async function* compareFrames(
  file: ComparedFile,
  frames: AsyncIterable<Uint8Array>,
  made: MadeFrames,
  askedOf: (at: number) => AskedOf | null,
): AsyncGenerator<Compared | string> {
  const { width, height, frames: count } = file.plan
  const isMuch = made.packed !== undefined && width * height * count > MUCH
  yield* isMuch ? byThreads(file, frames, made, askedOf) : here(file, frames, made, askedOf)
}

async function* byThreads(
  file: ComparedFile,
  frames: AsyncIterable<Uint8Array>,
  made: MadeFrames,
  askedOf: (at: number) => AskedOf | null,
): AsyncGenerator<Compared | string> {
  const pool = new ComparePool(file)
  let at = 0
  try {
    yield* inOrder(
      frames,
      (raw): Promise<Compared | string> => {
        const asked = askedOf(at++)
        if (!asked) return Promise.resolve(digest(raw))
        const { frame, ...rest } = asked
        return pool.compare(rest, raw, made.packed!(frame))
      },
      pool.size * WAITING,
    )
  } finally {
    await pool.end()
  }
}

async function* here(
  file: ComparedFile,
  frames: AsyncIterable<Uint8Array>,
  made: MadeFrames,
  askedOf: (at: number) => AskedOf | null,
): AsyncGenerator<Compared | string> {
  const { width, height, form, options } = file.plan
  const shown = await encoderOf(options.format).shown?.(file.plan)
  let at = 0
  try {
    for await (const raw of frames) {
      const asked = askedOf(at++)
      if (!asked) {
        yield digest(raw)
        continue
      }
      const pixels = (await made.pixels(asked.frame)) as Uint8Array<ArrayBuffer>
      const picture = { width, height, bits: form.bits, pixels }
      yield compareFrame(file, asked, raw, pixels, (await shown?.of(picture, asked.at)) ?? picture)
    }
  } finally {
    shown?.end?.()
  }
}
