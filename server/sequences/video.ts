import { extentOf } from '../../core/extent'
import { setPriority } from 'node:os'
import { WaxError } from '../../core/errors'
import type { Rate } from '../../core/values/rate'
import { rateSchema } from '../../core/values/rate'
import { startFfmpeg } from '../renders/ffmpeg'
import { isDiskFull } from '../rim/full-disk'
import type { SequenceAbout } from './about'
import { expectCount } from './numbered'
import type { VideoStream } from './programs'
import { decoderOf, output, readerOf, videoStream } from './programs'
import { MOST_SEQUENCE_FRAMES } from '../../core/pieces/sequence'

// What ffmpeg reads: videos, GIF, and PNG files that move.

type Described = Pick<SequenceAbout, 'width' | 'height' | 'frames' | 'order' | 'rate' | 'bits' | 'notes'> & {
  hasAlpha: boolean
  stream: VideoStream
}

/** Files whose pictures are each shown for a time of their own. */
const TIMED = new Set(['gif', 'apng'])

export async function videoAbout(path: string, place: string): Promise<Described> {
  const stream = await videoStream(path, ['-count_packets'])
  if (!stream)
    throw new WaxError(
      'no-pictures',
      place,
      'The file has no pictures that can be read.',
      'Choose a file of moving pictures, or a ZIP file of numbered PNG files.',
    )
  const { width, height, codec_name, pix_fmt } = stream
  const stored = Number(stream.nb_read_packets) || 0
  if (stored === 0)
    throw new WaxError(
      'broken-file',
      place,
      'The file breaks off before its first picture.',
      'Bring it in again from where it was made.',
    )
  if (stored === 1) throw new WaxError('still', place, 'It has a single picture.', 'Bring it in as a picture instead.')
  expectCount(stored, place)
  const rate = rateOf(stream.avg_frame_rate) ?? rateOf(stream.r_frame_rate)
  const timed = TIMED.has(codec_name) ? evened(await durations(path)) : null
  const notes = timed?.note ? [timed.note] : []
  return {
    ...{ width, height, notes, stream },
    frames: timed?.order?.length ?? stored,
    order: timed?.order ?? null,
    rate: timed ? timed.rate : rate,
    bits: isDeep(pix_fmt) ? 16 : 8,
    hasAlpha: hasAlpha(stream),
  }
}

/** ffmpeg names formats by their channels and bits. */
const isDeep = (format: string) => /(9|10|12|14|16|48|64)(le|be)?$/.test(format) && !/^(bgr|rgb)(4|8)$/.test(format)
const hasAlpha = (stream: VideoStream) =>
  /^(yuva|gbrap|rgba|bgra|argb|abgr|ya\d|pal8)/.test(stream.pix_fmt) || decoderOf(stream).length > 0

function rateOf(text: string): Rate | null {
  const [numerator, denominator] = text.split('/').map(Number)
  return reduced(numerator ?? 0, denominator ?? 0)
}

/** A rate in the numbers that a card takes; null where it is none. */
function reduced(numerator: number, denominator: number): Rate | null {
  if (!(numerator > 0) || !(denominator > 0)) return null
  let [a, b] = [numerator, denominator]
  while (b) [a, b] = [b, a % b]
  const exact = rateSchema.safeParse({ numerator: numerator / a, denominator: denominator / a })
  if (exact.success) return exact.data
  const near = rateSchema.safeParse({ numerator: Math.round((numerator / denominator) * 1001), denominator: 1001 })
  return near.success ? near.data : null
}

/** For how long each picture is shown, in milliseconds. */
async function durations(path: string): Promise<number[]> {
  const show = ['-v', 'error', '-select_streams', 'v:0', '-show_entries', 'packet=duration_time', '-of', 'json']
  const text = await output('ffprobe', [...show, ...((await readerOf(path)) ?? []), path])
  const { packets = [] } = JSON.parse(text?.toString() || '{}') as { packets?: { duration_time?: string }[] }
  return packets.map(({ duration_time }) => Math.round(Number(duration_time ?? 0) * 1000))
}

/** The least time that a step of an uneven sequence takes, in milliseconds: 100 a second. */
const LEAST_STEP = 10

/**
 * Pictures that are each shown for some milliseconds, as steps of one length: a picture that is shown longer comes several times.
 * Times that are rounded to hundredths of a second, as GIF has them, differ by one of them.
 */
export function evened(times: readonly number[]): { order: number[] | null; rate: Rate | null; note: string | null } {
  const shown = times.map((time) => (time > 0 ? time : 100))
  const [least, most] = extentOf(shown)
  const mean = shown.reduce((sum, time) => sum + time, 0) / shown.length
  const even = { order: null, rate: reduced(Math.round(1_000_000 / mean), 1000), note: null }
  if (most - least <= LEAST_STEP) return even
  const step = Math.max(LEAST_STEP, shown.reduce(divisor))
  const order = shown.flatMap((time, i) => new Array<number>(Math.max(1, Math.round(time / step))).fill(i))
  const note = 'Its pictures are shown for times of their own: longer ones come several times.'
  return order.length <= MOST_SEQUENCE_FRAMES ? { order, rate: reduced(1000, step), note } : even
}

function divisor(a: number, b: number): number {
  while (b) [a, b] = [b, a % b]
  return a
}

/** Filters that give straight RGB as the file says, or, where it says nothing, as its size lets one expect (ITU-R BT.601, BT.709). */
function toRgb({ pix_fmt, color_space, height }: VideoStream): string {
  const isYuv = pix_fmt.startsWith('yuv') || pix_fmt.startsWith('nv')
  const said = color_space && !['unknown', 'unspecified', 'gbr'].includes(color_space)
  const matrix = isYuv && !said ? `:in_color_matrix=${height >= 576 ? 'bt709' : 'bt601'}` : ''
  return `scale=flags=accurate_rnd+full_chroma_int+full_chroma_inp${matrix}`
}

/** Niceness of what is done ahead. */
const BEHIND = 10

/** Writes every stored picture of a file into a folder, in their order, each of them whole as soon as it is there. */
export async function decodeVideo(
  path: string,
  stream: VideoStream,
  bits: 8 | 16,
  folder: string,
  signal?: AbortSignal,
): Promise<void> {
  const { child, ended, check } = startFfmpeg([
    ...decoderOf(stream),
    ...((await readerOf(path)) ?? []),
    ...['-i', path, '-map', '0:v:0', '-vsync', '0', '-frames:v', String(MOST_SEQUENCE_FRAMES)],
    ...['-vf', toRgb(stream), '-pix_fmt', bits === 16 ? 'rgba64be' : 'rgba'],
    ...['-c:v', 'png', '-compression_level', '1', '-pred', 'up'],
    ...['-f', 'image2', '-atomic_writing', '1', '-start_number', '0', `${folder}/%06d.png`],
  ])
  // What somebody waits for on the stage goes first.
  if (child.pid) setPriority(child.pid, BEHIND)
  const stop = () => child.kill('SIGKILL')
  signal?.addEventListener('abort', stop)
  await ended
  signal?.removeEventListener('abort', stop)
  try {
    check()
  } catch (error) {
    // A file that is cut off has been read as far as it goes; a reading that was broken off, by us or by a full disk, has not.
    if (signal?.aborted || child.exitCode === null || isDiskFull(error)) throw error
  }
}

/** Across: enough to tell on what colours were laid. */
const GUESSED = 480

/** Two pictures of a file, small, from within it, where more is seen than at its ends: straight RGBA as the file has it. */
export async function someOfVideo(
  path: string,
  { stream, frames, rate }: Pick<Described, 'stream' | 'frames' | 'rate'>,
): Promise<Uint8Array[]> {
  const perSecond = rate ? rate.numerator / rate.denominator : 25
  const at = [0.35, 0.7].map((share) => (Math.floor(frames * share) / perSecond).toFixed(3))
  const reader = (await readerOf(path)) ?? []
  const found = await Promise.all(
    at.map((seconds) =>
      output('ffmpeg', [
        ...['-ss', seconds, ...decoderOf(stream), ...reader, '-i', path, '-map', '0:v:0', '-frames:v', '1'],
        ...['-vf', `${toRgb(stream)},scale='min(${GUESSED},iw)':-2:flags=neighbor`],
        ...['-f', 'rawvideo', '-pix_fmt', 'rgba', 'pipe:1'],
      ]),
    ),
  )
  return found.flatMap((pixels) => (pixels ? [new Uint8Array(pixels)] : []))
}
