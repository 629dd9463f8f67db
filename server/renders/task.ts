import { mkdir, stat, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { and, eq, inArray, sql } from 'drizzle-orm'
import type { Fault } from '../../core/errors'
import { WaxError } from '../../core/errors'
import { fileNameOf, nameFrom } from '../../core/formats/deliveries/file-name'
import { deliveryOf } from '../../core/formats/deliveries/table'
import type { Database } from '../database/connect'
import type { StoredFile } from '../database/schema'
import { renders } from '../database/schema'
import { ownFonts } from '../fonts/own-fonts'
import { fontsOf, shippedFonts } from '../fonts/shipped'
import { pictureFile } from '../pictures/files'
import { readOwnPicture } from '../pictures/own-picture'
import type { PictureSource } from '../pictures/pictures-of'
import { loadPictures } from '../pictures/pictures-of'
import { sequencePicture } from '../sequences/pictures'
import { DISK_FULL, isDiskFull } from '../rim/full-disk'
import { attemptName, removeFiles, rendersFolder } from './files'
import type { Rendered } from './render-file'
import { renderFile } from './render-file'
import type { RenderReport } from './report'
import { sidecarOf } from './sidecar'

export interface RenderPlace {
  database: Database
  /** Folder for finished files. */
  storage: string
  threads: number
  /** The queue's name of this worker. */
  worker: string
}

/** Carries out one queued render from row to file. Faults end up in the row; nothing is thrown for them. */
export async function performRender({ database, storage, threads, worker }: RenderPlace, id: string): Promise<void> {
  const [row] = await database
    .update(renders)
    .set({
      status: 'running',
      worker,
      heartbeat: new Date(),
      startedAt: new Date(),
      attempts: sql`${renders.attempts} + 1`,
    })
    .where(and(eq(renders.id, id), eq(renders.status, 'queued')))
    .returning()
  // Cancelled or removed while it waited.
  if (!row) return
  // The row is this worker's as long as it stands as it was taken: another that took it over counted one attempt more.
  const mine = and(
    eq(renders.id, id),
    eq(renders.worker, worker),
    eq(renders.attempts, row.attempts),
    inArray(renders.status, ['running', 'checking']),
  )
  const cancel = new AbortController()
  const progress = { stage: 'running' as 'running' | 'checking', done: 0 }
  const beat = async () => {
    const [alive] = await database
      .update(renders)
      .set({ heartbeat: new Date(), framesDone: progress.done, status: progress.stage })
      .where(mine)
      .returning({ id: renders.id })
    // The row is gone, was marked as cancelled, or belongs to another worker by now.
    if (!alive) cancel.abort()
    return Boolean(alive)
  }
  // A beat that fails is tried again: a database that is away for a moment does not end a render.
  const heart = setInterval(() => void beat().catch(() => {}), 500)
  const stem = nameFrom(row.options.name, { card: row.name, row: '', take: row.take })
  const places = deliveryOf(row.options.format)
    .files(row.options)
    .map((file) => {
      const stored = attemptName(id, row.attempts, `.${file.role || 'file'}${file.ending}`)
      return {
        stored,
        path: join(rendersFolder(storage), stored),
        name: fileNameOf(stem, file),
        mediaType: file.mediaType,
      }
    })
  const sidecar = attemptName(id, row.attempts, '.sidecar.json')
  const finish = async (change: Partial<typeof renders.$inferInsert>) => {
    const [written] = await database
      .update(renders)
      .set({ ...change, finishedAt: new Date(), worker: null })
      .where(mine)
      .returning({ id: renders.id })
    if (written) return
    // Written before, its answer lost; or nobody knows of this file.
    const [now] = await database.select({ sidecar: renders.sidecar }).from(renders).where(eq(renders.id, id))
    if (now?.sidecar !== sidecar) await removeFiles(storage, attemptName(id, row.attempts, ''))
  }
  try {
    await mkdir(rendersFolder(storage), { recursive: true })
    // What a killed attempt left behind.
    await removeFiles(storage, id)
    const fonts = await fontsOf(row.document, [shippedFonts, ownFonts(database)])
    const pictures = await loadPictures(row.document, ownPictures(storage))
    const rendered = await renderFile({
      card: row.document,
      fonts,
      pictures,
      sequences: (sequence, index) => sequencePicture(storage, sequence, index),
      options: row.options,
      paths: places.map(({ path }) => path),
      stem,
      threads,
      signal: cancel.signal,
      confirm: () => persist(beat),
      onProgress: (stage, done) => Object.assign(progress, { stage, done }),
    })
    clearInterval(heart)
    const { report } = rendered
    if (report.passed) {
      const files = await Promise.all(
        places.map(async ({ path, ...file }): Promise<StoredFile> => ({ ...file, bytes: (await stat(path)).size })),
      )
      await writeSidecar(row, rendered, places, join(rendersFolder(storage), sidecar))
      await persist(() => finish({ status: 'done', files, sidecar, report, framesDone: row.framesTotal }))
    } else {
      await persist(() => finish({ status: 'failed', fault: unfaithful(report), report, framesDone: row.framesTotal }))
    }
  } catch (error) {
    clearInterval(heart)
    await removeFiles(storage, attemptName(id, row.attempts, ''))
    if (!cancel.signal.aborted) await persist(() => finish({ status: 'failed', fault: faultOf(error) }))
  } finally {
    clearInterval(heart)
  }
}

async function writeSidecar(
  { document, cardId, revision }: Pick<typeof renders.$inferSelect, 'document' | 'cardId' | 'revision'>,
  rendered: Rendered,
  places: { path: string; name: string }[],
  path: string,
): Promise<void> {
  const sidecar = await sidecarOf({ card: document, id: cardId, revision }, rendered, places)
  await writeFile(path, `${JSON.stringify(sidecar, null, 1)}\n`)
}

/** The work is done: a database that is away for a while must not lose it. */
async function persist<T>(write: () => Promise<T>): Promise<T> {
  for (let wait = 250; ; wait *= 2) {
    try {
      return await write()
    } catch (error) {
      if (wait > 30_000) throw error
      await new Promise((go) => setTimeout(go, wait))
    }
  }
}

const ownPictures =
  (storage: string): PictureSource =>
  async (id) => {
    const file = await pictureFile(storage, id)
    return file && (await readOwnPicture(file, id)).picture
  }

function unfaithful(report: RenderReport): Fault {
  const [wrong] = report.checks.filter(({ passed }) => !passed)
  return {
    code: 'check-failed',
    place: wrong?.label ?? 'file',
    message: `The file was read again and is not what the engine made: ${wrong?.found} instead of ${wrong?.expected}.`,
    remedy: 'The file is not offered. Render again, or choose another format.',
  }
}

/** What went wrong in a render, in words for its row. */
export function faultOf(error: unknown): Fault {
  if (error instanceof WaxError) return error.fault
  const message = error instanceof Error ? error.message : String(error)
  if (isDiskFull(error)) return { ...DISK_FULL, remedy: 'Free some space, then render again.' }
  if (/ENOENT.*ff(mpeg|probe)|spawn ff/.test(message)) {
    return {
      code: 'no-encoder',
      place: 'ffmpeg',
      message: 'The encoder ffmpeg is not installed.',
      remedy: 'Install Debian’s package ffmpeg.',
    }
  }
  return {
    code: 'render',
    place: 'render',
    message,
    remedy: 'Render again; if it happens again, report it with the card.',
  }
}
