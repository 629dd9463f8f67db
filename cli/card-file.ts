import { readFile, stat, writeFile } from 'node:fs/promises'
import { basename, dirname, resolve } from 'node:path'
import type { CardReading } from '../core/card/read'
import { LARGEST_CARD_BYTES, readCardText } from '../core/card/read'
import type { Card } from '../core/card/schema'
import { WaxError } from '../core/errors'
import type { ArchivedFile, CardArchive } from '../server/archive/card-archive'
import { LARGEST_ARCHIVE_BYTES, openArchive } from '../server/archive/card-archive'
import { sequenceNamed } from './sequences'
import { readOwnPicture } from '../server/pictures/own-picture'

/** A card, and the fonts, pictures and sequences that came with it: none with a `.card.json`. */
export type OpenedCard = Omit<CardArchive, 'close'>

const isArchive = (path: string) => path.toLowerCase().endsWith('.zip')

/** Reads and checks a `.card.json` file; a file that cannot be read is a fault like any other. */
export async function readCardFile(path: string | undefined): Promise<CardReading> {
  const file = named(path)
  if (isArchive(file)) {
    try {
      return { card: (await archiveAt(file)).card, faults: null }
    } catch (error) {
      if (error instanceof WaxError) return { card: null, faults: [error.fault] }
      throw error
    }
  }
  return (await readJson(file)).reading
}

/** A `.card.json`, and the pictures that it names by their files. */
async function readJson(file: string): Promise<{ reading: CardReading; pictures: ArchivedFile[] }> {
  // Not read into memory: the fault is the same for a file of any length.
  if ((await sizeOf(file)) > LARGEST_CARD_BYTES) {
    return { reading: readCardText(' '.repeat(LARGEST_CARD_BYTES + 1)), pictures: [] }
  }
  const { text, pictures } = await withNamedFiles(await readFile(file, 'utf8'), dirname(file))
  return { reading: readCardText(text), pictures }
}

/** The text of a card whose pictures and sequences are named by their ids, and the files of pictures that it named instead. */
async function withNamedFiles(text: string, folder: string): Promise<{ text: string; pictures: ArchivedFile[] }> {
  let card: unknown
  try {
    card = JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch {
    // What is no JSON is told where cards are read.
    return { text, pictures: [] }
  }
  const named = new Set<string>()
  const sequences = new Set<string>()
  JSON.stringify(card, (key, value: unknown) => {
    if ((key === 'picture' || key === 'tip') && typeof value === 'string' && PICTURE_FILE.test(value)) named.add(value)
    if (key === 'sequence' && typeof value === 'string') sequences.add(value)
    return value
  })
  if (named.size + sequences.size === 0) return { text, pictures: [] }
  const pictures: ArchivedFile[] = []
  const ids = new Map<string, string>()
  for (const name of named) {
    const bytes = await readFile(resolve(folder, name)).catch(() => {
      throw new WaxError(
        'no-file',
        name,
        'The picture file cannot be read.',
        'Lay it beside the card, or mend its name.',
      )
    })
    const file = new Uint8Array(bytes)
    const { id } = await readOwnPicture(file, name)
    pictures.push({
      ...{ id, fileName: basename(name), bytes: () => Promise.resolve(file) },
      writeTo: (path) => writeFile(path, file),
    })
    ids.set(name, id)
  }
  const played = new Map<string, { id: string; frames: number }>()
  for (const name of sequences) {
    const { id, frames } = await sequenceNamed(resolve(folder, name))
    played.set(name, { id, frames })
  }
  const renamed = JSON.stringify(card, (key, value: unknown) => {
    if (key === 'picture' || key === 'tip') return ids.get(String(value)) ?? value
    return key === 'sequence' && typeof value === 'string' ? (played.get(value) ?? value) : value
  })
  return { text: renamed, pictures }
}

const PICTURE_FILE = /\.(png|jpe?g|webp)$/i

/** Opens a `.card.json` or `.card.zip` file. Throws the first fault. */
export async function openCard(path: string | undefined): Promise<OpenedCard> {
  const file = named(path)
  if (isArchive(file)) return archiveAt(file)
  const { reading, pictures } = await readJson(file)
  const { card, faults } = reading
  if (card) return { card, fonts: [], pictures, sequences: [] }
  const { code, place, message, remedy } = faults[0]!
  throw new WaxError(code, `${file}: ${place}`, message, remedy)
}

/** Opens a card for what needs neither fonts nor pictures. */
export const expectCardFile = async (path: string | undefined): Promise<Card> => (await openCard(path)).card

function named(path: string | undefined): string {
  if (!path) {
    throw new WaxError('no-card', 'CARD', 'No card file was named.', 'Give the path of a .card.json or .card.zip file.')
  }
  return path
}

/** It stays open as long as the command runs. */
async function archiveAt(path: string): Promise<CardArchive> {
  if ((await sizeOf(path)) > LARGEST_ARCHIVE_BYTES) {
    throw new WaxError('archive-too-large', path, 'The file is too large.', 'Archives may have up to 400 MB.')
  }
  return openArchive(path, basename(path))
}

/** Throws a WaxError for what is no file: a folder, a pipe or a device has no end that could be read to. */
export async function sizeOf(path: string): Promise<number> {
  const found = await stat(path).catch(() => null)
  if (!found) throw new WaxError('no-file', path, 'The file cannot be read.', 'Check the path.')
  if (found.isFile()) return found.size
  const what = found.isDirectory() ? 'a folder' : 'no file'
  throw new WaxError('no-file', path, `This is ${what}.`, 'Name a .card.json or .card.zip file.')
}
