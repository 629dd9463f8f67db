import { createWriteStream } from 'node:fs'
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { nanoid } from 'nanoid'
import { keepPictureFile, pictureFile } from '../../pictures/files'
import { readOwnPicture } from '../../pictures/own-picture'
import { sequencePicture } from '../../sequences/pictures'
import { sequenceAbout, sequenceFolder } from '../../sequences/store'
import type { Assets } from './assets'
import type { ServerCalls } from './server-calls'

/** Ids are made from contents; as names of files they are nothing else. */
const isId = (id: string) => /^[\w-]{1,80}$/.test(id)

/**
 * What people brought in, from a server. It is kept in a folder of the same form as a storage, by ids that are made from the
 * contents: what is there is never asked for again.
 */
export function assetsElsewhere(calls: ServerCalls, cache: string): Assets {
  const sequences = new Map<string, Promise<boolean>>()

  async function bytes(path: string): Promise<Uint8Array | null> {
    const response = await calls.get(path)
    return response && new Uint8Array(await response.arrayBuffer())
  }

  /** Brings the file of a sequence; false where there is none. */
  async function bring(id: string): Promise<boolean> {
    if (await sequenceAbout(cache, id)) return true
    const [about, source] = await Promise.all([
      calls.get(`/sequences/${id}/about`),
      calls.get(`/sequences/${id}/source`),
    ])
    if (!about || !source?.body) return false
    const folder = sequenceFolder(cache, id)
    await mkdir(folder, { recursive: true })
    const half = join(folder, `source.${nanoid(6)}`)
    await pipeline(Readable.fromWeb(source.body as never), createWriteStream(half))
    await rename(half, join(folder, 'source'))
    // Last: by it the rest counts as whole.
    await writeFile(join(folder, 'about.json'), await about.text())
    return true
  }

  return {
    font: async (id) => {
      if (!isId(id)) return null
      const kept = join(cache, 'fonts', id)
      const known = await readFile(kept).catch(() => null)
      if (known) return new Uint8Array(known)
      const font = await bytes(`/fonts/${id}/file`)
      if (font) {
        await mkdir(dirname(kept), { recursive: true })
        const half = `${kept}.${nanoid(6)}`
        await writeFile(half, font)
        await rename(half, kept)
      }
      return font
    },
    picture: async (id) => {
      if (!isId(id)) return null
      const known = await pictureFile(cache, id)
      const file = known ?? (await bytes(`/pictures/${id}/file`))
      if (!file) return null
      if (!known) await keepPictureFile(cache, id, file)
      return (await readOwnPicture(file, id)).picture
    },
    sequence: async (id, index) => {
      if (!isId(id)) return null
      const brought = sequences.get(id) ?? bring(id)
      sequences.set(id, brought)
      // What failed is tried again by the next picture.
      brought.catch(() => sequences.delete(id))
      return (await brought) ? sequencePicture(cache, id, index) : null
    },
  }
}
