import type { FramePicture } from '../../../core/frame/engine'
import { WaxError } from '../../../core/errors'
import { fontsOf, shippedFonts } from '../../fonts/shipped'
import { loadPictures } from '../../pictures/pictures-of'
import { WAITING } from '../frame-pool'
import type { FrameSetup } from '../frame-thread'
import { FrameThread, inTime } from '../frame-thread'
import { persist } from '../persist'
import type { RenderWork } from '../plan'
import { planFor, shownCards } from '../plan'
import { framesOfRun } from '../queue/runs'
import { faultOf, isFinal } from '../render-fault'
import { SegmentWriter } from '../segment'
import type { RunSource, TakenRun } from './run-source'

/** A render as a lane has it: the thread goes on from run to run, with all that its engine keeps. */
interface Warm {
  render: string
  work: RenderWork
  shown: number[]
  thread: FrameThread
}

/** A run in work. */
export interface Ongoing {
  run: TakenRun
  framesDone: number
  /** Raised where the run is not ours any more. */
  lost: boolean
}

/** One engine of a worker: takes runs, one after the other. */
export class Lane {
  ongoing: Ongoing | null = null
  private warm: Warm | null = null

  constructor(private readonly source: RunSource) {}

  /** The render that its engine is warm for, and what it is made from. */
  get known(): { render: string; work: RenderWork } | null {
    return this.warm
  }

  /** Takes a run and does it; false where there is none. `others`: what other lanes know. */
  async step(others: ReadonlyMap<string, RenderWork>): Promise<boolean> {
    const run = await this.source.take(this.warm?.render ?? null, [...others.keys()])
    if (!run) return false
    const work = run.work ?? others.get(run.render)
    // Removed while it was taken.
    if (!work) return true
    const ongoing: Ongoing = { run, framesDone: 0, lost: false }
    this.ongoing = ongoing
    try {
      await this.render(ongoing, work)
    } catch (error) {
      await this.rest()
      if (!ongoing.lost) {
        await persist(() => this.source.fail(run, faultOf(error), isFinal(error)), isFinal).catch(() => {})
      }
    } finally {
      this.ongoing = null
    }
    return true
  }

  /** Lets its engine go. */
  async rest(): Promise<void> {
    const { thread } = this.warm ?? {}
    this.warm = null
    await thread?.end()
  }

  /** Drops the run in work, that another worker may have it at once. */
  async drop(): Promise<void> {
    const { ongoing } = this
    if (ongoing) {
      ongoing.lost = true
      await this.source.giveBack(ongoing.run)
    }
    await this.rest()
  }

  private async render(ongoing: Ongoing, work: RenderWork): Promise<void> {
    const { run } = ongoing
    const { thread, shown } = await this.warmFor(run.render, work)
    const path = await this.source.place(run)
    const segment = await SegmentWriter.create(path)
    try {
      await this.frames(ongoing, thread, framesOfRun(shown, run.index), segment)
      if (ongoing.lost) throw new WaxError('lost', 'run', 'Another worker has this run.', '')
      await segment.close()
    } catch (error) {
      await segment.abort()
      throw error
    }
    await persist(() => this.source.finish(run, path), isFinal)
  }

  /** Frames of a run into its segment. While one is packed and written, the next one is made. */
  private async frames(ongoing: Ongoing, thread: FrameThread, frames: readonly number[], segment: SegmentWriter) {
    const made: Promise<FramePicture>[] = []
    const ask = (back?: FramePicture) => {
      const picture = thread.render(frames[made.length]!, back)
      // Thrown where it is waited for.
      picture.catch(() => {})
      made.push(picture)
    }
    while (made.length < Math.min(WAITING, frames.length)) ask()
    for (const [at, frame] of frames.entries()) {
      const picture = await inTime(made[at]!, frame)
      if (ongoing.lost) return
      await segment.add(frame, picture.pixels)
      ongoing.framesDone = at + 1
      if (made.length < frames.length) ask(picture)
    }
  }

  private async warmFor(render: string, work: RenderWork): Promise<Warm> {
    if (this.warm?.render === render) return this.warm
    await this.rest()
    const { document, options, programme } = work
    const { assets } = this.source
    const { plan, shown } = planFor(work, { paths: [], stem: '' })
    const setup: FrameSetup = {
      ...{ card: document, programme, form: plan.form, scale: options.scale, sequences: assets.sequence },
      fonts: await fontsOf([document], [shippedFonts, assets.font]),
      pictures: await loadPictures(shownCards(work), assets.picture),
    }
    this.warm = { render, work, shown, thread: new FrameThread(setup) }
    return this.warm
  }
}
