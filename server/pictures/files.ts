import { mkdir, readFile, rename, writeFile } from 'node:fs/promises'
import { join, resolve } from 'node:path'
import { nanoid } from 'nanoid'

// The files of pictures lie in the storage under their ids, which are made from their contents: a file never changes.

const folderOf = (storage: string): string => resolve(storage, 'pictures')

/** Writes a picture's file; one that is there is the same. Never seen half written. */
export async function keepPictureFile(storage: string, id: string, bytes: Uint8Array): Promise<void> {
  const folder = folderOf(storage)
  await mkdir(folder, { recursive: true })
  const half = join(folder, `${id}.${nanoid(8)}`)
  await writeFile(half, bytes)
  await rename(half, join(folder, id))
}

/** Where a picture's file lies. */
export const picturePath = (storage: string, id: string): string => join(folderOf(storage), id)

/** The bytes of a picture's file; null where there is none. */
export async function pictureFile(storage: string, id: string): Promise<Uint8Array | null> {
  try {
    return new Uint8Array(await readFile(picturePath(storage, id)))
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null
    throw error
  }
}
