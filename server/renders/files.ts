import { readdir, rm } from 'node:fs/promises'
import { join, resolve } from 'node:path'

// Files of renders in the storage. Every attempt writes under names of its own: a worker that was taken for dead, and
// comes back, never touches the files of the one that followed it.

export const rendersFolder = (storage: string): string => resolve(storage, 'renders')

export const attemptName = (id: string, attempt: number, ending: string): string => `${id}.${attempt}${ending}`

/** Removes all files of a render, half ones and scratch files too. */
export async function removeFiles(storage: string, id: string): Promise<void> {
  const folder = rendersFolder(storage)
  const names = await readdir(folder).catch(() => [])
  const gone = names.filter((name) => name.startsWith(`${id}.`))
  await Promise.all(gone.map((name) => rm(join(folder, name), { force: true, recursive: true })))
}
