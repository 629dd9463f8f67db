import { createHash } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { access, copyFile, mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises'
import { basename, join, resolve } from 'node:path'
import { nanoid } from 'nanoid'
import sharp from '../pictures/fresh-sharp'
import { WaxError } from '../../core/errors'
import { extentOf } from '../../core/extent'
import { MOST_PIXELS } from '../../core/paint/pictures'
import type { SequenceAbout } from './about'
import { guessAlpha } from './alpha-guess'
import { decodeWebp, webpAbout } from './moving-webp'
import { packFolder, storedName, unpackNumbered } from './numbered'
import { whileSpace } from '../renders/space'
import { startOf } from './programs'
import { decodeVideo, someOfVideo, videoAbout } from './video'

// Sequences in the storage: a folder each, under an id that is made from its contents.
//   source       the file as it was brought in
//   about.json   what is known of it
//   frames/      its pictures as PNG files, 000000.png and so on; made from the source, and made again where they are gone

const folderOf = (storage: string): string => resolve(storage, 'sequences')
const isId = (id: string) => /^sequence-[0-9a-f]{16}$/.test(id)

/** A new folder for a file that comes in; its file goes to `source` in it. */
export async function incoming(storage: string): Promise<string> {
  const folder = join(folderOf(storage), `incoming-${nanoid(10)}`)
  await mkdir(folder, { recursive: true })
  return folder
}

/** Milliseconds after which nobody is bringing in a file any more. */
const DAY = 24 * 60 * 60 * 1000

/** Takes away what was left of files that never came in whole. */
export async function sweepIncoming(storage: string): Promise<void> {
  const folder = folderOf(storage)
  for (const name of await readdir(folder).catch(() => [])) {
    if (!name.startsWith('incoming-')) continue
    const place = join(folder, name)
    const found = await stat(place).catch(() => null)
    if (found && Date.now() - found.mtimeMs > DAY) await rm(place, { recursive: true, force: true })
  }
}

/**
 * Takes in what lies in a folder as `source`. Throws a WaxError where it is no sequence; the folder is gone afterwards. The same sequence
 * a second time is the same one. `hash` is that of the file, where it is known.
 */
export async function takeIn(storage: string, folder: string, fileName: string, hash?: string): Promise<SequenceAbout> {
  try {
    const about = await aboutOf(folder, fileName, hash)
    await writeFile(join(folder, 'about.json'), JSON.stringify(about))
    const place = join(folderOf(storage), about.id)
    const known = await sequenceAbout(storage, about.id)
    if (known) {
      await forgetShort(storage, known)
      return known
    }
    // Half a sequence without what is known of it is nobody's.
    await rm(place, { recursive: true, force: true })
    await rename(folder, place).catch(async (error: unknown) => {
      // Somebody else has brought it in at the same time.
      if (!(await sequenceAbout(storage, about.id))) throw error
    })
    return about
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

async function aboutOf(folder: string, fileName: string, sourceHash?: string): Promise<SequenceAbout> {
  const source = join(folder, 'source')
  const start = await startOf(source)
  if (start.toString('latin1', 0, 2) === 'PK') {
    const { hash, hasAlpha, ...found } = await unpackNumbered(source, fileName, join(folder, 'frames'))
    expectSize(found, fileName)
    if (found.frames === 1)
      throw new WaxError('still', fileName, 'It holds a single picture.', 'Bring that in as a picture instead.')
    const some = hasAlpha ? await someOfFolder(join(folder, 'frames')) : null
    return { id: idOf(hash), fileName, read: 'pictures', ...found, rate: null, alpha: some && guessAlpha(some) }
  }
  const id = idOf(sourceHash ?? (await hashOf(source)))
  if (start.toString('latin1', 8, 12) === 'WEBP') {
    const { hasAlpha, ...found } = await webpAbout(source, fileName)
    expectSize(found, fileName)
    // WebP says that its colours are straight.
    return { id, fileName, read: 'webp', ...found, alpha: hasAlpha ? 'straight' : null }
  }
  const { hasAlpha, ...found } = await videoAbout(source, fileName)
  expectSize(found, fileName)
  const alpha = hasAlpha ? guessAlpha(await someOfVideo(source, found)) : null
  const notes = [...found.notes, ...(await apngNotes(source, start))]
  return { id, fileName, read: 'video', ...found, notes, alpha }
}

/** What an APNG says of its pictures may be untrue (APNG 1.0, acTL): those that are there count. */
async function apngNotes(source: string, start: Buffer): Promise<string[]> {
  const at = start.indexOf('acTL')
  if (at < 0) return []
  const said = (await startOf(source, at + 8)).readUInt32BE(at + 4)
  const bytes = await readFile(source)
  let there = 0
  for (let k = bytes.indexOf('fcTL'); k >= 0; k = bytes.indexOf('fcTL', k + 4)) there++
  return said === there ? [] : [`It says that it has ${said} pictures and has ${there}.`]
}

function expectSize({ width, height }: { width: number; height: number }, place: string): void {
  if (width > 0 && height > 0 && width * height <= MOST_PIXELS) return
  throw new WaxError(
    'picture-too-large',
    place,
    `Its pictures have ${width}×${height} px.`,
    `Pictures may have up to ${MOST_PIXELS / 1_000_000} million pixels: make them smaller.`,
  )
}

/** Half again as fast as SHA-256 where the processor has no help for that. */
export const SEQUENCE_HASH = 'blake2b512'

const idOf = (hash: string) => `sequence-${hash.slice(0, 16)}`

async function hashOf(path: string): Promise<string> {
  const hash = createHash(SEQUENCE_HASH)
  for await (const part of createReadStream(path)) hash.update(part as Buffer)
  return hash.digest('hex')
}

/** Four of the stored pictures, small. */
async function someOfFolder(frames: string): Promise<Uint8Array[]> {
  const names = (await readdir(frames)).sort()
  const some = [0, 0.3, 0.6, 0.9].map((share) => names[Math.floor(names.length * share)]!)
  const found = await Promise.all(
    [...new Set(some)].map((name) =>
      sharp(join(frames, name))
        .toColourspace('srgb')
        .ensureAlpha()
        .resize({ width: 480, withoutEnlargement: true, kernel: 'nearest' })
        .raw()
        .toBuffer()
        .catch(() => null),
    ),
  )
  return found.flatMap((pixels) => (pixels ? [new Uint8Array(pixels)] : []))
}

/** What is known of a sequence; null where it is not there. */
export async function sequenceAbout(storage: string, id: string): Promise<SequenceAbout | null> {
  if (!isId(id)) return null
  try {
    return JSON.parse(await readFile(join(folderOf(storage), id, 'about.json'), 'utf8')) as SequenceAbout
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null
    throw error
  }
}

/** Where all of a sequence lies. */
export const sequenceFolder = (storage: string, id: string): string => join(folderOf(storage), id)

/** Where its pictures lie once all of them have been read. */
export const framesFolder = (storage: string, id: string): string => join(folderOf(storage), id, 'frames')

/** Where the file of a sequence lies as it was brought in. */
export const sequenceSource = (storage: string, id: string): string => join(folderOf(storage), id, 'source')

/** Pictures that are being read from a file in this process. */
interface Reading {
  folder: string
  ended: boolean
  done: Promise<void>
}

const readings = new Map<string, Reading>()

/** Reads the pictures of a sequence from its file, where they are not there: once in a process. */
export function readPictures(storage: string, { id, read, bits, stream }: SequenceAbout): Reading {
  const place = join(folderOf(storage), id)
  const known = readings.get(place)
  if (known) return known
  const folder = join(place, `frames-${nanoid(8)}`)
  const reading: Reading = { folder, ended: false, done: Promise.resolve() }
  const work = async () => {
    await mkdir(folder, { recursive: true })
    const source = join(place, 'source')
    await whileSpace(folder, 'Free some space: it is read again when it is looked at.', async (signal) => {
      if (read === 'webp') await decodeWebp(source, folder, signal)
      else if (stream) await decodeVideo(source, stream, bits, folder, signal)
      else await unpackNumbered(source, id, folder)
    })
    await rename(folder, join(place, 'frames')).catch(async (error: unknown) => {
      // Somebody else has read them meanwhile.
      if (!(await isThere(join(place, 'frames')))) throw error
    })
  }
  // What was not read to its end is nobody's: it is begun anew when it is looked at again.
  reading.done = work().finally(async () => {
    await rm(folder, { recursive: true, force: true })
    reading.ended = true
    readings.delete(place)
  })
  // Whoever waits for a picture is told by its absence.
  reading.done.catch(() => {})
  readings.set(place, reading)
  return reading
}

/** Pictures that an older application broke off reading, and took for all there are, are read again. */
async function forgetShort(storage: string, about: SequenceAbout): Promise<void> {
  const stored = about.order ? extentOf(about.order)[1] + 1 : about.frames
  const { there, ended } = await readSoFar(storage, about)
  if (ended && there < stored) await rm(framesFolder(storage, about.id), { recursive: true, force: true })
}

const isThere = (path: string) =>
  access(path).then(
    () => true,
    () => false,
  )

/** Milliseconds between two looks for a picture that is being made. */
const LOOK = 8

/**
 * The PNG file of a stored picture, as soon as it is there; of a file that breaks off before it the last one that there is. Null where there
 * is none.
 */
export async function storedPicture(storage: string, about: SequenceAbout, stored: number): Promise<string | null> {
  const frames = join(folderOf(storage), about.id, 'frames')
  const whole = join(frames, storedName(stored))
  if (await isThere(whole)) return whole
  // They may have come between the two looks.
  if (await isThere(frames)) return (await isThere(whole)) ? whole : lastOf(frames)
  const reading = readPictures(storage, about)
  const early = join(reading.folder, storedName(stored))
  while (!reading.ended) {
    if (await isThere(early)) return early
    await new Promise((go) => setTimeout(go, LOOK))
  }
  return (await isThere(whole)) ? whole : lastOf(frames)
}

async function lastOf(frames: string): Promise<string | null> {
  const names = (await readdir(frames).catch(() => [])).filter((name) => name.endsWith('.png')).sort()
  const last = names.at(-1)
  return last ? join(frames, last) : null
}

/** How many of the stored pictures are there, and whether no more will come. */
export async function readSoFar(storage: string, about: SequenceAbout): Promise<{ there: number; ended: boolean }> {
  const place = join(folderOf(storage), about.id)
  const frames = join(place, 'frames')
  const reading = readings.get(place)
  const count = async (folder: string) =>
    (await readdir(folder).catch(() => [])).filter((name) => name.endsWith('.png')).length
  if (await isThere(frames)) return { there: await count(frames), ended: true }
  return { there: reading ? await count(reading.folder) : 0, ended: false }
}

/** Takes in a file that is written where it is told to. */
export async function takeInFrom(
  storage: string,
  writeTo: (path: string) => Promise<void>,
  fileName: string,
): Promise<SequenceAbout> {
  const folder = await incoming(storage)
  try {
    await writeTo(join(folder, 'source'))
  } catch (error) {
    await rm(folder, { recursive: true, force: true })
    throw error
  }
  return takeIn(storage, folder, fileName)
}

/** Takes in a file, or a folder of numbered PNG files, that lies somewhere. */
export async function takeInPath(storage: string, path: string): Promise<SequenceAbout> {
  const found = await stat(path).catch(() => {
    throw new WaxError('no-file', path, 'There is no sequence here.', 'Check the path.')
  })
  const write = (source: string) => (found.isDirectory() ? packFolder(path, source) : copyFile(path, source))
  return takeInFrom(storage, write, basename(path))
}
