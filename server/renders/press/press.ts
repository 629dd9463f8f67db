import { mkdir, stat, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { and, eq, inArray, isNull, sql } from 'drizzle-orm'
import type { Fault } from '../../../core/errors'
import { fileNameOf, nameFrom } from '../../../core/formats/deliveries/file-name'
import { deliveryOf } from '../../../core/formats/deliveries/table'
import type { Database } from '../../database/connect'
import type { StoredFile } from '../../database/schema'
import { renders } from '../../database/schema'
import { attemptName, removeFiles, removePressed, removeSegments, rendersFolder } from '../files'
import { persist } from '../persist'
import { planFor } from '../plan'
import { UNFINISHED } from '../queue/enqueue'
import { faultOf } from '../render-fault'
import type { Rendered } from '../render-file'
import type { RenderReport } from '../report'
import { sidecarOf } from '../sidecar'
import { halfOf, pressFiles } from './press-files'
import { RunFrames } from './run-frames'
import { SmallPicture } from './small-picture'

export interface PressPlace {
  database: Database
  /** Folder for files of renders and what people brought in. */
  storage: string
  /** The queue's name of this worker. */
  worker: string
}

type RenderRow = typeof renders.$inferSelect

/**
 * Puts the frames of a render together, as its runs come in; reads the files again and offers them. Faults end up in the row; nothing
 * is thrown for them.
 */
export async function performPress(place: PressPlace, id: string): Promise<void> {
  const { database, storage, worker } = place
  const [row] = await database
    .update(renders)
    .set({ worker, heartbeat: new Date(), attempts: sql`${renders.attempts} + 1` })
    .where(and(eq(renders.id, id), inArray(renders.status, [...UNFINISHED]), isNull(renders.worker)))
    .returning()
  // Cancelled or removed while it waited, or another's.
  if (!row) return
  const press = new Press(place, row)
  try {
    await mkdir(rendersFolder(storage), { recursive: true })
    // What a killed attempt left behind.
    await removePressed(storage, id)
    await press.run()
  } catch (error) {
    await press.fail(faultOf(error))
  } finally {
    press.end()
  }
}

/** One go at a render. */
class Press {
  private readonly cancel = new AbortController()
  private readonly heart: NodeJS.Timeout
  private readonly progress = { checking: false, done: 0 }
  private small: string | null = null

  constructor(
    private readonly place: PressPlace,
    private readonly row: RenderRow,
  ) {
    // A beat that fails is tried again: a database that is away for a moment does not end a render.
    this.heart = setInterval(() => void this.beat().catch(() => {}), 500)
  }

  end(): void {
    clearInterval(this.heart)
  }

  async run(): Promise<void> {
    const { row, place, cancel } = this
    const { options, id } = row
    const stem = nameFrom(options.name, { card: row.name, row: row.rowName, take: row.take })
    const files = this.files(stem)
    const paths = files.map(({ stored }) => this.path(stored))
    const planned = planFor(row, { paths: paths.map(halfOf), stem })
    const { plan, order, shown } = planned
    const frames = new RunFrames({ ...place, id, plan, shown, signal: cancel.signal })
    const preview = new Preview(plan, this.path(this.own('.small.webp')), () => (this.small = this.own('.small.webp')))
    try {
      const { report, read } = await pressFiles({
        ...planned,
        ...{ frames, paths, signal: cancel.signal },
        confirm: () => persist(() => this.beat()),
        onProgress: (stage, done) => Object.assign(this.progress, { checking: stage === 'checking', done }),
        onPicture: (picture, at) => preview.take(picture, at),
      })
      this.end()
      // It counts from the first frame that a worker took: the frames were made meanwhile.
      const seconds = { ...report.seconds, render: await this.sinceStart(report) }
      const whole: RenderReport = { ...report, seconds }
      if (!report.passed) {
        await this.finish({ status: 'failed', fault: unfaithful(report), report: whole })
        return
      }
      await preview.end()
      const made = order.map((frame) => frames.hash(frame))
      const sidecar = this.own('.sidecar.json')
      await this.writeSidecar({ report: whole, options, plan, made, read }, files, sidecar)
      const stored = await Promise.all(
        files.map(async (file): Promise<StoredFile> => ({ ...file, bytes: (await stat(this.path(file.stored))).size })),
      )
      const isOwn = await this.finish({ status: 'done', files: stored, sidecar, report: whole, small: this.small })
      if (isOwn) await removeSegments(place.storage, id)
    } finally {
      await preview.end().catch(() => {})
      await frames.close()
    }
  }

  /** Ends the render with a fault, unless it was cancelled or another has it. The runs that are done stay, to go on from. */
  async fail(fault: Fault): Promise<void> {
    this.end()
    const { storage } = this.place
    await removeFiles(storage, this.own(''))
    if (!this.cancel.signal.aborted) {
      await persist(() => this.finish({ status: 'failed', fault, small: null }))
    } else if (await this.isOver()) {
      await removeFiles(storage, this.row.id)
    }
  }

  /** Whether the render was cancelled or removed, not taken over. */
  private async isOver(): Promise<boolean> {
    const { database } = this.place
    const [now] = await persist(() =>
      database.select({ status: renders.status }).from(renders).where(eq(renders.id, this.row.id)),
    )
    return !now || now.status === 'cancelled'
  }

  /** Says that it lives, and how far it is; false where the render is not its any more, or was cancelled. */
  private async beat(): Promise<boolean> {
    const { checking, done } = this.progress
    const { small } = this
    const [alive] = await this.place.database
      .update(renders)
      .set({
        ...{ heartbeat: new Date(), framesDone: done },
        ...(checking ? { status: 'checking' as const } : {}),
        ...(small ? { small } : {}),
      })
      .where(this.mine())
      .returning({ id: renders.id })
    if (!alive) this.cancel.abort()
    return Boolean(alive)
  }

  /** Writes the end into the row. True where it was ours to write. */
  private async finish(change: Partial<typeof renders.$inferInsert>): Promise<boolean> {
    const { database, storage } = this.place
    const framesDone = change.status === 'done' ? this.row.framesTotal : 0
    const [written] = await persist(() =>
      database
        .update(renders)
        .set({ ...change, framesDone, finishedAt: new Date(), worker: null })
        .where(this.mine())
        .returning({ id: renders.id }),
    )
    if (written) return true
    // Written before, its answer lost; or nobody knows of these files.
    const [now] = await database.select({ sidecar: renders.sidecar }).from(renders).where(eq(renders.id, this.row.id))
    if (now && now.sidecar === change.sidecar) return true
    await removeFiles(storage, this.own(''))
    return false
  }

  /** The row is this worker's as long as it stands as it was taken: another that took it over counted one attempt more. */
  private mine() {
    return and(
      eq(renders.id, this.row.id),
      eq(renders.worker, this.place.worker),
      eq(renders.attempts, this.row.attempts),
      inArray(renders.status, [...UNFINISHED]),
    )
  }

  private async sinceStart({ seconds }: RenderReport): Promise<number> {
    const since = sql<number>`extract(epoch from now() - ${renders.startedAt})::float8`
    const [row] = await persist(() =>
      this.place.database.select({ since }).from(renders).where(eq(renders.id, this.row.id)),
    )
    return Math.max(seconds.render, (row?.since ?? 0) - seconds.check)
  }

  private own(ending: string): string {
    return attemptName(this.row.id, this.row.attempts, ending)
  }

  private path(stored: string): string {
    return join(rendersFolder(this.place.storage), stored)
  }

  private files(stem: string): Omit<StoredFile, 'bytes'>[] {
    const { options } = this.row
    return deliveryOf(options.format)
      .files(options)
      .map((file) => ({
        stored: this.own(`.${file.role || 'file'}${file.ending}`),
        name: fileNameOf(stem, file),
        mediaType: file.mediaType,
      }))
  }

  private async writeSidecar(
    rendered: Rendered,
    files: readonly Omit<StoredFile, 'bytes'>[],
    stored: string,
  ): Promise<void> {
    const { document, cardId, revision } = this.row
    const places = files.map((file) => ({ path: this.path(file.stored), name: file.name }))
    const sidecar = await sidecarOf({ card: document, id: cardId, revision }, rendered, places)
    await writeFile(this.path(stored), `${JSON.stringify(sidecar, null, 1)}\n`)
  }
}

/** Milliseconds between two pictures of a render that goes on. */
const PREVIEW = 2000

/** The small picture of a render: still while it goes on, moving at the end. */
class Preview {
  private readonly small: SmallPicture
  private writing: Promise<void> = Promise.resolve()
  private last = 0
  private ended = false

  constructor(
    plan: ConstructorParameters<typeof SmallPicture>[0],
    private readonly path: string,
    private readonly onWritten: () => void,
  ) {
    this.small = new SmallPicture(plan)
  }

  take(picture: Parameters<SmallPicture['take']>[0], at: number): void {
    if (!this.small.take(picture, at) || Date.now() - this.last < PREVIEW) return
    this.last = Date.now()
    this.write(false)
  }

  async end(): Promise<void> {
    if (!this.ended) this.write(true)
    this.ended = true
    await this.writing
  }

  private write(moving: boolean): void {
    // A list without a picture is no reason to end a render.
    this.writing = this.writing.then(() => this.small.write(this.path, moving)).then(this.onWritten, () => {})
  }
}

function unfaithful(report: RenderReport): Fault {
  const [wrong] = report.checks.filter(({ passed }) => !passed)
  return {
    code: 'check-failed',
    place: wrong?.label ?? 'file',
    message: `The file was read again and is not what the engine made: ${wrong?.found} instead of ${wrong?.expected}.`,
    remedy: 'The file is not offered. Try again, or choose another format.',
  }
}
