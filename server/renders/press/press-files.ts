import { rename, rm } from 'node:fs/promises'
import type { FramePicture } from '../../../core/frame/engine'
import { WaxError } from '../../../core/errors'
import { deliveryOf } from '../../../core/formats/deliveries/table'
import type { FrameWriter } from '../encoders/encoder'
import { encoderOf } from '../encoders/table'
import type { RenderPlan } from '../plan'
import type { RenderReport } from '../report'
import type { MadeFrames } from '../verify'
import { verifyFile } from '../verify'

/** Frames of a render as they are made. */
export interface PressFrames extends MadeFrames {
  /** The frame, as soon as it is made. It may be forgotten when the next one is asked for. */
  picture(frame: number): Promise<FramePicture>
  /** Resolves when all that was given out is put down: from then on their hashes and pixels are known. */
  settled(): Promise<void>
}

export interface PressJob extends RenderPlan {
  frames: PressFrames
  /** Where the finished files go; `plan.paths` are their names until they are checked. */
  paths: readonly string[]
  signal?: AbortSignal
  /** Asked before the checked files get their names: false where the work belongs to somebody else by now. */
  confirm?: () => Promise<boolean>
  onProgress?: (stage: 'running' | 'checking', framesDone: number) => void
  /** Told of every frame as the file is to show it, in its place, before it is written. */
  onPicture?: (picture: FramePicture, at: number) => void
}

/** What came of it. */
export interface Pressed {
  report: RenderReport
  /** Hashes of the frames as they were read from the files. */
  read: string[]
}

/** Writes frames to files as they come, reads the files again, and only then gives them their names. */
export async function pressFiles(job: PressJob): Promise<Pressed> {
  const { plan, order, loops, frames, paths, signal } = job
  const encoder = encoderOf(plan.options.format)
  try {
    const started = Date.now()
    const writer = await encoder.open(plan)
    try {
      await write(job, writer)
      await writer.close()
      await frames.settled()
    } catch (error) {
      await writer.abort()
      throw error
    }
    const written = Date.now()
    const delivery = deliveryOf(plan.options.format)
    const finished = { delivery, encoder, plan, order, made: frames, loops }
    const { read, ...outcome } = await verifyFile(finished, (done) => {
      job.onProgress?.('checking', done)
      if (signal?.aborted) throw cancelled()
    })
    if (outcome.passed) {
      if (job.confirm && !(await job.confirm())) throw cancelled()
      for (const [i, path] of paths.entries()) {
        await rm(path, { force: true, recursive: true })
        await rename(plan.paths[i]!, path)
      }
    }
    const seconds = { render: (written - started) / 1000, check: (Date.now() - written) / 1000 }
    return { report: { ...outcome, seconds }, read }
  } finally {
    await Promise.all(plan.paths.map((half) => rm(half, { force: true, recursive: true })))
  }
}

async function write({ plan, order, frames, onPicture, onProgress }: PressJob, writer: FrameWriter): Promise<void> {
  const shown = await encoderOf(plan.options.format).shown?.(plan)
  try {
    for (const [at, frame] of order.entries()) {
      const made = await frames.picture(frame)
      const picture = (await shown?.of(made, at)) ?? made
      onPicture?.(picture, at)
      await writer.write(picture)
      onProgress?.('running', at + 1)
    }
  } finally {
    shown?.end?.()
  }
}

/** The name of a file until it is checked. */
export const halfOf = (path: string): string => path.replace(/(\.[a-z0-9]+)?$/i, '.part$1')

export const cancelled = (): WaxError =>
  new WaxError('cancelled', 'render', 'The render was cancelled.', 'Start it again when you need it.')
