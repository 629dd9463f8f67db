import { resolve } from 'node:path'
import { Worker } from 'node:worker_threads'
import type { Card } from '../../core/card/schema'
import type { Fault } from '../../core/errors'
import { heldFrame } from '../../core/time/held'
import { WaxError } from '../../core/errors'
import type { FramePicture } from '../../core/frame/engine'
import type { SequenceSource, WantedPicture } from '../../core/frame/fetching'
import type { Picture } from '../../core/paint/pictures'
import type { PictureGap } from '../../core/paint/sequences'

// Built by scripts/build-node.mjs; all programs run in the project's folder.
const THREAD = resolve('.wax/node/frame-thread.mjs')

export interface FrameJob {
  card: Card
  fonts: Map<string, Uint8Array>
  pictures?: Map<string, Picture>
  sequences?: SequenceSource
  bits: 8 | 16
  /** Half-open range of frames. */
  from: number
  to: number
  /** See core/time/held.ts. */
  holds?: number
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
  const threads = Math.max(1, Math.min(job.threads, job.to - job.from))
  const ready = new Map<number, Answer>()
  let wake = () => {}
  let broken: Error | null = null
  const fail = (error: Error) => {
    broken ??= error
    wake()
  }
  const workers = Array.from({ length: threads }, () => {
    const worker = new Worker(THREAD, {
      workerData: { card: job.card, fonts: job.fonts, pictures: job.pictures, bits: job.bits },
    })
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
    let next = job.from
    const send = (back?: { at: number; pixels: Uint8Array<ArrayBuffer> }) => {
      const worker = workers[(next - job.from) % threads]!
      const wish = { at: next, frame: heldFrame(job.card, next, job.holds ?? 1), ...(back ? { back } : {}) }
      worker.postMessage(wish, back ? [back.pixels.buffer] : [])
      next++
    }
    while (next < job.to && next < job.from + threads * WAITING) send()
    for (let frame = job.from; frame < job.to; frame++) {
      // A thread does its frames in order: this one is in work, or done.
      const late = setTimeout(() => fail(tooSlow(frame)), job.limit ?? LIMIT)
      while (!ready.has(frame) && !broken) await new Promise<void>((go) => (wake = go))
      clearTimeout(late)
      if (broken) throw broken
      const picture = ready.get(frame)!.picture!
      ready.delete(frame)
      yield picture
      // The next one that is sent goes to the thread that this one came from.
      if (next < job.to) send({ at: frame, pixels: picture.pixels })
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
