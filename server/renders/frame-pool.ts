import type { FramePicture } from '../../core/frame/engine'
import { WaxError } from '../../core/errors'
import type { FrameSetup } from './frame-thread'
import { FrameThread, inTime } from './frame-thread'

export interface FrameJob extends FrameSetup {
  /** Which frames of the card, in the order in which they are given out. */
  frames: readonly number[]
  threads: number
  signal?: AbortSignal
  /** Milliseconds that one frame may take. */
  limit?: number
}

/** Frames a thread that are in work or wait for the consumer. */
export const WAITING = 2

/**
 * Renders frames on several threads and gives them out in order. At most two frames a thread wait for the
 * consumer, so a slow encoder holds the engine back instead of filling the memory. A picture is the consumer's until it
 * asks for the next one; then its pixels go back to their thread.
 */
export async function* renderFrames(job: FrameJob): AsyncGenerator<FramePicture> {
  const { frames, limit, signal } = job
  const count = Math.max(1, Math.min(job.threads, frames.length))
  const threads = Array.from({ length: count }, () => new FrameThread(job))
  let stop = () => {}
  const stopped = new Promise<never>((_, reject) => {
    stop = () =>
      reject(new WaxError('cancelled', 'render', 'The render was cancelled.', 'Start it again when you need it.'))
  })
  stopped.catch(() => {})
  signal?.addEventListener('abort', stop)
  if (signal?.aborted) stop()
  const made = new Map<number, Promise<FramePicture>>()
  let asked = 0
  const ask = (back?: FramePicture) => {
    const picture = threads[asked % count]!.render(frames[asked]!, back)
    // Thrown where it is waited for.
    picture.catch(() => {})
    made.set(asked++, picture)
  }
  try {
    while (asked < frames.length && asked < count * WAITING) ask()
    for (const [at, frame] of frames.entries()) {
      // A thread does its frames in order: this one is in work, or done.
      const picture = await Promise.race([inTime(made.get(at)!, frame, limit), stopped])
      made.delete(at)
      yield picture
      // The next one that is asked for comes from the thread that this one came from.
      if (asked < frames.length) ask(picture)
    }
  } finally {
    signal?.removeEventListener('abort', stop)
    await Promise.all(threads.map((thread) => thread.end()))
  }
}
