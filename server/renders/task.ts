import { mkdir, rm, stat } from 'node:fs/promises'
import { join, resolve } from 'node:path'
import { and, eq, inArray, sql } from 'drizzle-orm'
import type { Fault } from '../../core/errors'
import { WaxError } from '../../core/errors'
import { fileStem } from '../../core/formats/file-stem'
import type { Database } from '../database/connect'
import { pictures as pictureTable, renders } from '../database/schema'
import { ownFonts } from '../fonts/own-fonts'
import { fontsOf, shippedFonts } from '../fonts/shipped'
import { readOwnPicture } from '../pictures/own-picture'
import type { PictureSource } from '../pictures/pictures-of'
import { loadPictures } from '../pictures/pictures-of'
import { FILE_TYPES } from './file-types'
import { renderFile } from './render-file'
import type { RenderReport } from './report'

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
  const cancel = new AbortController()
  const progress = { stage: 'running' as 'running' | 'checking', done: 0 }
  const beat = async () => {
    const [alive] = await database
      .update(renders)
      .set({ heartbeat: new Date(), framesDone: progress.done, status: progress.stage })
      .where(and(eq(renders.id, id), inArray(renders.status, ['running', 'checking'])))
      .returning({ id: renders.id })
    // The row is gone or was marked as cancelled.
    if (!alive) cancel.abort()
  }
  // A beat that fails is tried again: a database that is away for a moment does not end a render.
  const heart = setInterval(() => void beat().catch(() => {}), 500)
  const { ending } = FILE_TYPES[row.options.format]
  const folder = resolve(storage, 'renders')
  const path = join(folder, `${id}${ending}`)
  const stem = fileStem(row.name)
  try {
    await mkdir(folder, { recursive: true })
    const fonts = await fontsOf(row.document, [shippedFonts, ownFonts(database)])
    const pictures = await loadPictures(row.document, ownPictures(database))
    const report = await renderFile({
      card: row.document,
      fonts,
      pictures,
      options: row.options,
      path,
      stem,
      threads,
      signal: cancel.signal,
      onProgress: (stage, done) => Object.assign(progress, { stage, done }),
    })
    clearInterval(heart)
    const finished = report.passed
      ? { status: 'done' as const, fileName: `${stem}${ending}`, fileBytes: (await stat(path)).size }
      : { status: 'failed' as const, fault: unfaithful(report) }
    await persist(() => finish(database, id, { ...finished, report, framesDone: row.framesTotal }))
  } catch (error) {
    clearInterval(heart)
    await rm(path, { force: true, recursive: true })
    if (!cancel.signal.aborted) await persist(() => finish(database, id, { status: 'failed', fault: faultOf(error) }))
  } finally {
    clearInterval(heart)
  }
}

async function finish(database: Database, id: string, change: Partial<typeof renders.$inferInsert>): Promise<void> {
  await database
    .update(renders)
    .set({ ...change, finishedAt: new Date(), worker: null })
    .where(and(eq(renders.id, id), inArray(renders.status, ['running', 'checking'])))
}

/** The work is done: a database that is away for a while must not lose it. */
async function persist(write: () => Promise<void>): Promise<void> {
  for (let wait = 250; ; wait *= 2) {
    try {
      await write()
      return
    } catch (error) {
      if (wait > 30_000) throw error
      await new Promise((go) => setTimeout(go, wait))
    }
  }
}

const ownPictures = (database: Database): PictureSource => {
  return async (id) => {
    const [row] = await database
      .select({ file: pictureTable.file, fileName: pictureTable.fileName })
      .from(pictureTable)
      .where(eq(pictureTable.id, id))
    return row ? (await readOwnPicture(new Uint8Array(row.file), row.fileName)).picture : null
  }
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

function faultOf(error: unknown): Fault {
  if (error instanceof WaxError) return error.fault
  const message = error instanceof Error ? error.message : String(error)
  if (/ENOSPC/.test(message)) {
    return {
      code: 'disk-full',
      place: 'disk',
      message: 'The disk is full.',
      remedy: 'Free some space, then render again.',
    }
  }
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
