import { rename, rm } from 'node:fs/promises'
import type { Card } from '../../core/card/schema'
import { WaxError } from '../../core/errors'
import { bitsFor, deliveryOf } from '../../core/formats/deliveries'
import type { SequenceSource } from '../../core/frame/fetching'
import type { Picture } from '../../core/paint/pictures'
import type { FilePlan } from './encoders/encoder'
import { encoderOf } from './encoders/table'
import { renderFrames } from './frame-pool'
import { Ledger } from './ledger'
import { expectFrames } from './limits'
import type { RenderWish } from './options'
import { renderOptionsSchema } from './options'
import type { RenderReport } from './report'
import { verifyFile } from './verify'

export interface RenderJob {
  card: Card
  fonts: Map<string, Uint8Array>
  pictures?: Map<string, Picture>
  sequences?: SequenceSource
  options: RenderWish
  /** Where the finished file goes. Until it is checked it has another name. */
  path: string
  /** Start of the names of frames in a sequence. */
  stem: string
  threads: number
  signal?: AbortSignal
  /** Asked before the checked file gets its name: false where the work belongs to somebody else by now. */
  confirm?: () => Promise<boolean>
  onProgress?: (stage: 'running' | 'checking', framesDone: number) => void
}

/** Renders a card to a file, reads the file again, and only then gives it its name. */
export async function renderFile(job: RenderJob): Promise<RenderReport> {
  const { card } = job
  const options = renderOptionsSchema.parse(job.options)
  expectFrames(card, options)
  const encoder = encoderOf(options.format)
  const delivery = deliveryOf(options.format)
  const bits = bitsFor(delivery, options.bits)
  const half = job.path.endsWith('.zip') ? job.path.replace(/\.zip$/, '.part.zip') : `${job.path}.part`
  const { width, height } = card.frame
  const frames = options.to - options.from
  const { stem } = job
  const plan: FilePlan = { path: half, width, height, rate: card.rate, frames, first: options.from, bits, stem }
  const ledger = await Ledger.create(`${job.path}.alpha`, { bits, width, height, colour: !delivery.tolerance.exact })
  try {
    const started = Date.now()
    const writer = await encoder.open(plan)
    try {
      let done = 0
      const { fonts, pictures, sequences, threads, signal } = job
      for await (const picture of renderFrames({
        card,
        fonts,
        ...(pictures ? { pictures } : {}),
        ...(sequences ? { sequences } : {}),
        bits,
        from: options.from,
        to: options.to,
        holds: options.holds,
        threads,
        signal,
      })) {
        await ledger.enter(picture)
        await writer.write(picture)
        job.onProgress?.('running', ++done)
      }
      await writer.close()
    } catch (error) {
      await writer.abort()
      throw error
    }
    const rendered = Date.now()
    const outcome = await verifyFile({ delivery, encoder, plan, ledger }, (done) => {
      job.onProgress?.('checking', done)
      if (job.signal?.aborted) throw cancelled()
    })
    if (outcome.passed) {
      if (job.confirm && !(await job.confirm())) throw cancelled()
      await rm(job.path, { force: true, recursive: true })
      await rename(half, job.path)
    }
    const seconds = { render: (rendered - started) / 1000, check: (Date.now() - rendered) / 1000 }
    return { ...outcome, seconds }
  } finally {
    await ledger.close()
    await rm(half, { force: true, recursive: true })
  }
}

const cancelled = () =>
  new WaxError('cancelled', 'render', 'The render was cancelled.', 'Start it again when you need it.')
