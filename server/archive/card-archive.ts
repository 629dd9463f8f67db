import { createWriteStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Entry } from 'yauzl'
import yauzl from 'yauzl'
import { ZipFile } from 'yazl'
import { readCardText } from '../../core/card/read'
import type { Card } from '../../core/card/schema'
import { WaxError } from '../../core/errors'
import { LARGEST_FONT_BYTES } from '../../core/type/font'
import { LARGEST_PICTURE_BYTES } from '../pictures/own-picture'

// `.card.zip`: a card with the fonts, pictures and sequences that it names, in one file.
//   card.json            the card, as in a .card.json file
//   fonts/<id>.ttf       every font that it names, as sfnt
//   pictures/<id>/<name> every picture that it names, as the file that was brought in
//   sequences/<id>/<name> every sequence that it shows, as the file that was brought in
// Archives are larger than what one request may take of the memory: they are read and written file by file, on the disk.

export const LARGEST_ARCHIVE_BYTES = 400 * 1024 * 1024
const MOST_ENTRIES = 500

/** A file that goes into an archive: it lies on the disk, or is made. */
export interface PackedFile {
  id: string
  fileName: string
  from: string | Uint8Array
}

/** What an archive is made of. */
export interface PackedCard {
  card: Card
  fonts: ReadonlyMap<string, Uint8Array>
  pictures: readonly PackedFile[]
  sequences: readonly PackedFile[]
}

/** The bytes of an archive as they are read. Pictures are packed already, so only the rest is deflated. Throws a WaxError before the first. */
export async function archiveStream({ card, fonts, pictures, sequences }: PackedCard): Promise<Readable> {
  let packed = 0
  for (const { from } of [...pictures, ...sequences]) {
    packed += typeof from === 'string' ? (await stat(from)).size : from.length
  }
  if (packed > LARGEST_ARCHIVE_BYTES)
    throw new WaxError(
      'archive-too-large',
      card.name,
      'Its pictures and sequences have more than 400 MB.',
      'Take one away, or bring in smaller ones.',
    )
  const zip = new ZipFile()
  const out = zip.outputStream as Readable
  // A file that goes away meanwhile ends the download, and nothing else.
  zip.on('error', (error: Error) => out.destroy(error))
  zip.addBuffer(Buffer.from(`${JSON.stringify(card, null, 2)}\n`), 'card.json')
  for (const [id, bytes] of fonts) zip.addBuffer(bufferOf(bytes), `fonts/${id}.ttf`)
  const lay = (folder: string, { id, fileName, from }: PackedFile) => {
    const name = `${folder}/${id}/${safeName(fileName)}`
    if (typeof from === 'string') zip.addFile(from, name, { compress: false })
    else zip.addBuffer(bufferOf(from), name, { compress: false })
  }
  for (const file of pictures) lay('pictures', file)
  for (const file of sequences) lay('sequences', file)
  zip.end()
  return out
}

const bufferOf = (bytes: Uint8Array) => Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)

/** A name without folders: archives are unpacked by other programs too. */
const safeName = (name: string) => name.replace(/[^\p{L}\p{N}._ -]/gu, '_').replace(/^\.+/, '') || 'picture'

/** A file in an archive. It is read when it is asked for. */
export interface ArchivedFile {
  id: string
  fileName: string
  /** All of it; for files that the memory takes. */
  bytes(): Promise<Uint8Array>
  /** Writes it somewhere, as large as it may be. */
  writeTo(path: string): Promise<void>
}

/** An archive that is open; `close` when its files are not read any more. */
export interface CardArchive {
  card: Card
  fonts: ArchivedFile[]
  pictures: ArchivedFile[]
  sequences: ArchivedFile[]
  close(): void
}

/**
 * Opens an archive on the disk. Throws a WaxError where it is none, holds no card, or unpacks to more than it may; what its entries say
 * of their own size is held against what comes out of them.
 */
export async function openArchive(path: string, fileName: string): Promise<CardArchive> {
  const zip = await yauzl.openPromise(path, { autoClose: false }).catch(() => {
    throw notAnArchive(fileName)
  })
  try {
    const entries = await wantedEntries(zip, fileName)
    const unpack = new Unpacker(zip, fileName)
    const text = entries.get('card.json')
    if (!text) {
      throw new WaxError(
        'not-an-archive',
        fileName,
        'The archive holds no card.json.',
        'Use a .card.zip that was saved from the shelf.',
      )
    }
    const { card, faults } = readCardText(Buffer.from(await unpack.bytes(text)).toString())
    if (!card)
      throw new WaxError(faults[0]!.code, `card.json: ${faults[0]!.place}`, faults[0]!.message, faults[0]!.remedy)
    const inFolder = (folder: string) =>
      [...entries].flatMap(([name, entry]): ArchivedFile[] => {
        const [first, id = '', own = ''] = name.split('/')
        if (first !== folder) return []
        return [
          {
            id: folder === 'fonts' ? id.replace(/\.ttf$/, '') : id,
            fileName: folder === 'fonts' ? name : own,
            bytes: () => unpack.bytes(entry),
            writeTo: (to) => unpack.writeTo(entry, to),
          },
        ]
      })
    return {
      card,
      fonts: inFolder('fonts'),
      pictures: inFolder('pictures'),
      sequences: inFolder('sequences'),
      close: () => zip.close(),
    }
  } catch (error) {
    zip.close()
    throw error
  }
}

const isWanted = (name: string) =>
  name === 'card.json' || /^fonts\/[a-z0-9-]+\.ttf$/.test(name) || /^(pictures|sequences)\/[^/]+\/[^/]+$/.test(name)

function mostOf(name: string): number {
  if (name.startsWith('fonts/')) return LARGEST_FONT_BYTES * 2
  return name.startsWith('sequences/') ? LARGEST_ARCHIVE_BYTES : LARGEST_PICTURE_BYTES
}

/** The entries that an archive may hold, by their names. */
async function wantedEntries(zip: yauzl.ZipFile, fileName: string): Promise<Map<string, Entry>> {
  const entries = new Map<string, Entry>()
  let total = 0
  try {
    for await (const entry of zip.eachEntry()) {
      if (!isWanted(entry.fileName)) continue
      total += entry.uncompressedSize
      if (entry.uncompressedSize > mostOf(entry.fileName) || total > LARGEST_ARCHIVE_BYTES) throw tooLarge(fileName)
      entries.set(entry.fileName, entry)
      if (entries.size > MOST_ENTRIES) throw tooLarge(fileName)
    }
  } catch (error) {
    throw error instanceof WaxError ? error : notAnArchive(fileName)
  }
  return entries
}

/** Unpacks entries; one that is longer than it says is broken off there. */
class Unpacker {
  constructor(
    private readonly zip: yauzl.ZipFile,
    private readonly fileName: string,
  ) {}

  bytes(entry: Entry): Promise<Uint8Array> {
    return this.told(entry, async () => {
      const parts: Buffer[] = []
      for await (const part of await this.zip.openReadStreamPromise(entry)) parts.push(part as Buffer)
      return new Uint8Array(Buffer.concat(parts))
    })
  }

  writeTo(entry: Entry, path: string): Promise<void> {
    return this.told(entry, async () => {
      await pipeline(await this.zip.openReadStreamPromise(entry), createWriteStream(path))
    })
  }

  /** What cannot be unpacked is told as that; what cannot be written is not the archive's fault. */
  private async told<T>(entry: Entry, work: () => Promise<T>): Promise<T> {
    try {
      return await work()
    } catch (error) {
      if ((error as NodeJS.ErrnoException).syscall) throw error
      throw notAnArchive(`${this.fileName}: ${entry.fileName}`)
    }
  }
}

const notAnArchive = (place: string) =>
  new WaxError(
    'not-an-archive',
    place,
    'This is no ZIP file that can be read.',
    'Save the card with its fonts and pictures again.',
  )

const tooLarge = (fileName: string) =>
  new WaxError(
    'archive-too-large',
    fileName,
    'The archive unpacks to more than it may.',
    'A card may bring up to 400 MB of fonts, pictures and sequences.',
  )
