import { readdir, rm, stat } from 'node:fs/promises'
import { join, resolve } from 'node:path'
import type { RunTry } from './queue/work-list'

// Files of renders in the storage. Every attempt writes under names of its own: a worker that was taken for dead, and
// comes back, never touches the files of the one that followed it.

export const rendersFolder = (storage: string): string => resolve(storage, 'renders')

/** What the `attempt`th presser of a render writes. */
export const attemptName = (id: string, attempt: number, ending: string): string => `${id}.${attempt}${ending}`

/** The segment that a worker writes of a run. */
export const segmentName = ({ render, index, attempt }: RunTry): string => `${render}.run-${index}.${attempt}.frames`

/** Removes all files of a render, half ones and scratch files too. */
export const removeFiles = (storage: string, id: string): Promise<void> => removeWhere(storage, id, () => true)

/** Removes its segments. */
export const removeSegments = (storage: string, id: string): Promise<void> => removeWhere(storage, id, isSegment)

/** Removes what pressers of a render have left. */
export const removePressed = (storage: string, id: string): Promise<void> =>
  removeWhere(storage, id, (name) => !isSegment(name))

/** Half ones and those that are being sent too. */
const isSegment = (name: string) => /\.run-\d+\.\d+\.frames(\.|$)/.test(name)

async function removeWhere(storage: string, id: string, goes: (name: string) => boolean): Promise<void> {
  const folder = rendersFolder(storage)
  const names = await readdir(folder).catch(() => [])
  const gone = names.filter((name) => name.startsWith(`${id}.`) && goes(name))
  await Promise.all(gone.map((name) => rm(join(folder, name), { force: true, recursive: true })))
}

/** Removes what stand-in edits have read of renders and nobody has looked at for so many hours. */
export async function removeRead(storage: string, hours: number): Promise<void> {
  const folder = rendersFolder(storage)
  for (const name of await readdir(folder).catch(() => [])) {
    if (!name.endsWith('.read')) continue
    const found = await stat(join(folder, name)).catch(() => null)
    if (found && Date.now() - found.mtimeMs > hours * 60 * 60 * 1000) {
      await rm(join(folder, name), { force: true, recursive: true })
    }
  }
}
