import { join } from 'node:path'
import { and, eq, gte, sql } from 'drizzle-orm'
import type { FramePicture } from '../../../core/frame/engine'
import { bytesOf } from '../../../core/kernels/pixel-form'
import type { Database } from '../../database/connect'
import { renderRuns } from '../../database/schema'
import type { FilePlan } from '../encoders/encoder'
import { rendersFolder } from '../files'
import { persist } from '../persist'
import { runAt } from '../queue/runs'
import { makeAgain } from '../queue/work-list'
import { Segment } from '../segment'
import type { PressFrames } from './press-files'
import { cancelled } from './press-files'

/** Milliseconds between two looks for runs that are being made. */
const LOOK = 100
/** Segments that are open at once. */
const MOST_OPEN = 16

/** Which render's frames they are, and where its segments lie. */
export interface RunsOf {
  database: Database
  storage: string
  id: string
  plan: FilePlan
  /** Frames that are made, in their order. */
  shown: readonly number[]
  signal: AbortSignal
}

/** Frames of a render from the segments of its runs, as workers here and elsewhere hand them in. */
export class RunFrames implements PressFrames {
  private readonly runOf: ReadonlyMap<number, number>
  private readonly names = new Map<number, string>()
  /** Those used last stand last. */
  private readonly open = new Map<number, Promise<Segment>>()
  private readonly hashes = new Map<number, string>()

  constructor(private readonly of: RunsOf) {
    this.runOf = new Map(of.shown.map((frame, place) => [frame, runAt(place, of.shown.length)]))
  }

  async picture(frame: number): Promise<FramePicture> {
    const { width, height, form } = this.of.plan
    return { width, height, bits: form.bits, pixels: await this.pixels(frame) }
  }

  async pixels(frame: number): Promise<Uint8Array<ArrayBuffer>> {
    return (await this.segmentOf(frame)).pixels(frame)
  }

  async packed(frame: number): Promise<Uint8Array> {
    return (await this.segmentOf(frame)).packed(frame)
  }

  /** They come out of segments that are finished. */
  async settled(): Promise<void> {}

  hash(frame: number): string {
    return this.hashes.get(frame)!
  }

  async close(): Promise<void> {
    const open = [...this.open.values()]
    this.open.clear()
    await Promise.all(open.map((segment) => segment.then((one) => one.close()).catch(() => {})))
  }

  private async segmentOf(frame: number): Promise<Segment> {
    const run = this.runOf.get(frame)!
    const known = this.open.get(run)
    this.open.delete(run)
    const segment = known ?? this.opened(run)
    this.open.set(run, segment)
    if (!known) {
      for (const [at, hash] of (await segment).hashes()) this.hashes.set(at, hash)
      await this.closeOldest()
    }
    return segment
  }

  /** One that is gone or not whole is made again. */
  private async opened(run: number): Promise<Segment> {
    for (;;) {
      const name = this.names.get(run) ?? (await this.finished(run))
      try {
        return await Segment.open(join(rendersFolder(this.of.storage), name), frameBytes(this.of.plan))
      } catch {
        this.names.delete(run)
        await persist(() => makeAgain(this.of.database, this.of.id, run, name))
      }
    }
  }

  private async closeOldest(): Promise<void> {
    for (const [run, segment] of this.open) {
      if (this.open.size <= MOST_OPEN) return
      this.open.delete(run)
      await (await segment).close()
    }
  }

  /** Waits until a run is done; gives the name of its segment. */
  private async finished(run: number): Promise<string> {
    const { database, id, signal } = this.of
    for (;;) {
      if (signal.aborted) throw cancelled()
      const done = await persist(() =>
        database
          .select({ index: renderRuns.index, segment: sql<string>`${renderRuns.segment}` })
          .from(renderRuns)
          .where(and(eq(renderRuns.renderId, id), gte(renderRuns.index, run), eq(renderRuns.state, 'done')))
          .orderBy(renderRuns.index)
          .limit(AHEAD),
      )
      for (const { index, segment } of done) this.names.set(index, segment)
      const name = this.names.get(run)
      if (name) return name
      await new Promise((go) => setTimeout(go, LOOK))
    }
  }
}

const frameBytes = ({ width, height, form }: FilePlan) => width * height * 4 * bytesOf(form.bits)

/** Finished runs that are looked up at once. */
const AHEAD = 200
