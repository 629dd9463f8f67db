import type { FramePicture } from '../../core/frame/engine'
import type { RenderOptions, RenderWish } from '../../core/formats/deliveries/render-options'
import { expectOptions } from '../../core/formats/deliveries/render-options'
import type { FilePlan } from './encoders/encoder'
import { renderFrames } from './frame-pool'
import type { FrameSetup } from './frame-thread'
import { planFor } from './plan'
import type { PressFrames, PressJob } from './press/press-files'
import { halfOf, pressFiles } from './press/press-files'
import type { RenderReport } from './report'
import { SegmentWriter } from './segment'

export interface RenderJob
  extends Omit<FrameSetup, 'form' | 'scale'>, Pick<PressJob, 'signal' | 'confirm' | 'onProgress'> {
  options: RenderWish
  /** Where the finished files go, in the order of the delivery's table. Until they are checked they have other names. */
  paths: readonly string[]
  /** Start of the names of frames in a sequence. */
  stem: string
  threads: number
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

/** Renders a card to files in this process, reads them again, and only then gives them their names. */
export async function renderFile(job: RenderJob): Promise<Rendered> {
  const options = expectOptions(job.options)
  const work = { document: job.card, options, programme: job.programme ?? null }
  const planned = planFor(work, { paths: job.paths.map(halfOf), stem: job.stem })
  const { plan, order, shown } = planned
  const segment = await SegmentWriter.create(`${job.paths[0]!}.frames`)
  const pool = renderFrames({ ...job, form: plan.form, scale: options.scale, frames: shown })
  try {
    const frames = new PooledFrames(plan, pool, segment)
    const { report, read } = await pressFiles({ ...planned, ...job, frames })
    return { report, options, plan, made: order.map((frame) => segment.hash(frame)), read }
  } finally {
    await pool.return(undefined)
    await segment.abort()
  }
}

/** Frames from the threads of this process; each is made once, however often it is shown. */
export class PooledFrames implements PressFrames {
  private adding: Promise<void> | null = null

  constructor(
    private readonly plan: FilePlan,
    private readonly pool: AsyncGenerator<FramePicture>,
    private readonly segment: Pick<SegmentWriter, 'add' | 'has' | 'hash' | 'pixels' | 'packed'>,
  ) {}

  async picture(frame: number): Promise<FramePicture> {
    // Its pixels go back to their thread with the next one.
    await this.adding
    this.adding = null
    if (this.segment.has(frame)) {
      const { width, height, form } = this.plan
      return { width, height, bits: form.bits, pixels: new Uint8Array(await this.segment.pixels(frame)) }
    }
    const picture = (await this.pool.next()).value as FramePicture
    this.adding = this.segment.add(frame, picture.pixels)
    // Thrown where it is waited for.
    this.adding.catch(() => {})
    return picture
  }

  async pixels(frame: number): Promise<Uint8Array> {
    await this.adding
    return this.segment.pixels(frame)
  }

  async packed(frame: number): Promise<Uint8Array> {
    await this.adding
    return this.segment.packed(frame)
  }

  async settled(): Promise<void> {
    await this.adding
  }

  hash(frame: number): string {
    return this.segment.hash(frame)
  }
}
