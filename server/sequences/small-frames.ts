import { mkdtemp, readdir, rm, stat } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { extname, join } from 'node:path'
import type { Sharp } from 'sharp'
import sharp from '../pictures/fresh-sharp'
import { WaxError } from '../../core/errors'
import type { SmallFrame } from '../../core/judge/best-cut'
import { MOST_COMPARED } from '../../core/judge/best-cut'
import type { Rate } from '../../core/values/rate'
import { unpackNumbered } from './numbered'
import { decoderOf, output, readerOf, startOf, videoStream } from './programs'

// Every frame of a sequence as a few pixels, to be compared: of numbered PNG files in a folder or a ZIP file, or of any file of moving pictures that
// ffmpeg or sharp reads.

/** Pixels across; as many down as the form asks. */
const ACROSS = 64

export interface SmallSequence {
  frames: SmallFrame[]
  /** Of the sequence itself. */
  width: number
  height: number
  /** Null where the files say none. */
  rate: Rate | null
}

/** Throws a WaxError that names the file, or the number of the frame, that cannot be. */
export async function smallSequence(path: string): Promise<SmallSequence> {
  const found = await stat(path).catch(() => null)
  if (!found) throw new WaxError('no-file', path, 'There is no file or folder here.', 'Check the path.')
  if (found.isDirectory()) return ofFolder(path)
  if ((await startOf(path)).toString('latin1', 0, 2) === 'PK') return ofZip(path)
  return extname(path).toLowerCase() === '.webp' ? ofWebp(path) : ofVideo(path)
}

/** Numbered PNG files in a ZIP file. */
async function ofZip(path: string): Promise<SmallSequence> {
  const folder = await mkdtemp(join(tmpdir(), 'wax-cut-'))
  try {
    const { order } = await unpackNumbered(path, path, folder)
    const { frames, ...sequence } = await ofFolder(folder)
    return { ...sequence, frames: order ? order.map((stored) => frames[stored]!) : frames }
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** The size of compared frames of a form. */
export const sizeFor = (width: number, height: number) => ({
  w: Math.min(ACROSS, width),
  h: Math.max(1, Math.round((Math.min(ACROSS, width) * height) / width)),
})

/** From straight RGBA: luma (BT.709) of premultiplied colour, and alpha. */
function compared(rgba: Uint8Array): SmallFrame {
  const count = rgba.length / 4
  const [luma, alpha] = [new Uint8Array(count), new Uint8Array(count)]
  for (let i = 0; i < count; i++) {
    const [r, g, b, a] = [rgba[i * 4]!, rgba[i * 4 + 1]!, rgba[i * 4 + 2]!, rgba[i * 4 + 3]!]
    luma[i] = Math.round(((0.2126 * r + 0.7152 * g + 0.0722 * b) * a) / 255)
    alpha[i] = a
  }
  return { luma, alpha }
}

function checkCount(path: string, count: number): void {
  if (count > MOST_COMPARED) {
    throw new WaxError(
      'too-many-frames',
      path,
      `It has more than ${MOST_COMPARED} frames.`,
      'Cut it roughly first: a loop is looked for in a few minutes at the most.',
    )
  }
}

/** The number that a file's name ends with. */
const numberOf = (name: string) => Number(/(\d+)\.png$/i.exec(name)?.[1] ?? NaN)

/** All numbered PNG files of a folder. */
export async function ofFolder(path: string): Promise<SmallSequence> {
  const numbered = (await readdir(path))
    .filter((name) => Number.isFinite(numberOf(name)))
    .sort((a, b) => numberOf(a) - numberOf(b))
  if (numbered.length === 0)
    throw new WaxError('no-pictures', path, 'The folder has no numbered PNG files.', 'Name them such as boat-0001.png.')
  checkCount(path, numbered.length)
  const gap = numbered.findIndex((name, i) => i > 0 && numberOf(name) !== numberOf(numbered[i - 1]!) + 1)
  if (gap > 0) {
    const missing = numberOf(numbered[gap - 1]!) + 1
    throw new WaxError(
      'missing-frame',
      join(path, numbered[gap]!),
      `Frame ${missing} is missing.`,
      'Bring it back, or number the files anew.',
    )
  }
  const first = await sharp(join(path, numbered[0]!)).metadata()
  const { width, height } = first
  const frames: SmallFrame[] = []
  for (let i = 0; i < numbered.length; i += TOGETHER) {
    const some = numbered.slice(i, i + TOGETHER).map((name) => ofFile(join(path, name), { width, height }))
    frames.push(...(await Promise.all(some)))
  }
  return { frames, width, height, rate: null }
}

/** Files that are read at once. */
const TOGETHER = 4

async function ofFile(file: string, { width, height }: { width: number; height: number }): Promise<SmallFrame> {
  const picture = sharp(file)
  const size = await picture.metadata().catch(() => null)
  if (!size) throw new WaxError('no-picture', file, 'It cannot be read as a PNG file.', 'Write it again.')
  if (size.width !== width || size.height !== height) {
    throw new WaxError(
      'other-size',
      file,
      `It is ${size.width}×${size.height} px, the first one ${width}×${height}.`,
      'Bring in frames of one size.',
    )
  }
  const { w, h } = sizeFor(width, height)
  return compared(await small(picture, w, h))
}

const small = (picture: Sharp, w: number, h: number): Promise<Buffer> =>
  picture.toColourspace('srgb').ensureAlpha().resize(w, h, { fit: 'fill', kernel: 'linear' }).raw().toBuffer()

export async function ofWebp(path: string): Promise<SmallSequence> {
  const {
    width,
    pageHeight,
    height,
    pages = 1,
    delay,
  } = await sharp(path, { animated: true })
    .metadata()
    .catch(() => {
      throw new WaxError(
        'no-picture',
        path,
        'It cannot be read as a WebP file.',
        'Write it again, or choose another file.',
      )
    })
  checkCount(path, pages)
  const size = sizeFor(width, pageHeight ?? height)
  const frames: SmallFrame[] = []
  for (let page = 0; page < pages; page++) frames.push(compared(await small(sharp(path, { page }), size.w, size.h)))
  const rate = delay?.[0] ? { numerator: 1000, denominator: delay[0] } : null
  return { frames, width, height: pageHeight ?? height, rate }
}

export async function ofVideo(path: string): Promise<SmallSequence> {
  const stream = await videoStream(path)
  if (!stream)
    throw new WaxError(
      'no-pictures',
      path,
      'The file has no pictures that can be read.',
      'Choose a file of moving pictures.',
    )
  const { width, height, r_frame_rate } = stream
  const { w, h } = sizeFor(width, height)
  const scaled = ['-vf', `scale=${w}:${h}:flags=area`, '-vsync', '0', '-frames:v', String(MOST_COMPARED + 1)]
  const bytes = await output('ffmpeg', [
    ...decoderOf(stream),
    ...((await readerOf(path)) ?? []),
    '-i',
    path,
    ...scaled,
    '-f',
    'rawvideo',
    '-pix_fmt',
    'rgba',
    'pipe:1',
  ])
  const frame = w * h * 4
  const count = Math.floor((bytes?.length ?? 0) / frame)
  if (!bytes || count === 0)
    throw new WaxError(
      'broken-file',
      path,
      'The file breaks off before its first picture.',
      'Bring it in again from where it was made.',
    )
  checkCount(path, count)
  const [numerator, denominator] = r_frame_rate.split('/').map(Number)
  const frames = Array.from({ length: count }, (_, i) => compared(bytes.subarray(i * frame, (i + 1) * frame)))
  return { frames, width, height, rate: { numerator: numerator!, denominator: denominator! } }
}
