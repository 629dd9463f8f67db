import { strFromU8, strToU8, Unzip, UnzipInflate, zipSync } from 'fflate'
import { expectCard, readCardText } from '../../core/card/read'
import type { Card } from '../../core/card/schema'
import { WaxError } from '../../core/errors'
import { LARGEST_FONT_BYTES } from '../../core/type/font'
import { LARGEST_PICTURE_BYTES } from '../pictures/own-picture'

// `.card.zip`: a card with the fonts, pictures and sequences that it names, in one file.
//   card.json            the card, as in a .card.json file
//   fonts/<id>.ttf       every font that it names, as sfnt
//   pictures/<id>/<name> every picture that it names, as the file that was brought in
//   sequences/<id>/<name> every sequence that it shows, as the file that was brought in

export const LARGEST_ARCHIVE_BYTES = 400 * 1024 * 1024
const MOST_ENTRIES = 500

export interface ArchivedPicture {
  id: string
  fileName: string
  file: Uint8Array
}

export interface CardArchive {
  card: Card
  fonts: Map<string, Uint8Array>
  pictures: ArchivedPicture[]
  sequences: ArchivedPicture[]
}

/** The bytes of an archive. Pictures are packed already, so only the rest is deflated. */
export function writeArchive({ card, fonts, pictures, sequences }: CardArchive): Uint8Array {
  const packed = [...pictures, ...sequences].reduce((sum, { file }) => sum + file.length, 0)
  if (packed > LARGEST_ARCHIVE_BYTES)
    throw new WaxError(
      'archive-too-large',
      card.name,
      'Its pictures and sequences have more than 400 MB.',
      'Take one away, or bring in smaller ones.',
    )
  return zipSync({
    'card.json': [strToU8(`${JSON.stringify(card, null, 2)}\n`), { level: 6 }],
    ...Object.fromEntries([...fonts].map(([id, bytes]) => [`fonts/${id}.ttf`, [bytes, { level: 6 }]])),
    ...Object.fromEntries(
      pictures.map(({ id, fileName, file }) => [`pictures/${id}/${safeName(fileName)}`, [file, { level: 0 }]]),
    ),
    ...Object.fromEntries(
      sequences.map(({ id, fileName, file }) => [`sequences/${id}/${safeName(fileName)}`, [file, { level: 0 }]]),
    ),
  })
}

/** A name without folders: archives are unpacked by other programs too. */
const safeName = (name: string) => name.replace(/[^\p{L}\p{N}._ -]/gu, '_').replace(/^\.+/, '') || 'picture'

/**
 * Reads an archive. Throws a WaxError where it is none, holds no card, or unpacks to more than it may; what its entries say
 * of their own size is not believed.
 */
export async function readArchive(bytes: Uint8Array, fileName: string): Promise<CardArchive> {
  if (!isWhole(bytes)) throw notAnArchive(fileName)
  let entries: Map<string, Uint8Array>
  try {
    entries = await unpacked(bytes, fileName)
  } catch (error) {
    if (error instanceof WaxError) throw error
    throw notAnArchive(fileName)
  }
  const text = entries.get('card.json')
  if (!text) {
    throw new WaxError(
      'not-an-archive',
      fileName,
      'The archive holds no card.json.',
      'Use a .card.zip that was saved from the shelf.',
    )
  }
  const { card, faults } = readCardText(strFromU8(text))
  if (!card)
    throw new WaxError(faults[0]!.code, `card.json: ${faults[0]!.place}`, faults[0]!.message, faults[0]!.remedy)
  const fonts = new Map<string, Uint8Array>()
  const pictures: ArchivedPicture[] = []
  const sequences: ArchivedPicture[] = []
  for (const [name, file] of entries) {
    const [folder, id = '', own = ''] = name.split('/')
    if (folder === 'fonts') fonts.set(id.replace(/\.ttf$/, ''), file)
    else if (folder === 'pictures') pictures.push({ id, fileName: own, file })
    else if (folder === 'sequences') sequences.push({ id, fileName: own, file })
  }
  return { card: expectCard(card), fonts, pictures, sequences }
}

/** The record that ends an archive, before a comment of up to 65,535 bytes (PKWARE APPNOTE 4.3.16): a torn one has none. */
function isWhole(bytes: Uint8Array): boolean {
  const tail = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).subarray(-(22 + 65_535))
  return tail.includes(Buffer.from([0x50, 0x4b, 5, 6]))
}

const isWanted = (name: string) =>
  name === 'card.json' || /^fonts\/[a-z0-9-]+\.ttf$/.test(name) || /^(pictures|sequences)\/[^/]+\/[^/]+$/.test(name)

function mostOf(name: string): number {
  if (name.startsWith('fonts/')) return LARGEST_FONT_BYTES * 2
  return name.startsWith('sequences/') ? LARGEST_ARCHIVE_BYTES : LARGEST_PICTURE_BYTES
}

/** Bytes that are unpacked at once; others are answered in between. */
const AT_ONCE = 256 * 1024

/** The entries that an archive may hold; the bytes are counted as they come out. */
async function unpacked(bytes: Uint8Array, fileName: string): Promise<Map<string, Uint8Array>> {
  const entries = new Map<string, Uint8Array>()
  let total = 0
  const unzip = new Unzip((entry) => {
    if (!isWanted(entry.name)) return
    const parts: Uint8Array[] = []
    let size = 0
    entry.ondata = (error, part, final) => {
      if (error) throw error
      size += part.length
      total += part.length
      if (size > mostOf(entry.name) || total > LARGEST_ARCHIVE_BYTES) throw tooLarge(fileName)
      // The same room may be used for the next part.
      parts.push(part.slice())
      if (final) entries.set(entry.name, Buffer.concat(parts, size))
      if (entries.size > MOST_ENTRIES) throw tooLarge(fileName)
    }
    entry.start()
  })
  unzip.register(UnzipInflate)
  for (let at = 0; at < bytes.length; at += AT_ONCE) {
    unzip.push(bytes.subarray(at, at + AT_ONCE), at + AT_ONCE >= bytes.length)
    await new Promise(setImmediate)
  }
  return entries
}

const notAnArchive = (fileName: string) =>
  new WaxError(
    'not-an-archive',
    fileName,
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
