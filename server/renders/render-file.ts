import { rename, rm } from 'node:fs/promises'
import type { Card } from '../../core/card/schema'
import { WaxError } from '../../core/errors'
import type { RenderOptions, RenderWish } from '../../core/formats/deliveries/render-options'
import { expectOptions } from '../../core/formats/deliveries/render-options'
import { deliveryOf } from '../../core/formats/deliveries/table'
import type { SequenceSource } from '../../core/frame/fetching'
import type { Picture } from '../../core/paint/pictures'
import type { FilePlan, FrameWriter } from './encoders/encoder'
import { encoderOf } from './encoders/table'
import { renderFrames } from './frame-pool'
import { planFor } from './plan'
import type { RenderReport } from './report'
import { SegmentWriter } from './segment'
import { verifyFile } from './verify'

export interface RenderJob {
  card: Card
  fonts: Map<string, Uint8Array>
  pictures?: Map<string, Picture>
  sequences?: SequenceSource
  options: RenderWish
  /** Where the finished files go, in the order of the delivery's table. Until they are checked they have other names. */
  paths: readonly string[]
  /** Start of the names of frames in a sequence. */
  stem: string
  threads: number
  signal?: AbortSignal
  /** Asked before the checked files get their names: false where the work belongs to somebody else by now. */
  confirm?: () => Promise<boolean>
  onProgress?: (stage: 'running' | 'checking', framesDone: number) => void
}

/** What came of it. */
export interface Rendered {
  report: RenderReport
  options: RenderOptions
  plan: FilePlan
  /** Hashes of the frames that the engine made, and of those that were read from the file again. */
  made: string[]
  read: string[]
}

/** Renders a card to files, reads them again, and only then gives them their names. */
export async function renderFile(job: RenderJob): Promise<Rendered> {
  const { card } = job
  const options = expectOptions(job.options)
  const delivery = deliveryOf(options.format)
  const encoder = encoderOf(options.format)
  const halves = job.paths.map(halfOf)
  const { plan, order, loops } = planFor(card, options, { paths: halves, stem: job.stem })
  const segment = await SegmentWriter.create(`${job.paths[0]!}.frames`)
  try {
    const started = Date.now()
    const writer = await encoder.open(plan)
    try {
      await write(job, { plan, order, segment, writer })
      await writer.close()
    } catch (error) {
      await writer.abort()
      throw error
    }
    const rendered = Date.now()
    const { read, ...outcome } = await verifyFile({ delivery, encoder, plan, order, made: segment, loops }, (done) => {
      job.onProgress?.('checking', done)
      if (job.signal?.aborted) throw cancelled()
    })
    if (outcome.passed) {
      if (job.confirm && !(await job.confirm())) throw cancelled()
      for (const [i, path] of job.paths.entries()) {
        await rm(path, { force: true, recursive: true })
        await rename(halves[i]!, path)
      }
    }
    const seconds = { render: (rendered - started) / 1000, check: (Date.now() - rendered) / 1000 }
    const made = order.map((frame) => segment.hash(frame))
    return { report: { ...outcome, seconds }, options, plan, made, read }
  } finally {
    await segment.abort()
    await Promise.all(halves.map((half) => rm(half, { force: true, recursive: true })))
  }
}

interface Press {
  plan: FilePlan
  order: readonly number[]
  segment: SegmentWriter
  writer: FrameWriter
}

/** Every frame is made once, however often it is shown. */
async function write(job: RenderJob, { plan, order, segment, writer }: Press): Promise<void> {
  const { card, fonts, pictures, sequences, threads, signal } = job
  const { form, options } = plan
  const shown = await encoderOf(options.format).shown?.(plan)
  const frames = renderFrames({
    ...{ card, fonts, form, threads, scale: options.scale, frames: [...new Set(order)] },
    ...(pictures ? { pictures } : {}),
    ...(sequences ? { sequences } : {}),
    ...(signal ? { signal } : {}),
  })
  try {
    for (const [at, frame] of order.entries()) {
      const isNew = !segment.has(frame)
      const picture = isNew
        ? (await frames.next()).value!
        : {
            width: plan.width,
            height: plan.height,
            bits: form.bits,
            pixels: new Uint8Array(await segment.pixels(frame)),
          }
      const written = writer.write(shown ? shown(picture, at) : picture)
      await Promise.all([written, isNew ? segment.add(frame, picture.pixels) : null])
      job.onProgress?.('running', at + 1)
    }
  } finally {
    await frames.return(undefined)
  }
}

/** The name of a file until it is checked. */
export const halfOf = (path: string): string => path.replace(/(\.[a-z0-9]+)?$/i, '.part$1')

const cancelled = () =>
  new WaxError('cancelled', 'render', 'The render was cancelled.', 'Start it again when you need it.')
