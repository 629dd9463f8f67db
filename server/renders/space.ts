import { mkdir, statfs } from 'node:fs/promises'
import { WaxError } from '../../core/errors'

/** Bytes of the disk that renders leave free: databases do not like a full one. `WAX_DISK_RESERVE`: megabytes. */
export const reserve = (): number => Number(process.env.WAX_DISK_RESERVE ?? 500) * 1e6

/** Throws a WaxError where there is too little room on the disk to render anything. */
export async function expectSpace(folder: string, remedy = STAYS): Promise<void> {
  await mkdir(folder, { recursive: true })
  const { bavail, bsize } = await statfs(folder)
  const free = bavail * bsize
  if (free >= reserve()) return
  throw new WaxError(
    'disk-full',
    'disk',
    `The disk is nearly full: ${megabytes(free)} are free, and ${megabytes(reserve())} are left for the database.`,
    remedy,
  )
}

const STAYS = 'Remove renders that are not needed, or free some space, then try again: the frames that are done stay.'

/** Milliseconds between two looks at the disk while something is written. */
const LOOK = 250

/**
 * Does work that writes into a folder as long as the disk keeps its reserve; the signal says when it does not. A small file may hold many
 * large pictures.
 */
export async function whileSpace(
  folder: string,
  remedy: string,
  work: (signal: AbortSignal) => Promise<void>,
): Promise<void> {
  await expectSpace(folder, remedy)
  const control = new AbortController()
  let fault: unknown = null
  const look = setInterval(() => {
    expectSpace(folder, remedy).catch((error: unknown) => {
      fault ??= error
      control.abort()
    })
  }, LOOK)
  try {
    await work(control.signal)
  } catch (error) {
    throw fault ?? error
  } finally {
    clearInterval(look)
  }
  if (fault) throw fault
}

const megabytes = (bytes: number): string => `${Math.floor(bytes / 1e6)} MB`
