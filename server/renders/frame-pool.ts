import { resolve } from 'node:path'
import { Worker } from 'node:worker_threads'
import type { Card } from '../../core/card/schema'
import type { Fault } from '../../core/errors'
import { WaxError } from '../../core/errors'
import type { FramePicture } from '../../core/frame/engine'
import type { SequenceSource, WantedPicture } from '../../core/frame/fetching'
import type { PixelForm } from '../../core/kernels/pixel-form'
import type { Picture } from '../../core/paint/pictures'
import type { PictureGap } from '../../core/paint/sequences'

// Built by scripts/build-node.mjs; all programs run in the project's folder.
const THREAD = resolve('.wax/node/frame-thread.mjs')

export interface FrameJob {
  card: Card
  fonts: Map<string, Uint8Array>
  pictures?: Map<string, Picture>
  sequences?: SequenceSource
  form: PixelForm
  /** Render pixels per card pixel; 1 by default. */
  scale?: number
  /** Which frames of the card, in the order in which they are given out. */
  frames: readonly number[]
  threads: number
  signal?: AbortSignal
  /** Milliseconds that one frame may take. */
  limit?: number
}

/** Frames a thread that are in work or wait for the consumer. */
const WAITING = 2

/** What the engine lets through takes a minute on a slow machine: three are a frame that hangs. */
const LIMIT = 180_000

interface Answer {
  /** Its place in the run. */
  at: number
  picture?: FramePicture
  fault?: Fault
}

/** A picture of a sequence that a thread asks for, and what it gets. */
export interface SequenceWish {
  wanted: WantedPicture
}
export interface SequenceAnswer {
  brought: WantedPicture & { picture: Picture | PictureGap | null }
}

/**
 * Renders frames on several threads and gives them out in order. At most two frames a thread wait for the
 * consumer, so a slow encoder holds the engine back instead of filling the memory. A picture is the consumer's until it
 * asks for the next one; then its pixels go back to their thread.
 */
export async function* renderFrames(job: FrameJob): AsyncGenerator<FramePicture> {
  const threads = Math.max(1, Math.min(job.threads, job.frames.length))
  const ready = new Map<number, Answer>()
  let wake = () => {}
  let broken: Error | null = null
  const fail = (error: Error) => {
    broken ??= error
    wake()
  }
  const workers = Array.from({ length: threads }, () => {
    const { card, fonts, pictures, form, scale = 1 } = job
    const worker = new Worker(THREAD, { workerData: { card, fonts, pictures, form, scale } })
    const bring = async ({ id, index }: WantedPicture) => {
      const picture = (await job.sequences?.(id, index)) ?? null
      worker.postMessage({ brought: { id, index, picture } } satisfies SequenceAnswer)
    }
    worker.on('message', (answer: Answer | SequenceWish) => {
      if ('wanted' in answer) {
        bring(answer.wanted).catch(fail)
        return
      }
      if (answer.fault)
        fail(new WaxError(answer.fault.code, answer.fault.place, answer.fault.message, answer.fault.remedy))
      ready.set(answer.at, answer)
      wake()
    })
    worker.on('error', fail)
    return worker
  })
  const stop = () =>
    fail(new WaxError('cancelled', 'render', 'The render was cancelled.', 'Start it again when you need it.'))
  job.signal?.addEventListener('abort', stop)
  if (job.signal?.aborted) stop()
  try {
    let next = 0
    const send = (back?: { at: number; pixels: Uint8Array<ArrayBuffer> }) => {
      const worker = workers[next % threads]!
      const wish = { at: next, frame: job.frames[next]!, ...(back ? { back } : {}) }
      worker.postMessage(wish, back ? [back.pixels.buffer] : [])
      next++
    }
    while (next < job.frames.length && next < threads * WAITING) send()
    for (const [at, frame] of job.frames.entries()) {
      // A thread does its frames in order: this one is in work, or done.
      const late = setTimeout(() => fail(tooSlow(frame)), job.limit ?? LIMIT)
      while (!ready.has(at) && !broken) await new Promise<void>((go) => (wake = go))
      clearTimeout(late)
      if (broken) throw broken
      const picture = ready.get(at)!.picture!
      ready.delete(at)
      yield picture
      // The next one that is sent goes to the thread that this one came from.
      if (next < job.frames.length) send({ at, pixels: picture.pixels })
    }
  } finally {
    job.signal?.removeEventListener('abort', stop)
    await Promise.all(workers.map((worker) => worker.terminate()))
  }
}

const tooSlow = (frame: number) =>
  new WaxError(
    'too-slow',
    `frame ${frame}`,
    'This frame takes too long and was given up.',
    'Make blurs, strokes, words or paths of the card smaller.',
  )
