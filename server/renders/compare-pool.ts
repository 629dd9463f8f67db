import { availableParallelism } from 'node:os'
import { resolve } from 'node:path'
import { Worker } from 'node:worker_threads'
import type { Compared, ComparedFile, FrameAsked } from './compare'

// Built by scripts/build-node.mjs; all programs run in the project's folder.
const THREAD = resolve('.wax/node/compare-thread.mjs')

/** Threads that compare: more are seldom faster than what is read from a file. */
const MOST = 4
/** Frames a thread that are in work or wait. */
export const WAITING = 2

export interface CompareAnswer {
  at: number
  compared: Compared
}

interface Waiting {
  /** Shared with its thread: to hand bytes over would have them accounted for anew every time, which costs more than to copy them. */
  raw: Uint8Array
  done: (compared: Compared) => void
  failed: (error: Error) => void
}

/** Several threads that hold frames of a file against the engine's. */
export class ComparePool {
  readonly size = Math.min(MOST, Math.max(1, availableParallelism()))
  private readonly threads: Worker[]
  private readonly waiting = new Map<number, Waiting>()
  private readonly free: Uint8Array[] = []
  private broken: Error | null = null
  private next = 0

  constructor(file: ComparedFile) {
    this.threads = Array.from({ length: this.size }, () => {
      const thread = new Worker(THREAD, { workerData: file })
      thread.on('message', ({ at, compared }: CompareAnswer) => {
        const waiting = this.waiting.get(at)
        // After a fault nobody waits any more.
        if (!waiting) return
        this.waiting.delete(at)
        this.free.push(waiting.raw)
        waiting.done(compared)
      })
      thread.on('error', (error: Error) => this.fail(error))
      return thread
    })
  }

  /** Holds a frame, as it is stored, against the engine's, packed. The bytes are copied at once. */
  async compare(asked: FrameAsked, stored: Uint8Array, coming: Promise<Uint8Array>): Promise<Compared> {
    const last = this.free.pop()
    const raw = last?.length === stored.length ? last : new Uint8Array(new SharedArrayBuffer(stored.length))
    raw.set(stored)
    const packed = await coming
    if (this.broken) throw this.broken
    const compared = new Promise<Compared>((done, failed) => this.waiting.set(asked.at, { raw, done, failed }))
    this.threads[this.next++ % this.size]!.postMessage({ ...asked, raw, packed })
    return compared
  }

  async end(): Promise<void> {
    await Promise.all(this.threads.map((thread) => thread.terminate()))
  }

  private fail(error: Error): void {
    this.broken = error
    for (const { failed } of this.waiting.values()) failed(error)
    this.waiting.clear()
  }
}
