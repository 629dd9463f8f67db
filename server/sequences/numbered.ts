import { createReadStream, createWriteStream } from 'node:fs'
import { mkdir, open, readdir } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { createHash } from 'node:crypto'
import { Transform } from 'node:stream'
import { finished, pipeline } from 'node:stream/promises'
import yauzl from 'yauzl'
import { ZipFile } from 'yazl'
import { WaxError } from '../../core/errors'
import { expectSpace } from '../renders/space'
import { MOST_SEQUENCE_FRAMES } from '../../core/pieces/sequence'
import { LARGEST_SEQUENCE_BYTES } from './about'

// Numbered PNG files: in a folder, or in a ZIP file.

/** One of the files of a sequence. */
interface Numbered {
  name: string
  /** What stands before its number. */
  stem: string
  number: number
}

const isHidden = (name: string) => /(^|\/)(\.|__MACOSX\/)/.test(name)

function numbered(name: string): Numbered | null {
  const match = /^(.*?)(\d+)\.png$/i.exec(name)
  return match && !isHidden(name) ? { name, stem: match[1]!, number: Number(match[2]) } : null
}

/** The files of one sequence in their order. Throws a WaxError where there are none, several sequences, or too many. */
function inOrder(names: readonly string[], place: string): Numbered[] {
  const files = names.flatMap((name) => numbered(name) ?? [])
  if (files.length === 0)
    throw new WaxError(
      'no-pictures',
      place,
      'There are no numbered PNG files in it.',
      'Name them such as boat-0001.png.',
    )
  const other = files.find(({ stem }) => stem !== files[0]!.stem)
  if (other)
    throw new WaxError(
      'several-sequences',
      place,
      `It holds several sequences: “${files[0]!.stem}” and “${other.stem}”.`,
      'Bring in one at a time.',
    )
  expectCount(files.length, place)
  return files.sort((a, b) => a.number - b.number)
}

export function expectCount(count: number, place: string): void {
  if (count <= MOST_SEQUENCE_FRAMES) return
  throw new WaxError(
    'too-many-frames',
    place,
    `It has ${count} pictures.`,
    `A sequence may have up to ${MOST_SEQUENCE_FRAMES}: cut it where it was made, or bring it in as several.`,
  )
}

/** What a PNG file says of itself at its beginning and end (PNG 3rd edition §5.2, §11.2.1). */
interface PngFile {
  width: number
  height: number
  bits: 8 | 16
  hasAlpha: boolean
  isWhole: boolean
}

async function pngFile(path: string, place: string): Promise<PngFile> {
  const file = await open(path)
  try {
    const { size } = await file.stat()
    const head = (await file.read(Buffer.alloc(33), 0, 33, 0)).buffer
    if (
      size < 45 ||
      head.toString('latin1', 0, 8) !== '\x89PNG\r\n\x1a\n' ||
      head.toString('latin1', 12, 16) !== 'IHDR'
    )
      throw new WaxError('no-picture', place, 'It is no PNG file.', 'Write it again.')
    const tail = (await file.read(Buffer.alloc(8), 0, 8, size - 8)).buffer
    // Colour types 4 and 6 have alpha; a palette may have.
    const type = head[25]!
    return {
      width: head.readUInt32BE(16),
      height: head.readUInt32BE(20),
      bits: head[24] === 16 ? 16 : 8,
      hasAlpha: type === 4 || type === 6 || type === 3,
      isWhole: tail.toString('latin1', 0, 4) === 'IEND',
    }
  } finally {
    await file.close()
  }
}

export interface NumberedPictures {
  /** Of all files in their order: however they were packed. */
  hash: string
  width: number
  height: number
  bits: 8 | 16
  hasAlpha: boolean
  order: number[] | null
  frames: number
  notes: string[]
}

export const storedName = (index: number) => `${String(index).padStart(6, '0')}.png`

/** Unpacks a ZIP file of numbered PNG files into a folder. What it says of their sizes is not believed. */
export async function unpackNumbered(path: string, place: string, folder: string): Promise<NumberedPictures> {
  const zip = await yauzl.openPromise(path, { autoClose: false }).catch(() => {
    throw new WaxError('no-archive', place, 'It is no ZIP file that can be read.', 'Pack the pictures again.')
  })
  await mkdir(folder, { recursive: true })
  try {
    const entries = new Map<string, yauzl.Entry>()
    for await (const entry of zip.eachEntry()) {
      if (numbered(entry.fileName)) entries.set(entry.fileName, entry)
      expectCount(entries.size, place)
    }
    const files = inOrder([...entries.keys()], place)
    const whole = createHash('sha256')
    let total = 0
    const checked: PngFile[] = []
    for (const [i, { name }] of files.entries()) {
      const hash = createHash('sha256')
      let size = 0
      const counted = new Transform({
        transform(part: Buffer, _, done) {
          total += part.length
          size += part.length
          hash.update(part)
          const isTooLarge = size > LARGEST_PNG_BYTES || total > LARGEST_SEQUENCE_BYTES
          done(isTooLarge ? tooLarge(`${place}: ${name}`) : null, part)
        },
      })
      // A picture that is packed well may be large.
      if (i % 16 === 0) await expectSpace(folder, 'Free some space, then bring it in again.')
      const file = join(folder, storedName(i))
      const stream = await zip.openReadStreamPromise(entries.get(name)!)
      await pipeline(stream, counted, createWriteStream(file)).catch((error: unknown) => {
        throw error instanceof WaxError
          ? error
          : new WaxError('no-archive', `${place}: ${name}`, 'It cannot be unpacked.', 'Pack the pictures again.')
      })
      whole.update(hash.digest())
      checked.push(await pngFile(file, `${place}: ${name}`))
    }
    return { hash: whole.digest('hex'), ...described(files, checked, place) }
  } finally {
    zip.close()
  }
}

/** One of the pictures: the largest that may be, packed badly. */
const LARGEST_PNG_BYTES = 200 * 1024 * 1024

const tooLarge = (place: string) =>
  new WaxError(
    'sequence-too-large',
    place,
    'Its pictures are too large.',
    `They may have up to ${LARGEST_SEQUENCE_BYTES / 1024 / 1024} MB together: make them smaller, or fewer.`,
  )

function described(
  files: readonly Numbered[],
  checked: readonly PngFile[],
  place: string,
): Omit<NumberedPictures, 'hash'> {
  const { width, height } = checked[0]!
  const odd = checked.findIndex((file) => file.width !== width || file.height !== height)
  if (odd > 0) {
    const found = `${checked[odd]!.width}×${checked[odd]!.height} px`
    throw new WaxError(
      'other-size',
      `${place}: ${basename(files[odd]!.name)}`,
      `It is ${found}, the first one ${width}×${height} px.`,
      'Bring in pictures of one size.',
    )
  }
  const notes: string[] = []
  // What is missing or torn shows the picture before it: the rest plays.
  const order: number[] = []
  let last = -1
  for (const [i, { number }] of files.entries()) {
    const missing = i > 0 ? number - files[i - 1]!.number - 1 : 0
    if (missing < 0)
      throw new WaxError('same-number', `${place}: ${files[i]!.name}`, 'Its number is there twice.', 'Take one away.')
    if (missing > 0) {
      const first = files[i - 1]!.number + 1
      const which = missing === 1 ? `Picture ${first} is` : `Pictures ${first} to ${number - 1} are`
      notes.push(`${which} missing: the one before is shown instead.`)
      expectCount(order.length + missing, place)
      for (let k = 0; k < missing; k++) order.push(Math.max(0, last))
    }
    if (checked[i]!.isWhole) last = i
    else notes.push(`Picture ${number} is cut off: the one before is shown instead.`)
    order.push(Math.max(0, last))
  }
  if (last < 0) throw new WaxError('no-picture', place, 'All of its pictures are cut off.', 'Write them again.')
  expectCount(order.length, place)
  return {
    ...{ width, height, frames: order.length, notes },
    order: order.every((stored, i) => stored === i) ? null : order,
    bits: checked.some(({ bits }) => bits === 16) ? 16 : 8,
    hasAlpha: checked.some(({ hasAlpha }) => hasAlpha),
  }
}

/** Packs the numbered PNG files of a folder as a ZIP file. */
export async function packFolder(folder: string, path: string): Promise<void> {
  const files = inOrder(await readdir(folder), folder)
  const zip = new ZipFile()
  const file = createWriteStream(path)
  zip.outputStream.pipe(file)
  for (const { name } of files)
    zip.addReadStream(createReadStream(join(folder, name)), name, { compress: false, mtime: new Date(0) })
  zip.end()
  await finished(file)
}
