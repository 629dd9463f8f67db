import { once } from 'node:events'
import { createWriteStream } from 'node:fs'
import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { finished } from 'node:stream/promises'
import type { Entry } from 'yauzl'
import yauzl from 'yauzl'
import { ZipFile } from 'yazl'

// Numbered files, one a frame: in a ZIP where the path says so, in a folder else.

/** Where they go. */
export interface NumberedFiles {
  add(name: string, bytes: Buffer): Promise<void>
  close(): Promise<void>
  abort(): Promise<void>
}

export const frameName = (stem: string, index: number, ending: string): string =>
  `${stem}-${String(index).padStart(5, '0')}${ending}`

const isArchive = (path: string) => path.endsWith('.zip')

export const numberedFiles = (path: string): Promise<NumberedFiles> | NumberedFiles =>
  isArchive(path) ? archive(path) : folder(path)

function archive(path: string): NumberedFiles {
  const zip = new ZipFile()
  const file = createWriteStream(path)
  zip.outputStream.pipe(file)
  // A disk that is full says so here, whenever it likes; from then on every wait ends with it.
  const ended = finished(file)
  ended.catch(() => {})
  return {
    add: async (name, bytes) => {
      if (file.errored) throw file.errored
      // Frames are packed already: the archive stores them as they are.
      zip.addBuffer(bytes, name, { compress: false })
      // yazl queues: wait while the disk is behind.
      if (file.writableNeedDrain) await Promise.race([once(file, 'drain'), ended])
    },
    close: async () => {
      zip.end()
      await ended
    },
    abort: async () => {
      file.destroy()
      await ended.catch(() => {})
    },
  }
}

async function folder(path: string): Promise<NumberedFiles> {
  await mkdir(path, { recursive: true })
  return {
    add: (name, bytes) => writeFile(join(path, name), bytes),
    close: async () => {},
    abort: async () => {},
  }
}

/** What file managers put beside what they pack. */
const isHidden = (name: string) => /(^|\/)(\.|__MACOSX\/)/.test(name)

/** The numbers at the end of the names of one ending, in their order; of a name without one, −1. */
export async function numbersIn(path: string, ending: string): Promise<number[]> {
  const names: string[] = []
  if (isArchive(path)) {
    const zip = await yauzl.openPromise(path, { autoClose: false })
    try {
      for await (const { fileName } of zip.eachEntry()) names.push(fileName)
    } finally {
      zip.close()
    }
  } else names.push(...(await readdir(path)))
  return names
    .filter((name) => !isHidden(name) && name.toLowerCase().endsWith(ending))
    .sort()
    .map((name) => Number(/(\d+)\.\w+$/.exec(name)?.[1] ?? -1))
}

/** The files of one ending, in the order of their names. Throws where an archive is not whole. */
export async function* filesIn(path: string, ending: string): AsyncGenerator<Buffer> {
  if (!isArchive(path)) {
    const names = (await readdir(path)).filter((name) => !isHidden(name) && name.toLowerCase().endsWith(ending)).sort()
    for (const name of names) yield readFile(join(path, name))
    return
  }
  const zip = await yauzl.openPromise(path, { autoClose: false })
  const entries: Entry[] = []
  try {
    for await (const entry of zip.eachEntry()) {
      if (!isHidden(entry.fileName) && entry.fileName.toLowerCase().endsWith(ending)) entries.push(entry)
    }
    // Packed again by another program they may stand in any order.
    entries.sort((a, b) => (a.fileName < b.fileName ? -1 : 1))
    for (const entry of entries) {
      const parts: Buffer[] = []
      for await (const part of await zip.openReadStreamPromise(entry)) parts.push(part as Buffer)
      yield Buffer.concat(parts)
    }
  } finally {
    zip.close()
  }
}
