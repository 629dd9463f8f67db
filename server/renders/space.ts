import { mkdir, statfs } from 'node:fs/promises'
import { WaxError } from '../../core/errors'

/** Bytes of the disk that renders leave free: databases do not like a full one. `WAX_DISK_RESERVE`: megabytes. */
export const reserve = (): number => Number(process.env.WAX_DISK_RESERVE ?? 500) * 1e6

/** Throws a WaxError where there is too little room on the disk to render anything. */
export async function expectSpace(folder: string): Promise<void> {
  await mkdir(folder, { recursive: true })
  const { bavail, bsize } = await statfs(folder)
  const free = bavail * bsize
  if (free >= reserve()) return
  throw new WaxError(
    'disk-full',
    'disk',
    `The disk is nearly full: ${megabytes(free)} are free, and ${megabytes(reserve())} are left for the database.`,
    'Remove renders that are not needed, or free some space, then try again: the frames that are done stay.',
  )
}

const megabytes = (bytes: number): string => `${Math.floor(bytes / 1e6)} MB`
