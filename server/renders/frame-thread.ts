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
import type { HeldAgainst } from '../../core/judge/proof/look'
import type { ProgrammeRun } from '../../core/rosters/run'
import type { Proved } from './prove'

// Built by scripts/build-node.mjs; all programs run in the project's folder.
export const THREAD = resolve('.wax/node/frame-thread.mjs')

/** What all frames of a render have in common. */
export interface FrameSetup {
  card: Card
  /** Frames are takes of it where there is one: see core/rosters/run.ts. */
  programme?: ProgrammeRun | null
  fonts: Map<string, Uint8Array>
  pictures?: Map<string, Picture>
  sequences?: SequenceSource
  form: PixelForm
  /** Render pixels per card pixel; 1 by default. */
  scale?: number
}

/** A frame that is wanted. `back` are pixels that were read: new memory for every frame would have to be cleared first. */
export interface Wish {
  at: number
  frame: number
  back?: { at: number; pixels: Uint8Array<ArrayBuffer> }
}

/** What is wanted instead of a frame: the proof of the card. */
export interface ProofWish {
  at: number
  prove: HeldAgainst
}

/** What a thread says of a frame. */
export interface Answer {
  at: number
  picture?: FramePicture
  proved?: Proved
  fault?: Fault
}

/** A picture of a sequence that a thread asks for, and what it gets. */
export interface SequenceWish {
  wanted: WantedPicture
}
export interface SequenceAnswer {
  brought: WantedPicture & { picture: Picture | PictureGap | null }
}

interface Waiting {
  done: (outcome: FramePicture | Proved) => void
  failed: (error: Error) => void
}

/**
 * A thread with an engine of its own. It makes frames in the order in which they are asked for, and keeps what the engine
 * keeps between them.
 */
export class FrameThread {
  private readonly worker: Worker
  private readonly waiting = new Map<number, Waiting>()
  /** By which wish pixels were made: the engine knows them by it when they come back. */
  private readonly lent = new WeakMap<Uint8Array, number>()
  private broken: Error | null = null
  private asked = 0

  constructor({ sequences, scale = 1, card, programme = null, fonts, pictures, form }: FrameSetup) {
    this.worker = new Worker(THREAD, { workerData: { card, programme, fonts, pictures, form, scale } })
    const bring = async ({ id, index }: WantedPicture) => {
      const picture = (await sequences?.(id, index)) ?? null
      this.worker.postMessage({ brought: { id, index, picture } } satisfies SequenceAnswer)
    }
    this.worker.on('message', (answer: Answer | SequenceWish) => {
      if ('wanted' in answer) bring(answer.wanted).catch((error: Error) => this.fail(error))
      else this.answered(answer)
    })
    this.worker.on('error', (error: Error) => this.fail(error))
    this.worker.on('exit', () => this.fail(new Error('A thread of the engine ended.')))
  }

  /** The frame as soon as it is made. `back`: one that it gave and that is not looked at any more. */
  render(frame: number, back?: FramePicture): Promise<FramePicture> {
    if (this.broken) return Promise.reject(this.broken)
    const at = this.asked++
    const known = back && this.lent.get(back.pixels)
    const wish: Wish = { at, frame, ...(known === undefined ? {} : { back: { at: known, pixels: back!.pixels } }) }
    return this.ask<FramePicture>(wish, wish.back ? [wish.back.pixels.buffer] : [])
  }

  /** Proves the card. */
  prove(against: HeldAgainst): Promise<Proved> {
    if (this.broken) return Promise.reject(this.broken)
    return this.ask<Proved>({ at: this.asked++, prove: against }, [])
  }

  async end(): Promise<void> {
    await this.worker.terminate()
  }

  private ask<T extends FramePicture | Proved>(wish: Wish | ProofWish, transfer: ArrayBuffer[]): Promise<T> {
    const outcome = new Promise<T>((done, failed) =>
      this.waiting.set(wish.at, { done: (made) => done(made as T), failed }),
    )
    this.worker.postMessage(wish, transfer)
    return outcome
  }

  private answered({ at, picture, proved, fault }: Answer): void {
    if (fault) {
      this.fail(new WaxError(fault.code, fault.place, fault.message, fault.remedy))
      return
    }
    if (picture) this.lent.set(picture.pixels, at)
    this.waiting.get(at)?.done((picture ?? proved)!)
    this.waiting.delete(at)
  }

  /** After a fault nothing more comes of it. */
  private fail(error: Error): void {
    this.broken ??= error
    for (const { failed } of this.waiting.values()) failed(this.broken)
    this.waiting.clear()
  }
}

/** What the engine lets through takes a minute on a slow machine: three are a frame that hangs. */
const LIMIT = 180_000

/** A frame, or a WaxError where it takes too long. */
export async function inTime(made: Promise<FramePicture>, frame: number, limit = LIMIT): Promise<FramePicture> {
  let late: NodeJS.Timeout | undefined
  const tooLate = new Promise<never>((_, reject) => {
    late = setTimeout(() => reject(tooSlow(frame)), limit)
  })
  try {
    return await Promise.race([made, tooLate])
  } finally {
    clearTimeout(late)
  }
}

const tooSlow = (frame: number) =>
  new WaxError(
    'too-slow',
    `frame ${frame}`,
    'This frame takes too long and was given up.',
    'Make blurs, strokes, words or paths of the card smaller.',
  )
