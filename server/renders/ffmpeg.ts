import { spawn } from 'node:child_process'
import type { ChildProcessWithoutNullStreams } from 'node:child_process'
import type { Rate } from '../../core/values/rate'
import type { ColourTags } from './encoders/encoder'
import { READERS } from '../sequences/containers'
import { FramePipe } from './frame-pipe'

// Everything that is done with ffmpeg and ffprobe: starting them, asking about a file, reading its planes as they are.

/** A program at work. */
export interface Running {
  child: ChildProcessWithoutNullStreams
  ended: Promise<void>
  /** Throws where the program has failed. */
  check(): void
}

/**
 * What files are read as: containers, raw frames of our own, numbered pictures of our own. A file that names other files, such as a
 * playlist, would have those opened, whoever's they are.
 */
const READ_AS = [...READERS, 'rawvideo', 'image2', 'exr_pipe']
const INPUT_LIMITS = ['-protocol_whitelist', 'file,pipe', '-format_whitelist', READ_AS.join()]

/** The arguments, with what each input may be before it: the only one of ffprobe, those of ffmpeg. */
export const guarded = (program: string, args: readonly string[]): string[] =>
  program === 'ffprobe'
    ? [...INPUT_LIMITS, ...args]
    : args.flatMap((one) => (one === '-i' ? [...INPUT_LIMITS, one] : [one]))

/** `output`: where its output goes, the end of a pipe. */
export function startFfmpeg(args: string[], program = 'ffmpeg', output: 'pipe' | number = 'pipe'): Running {
  const guardedArgs = guarded(program, args)
  const said = program === 'ffmpeg' ? ['-hide_banner', '-loglevel', 'error', ...guardedArgs] : guardedArgs
  const child = spawn(program, said, { stdio: ['pipe', output, 'pipe'] }) as ChildProcessWithoutNullStreams
  let complaint = ''
  let failure: Error | null = null
  child.stderr.on('data', (text: Buffer) => (complaint = (complaint + text.toString()).slice(-2000)))
  child.stdin.on('error', () => {
    // The reason arrives with the exit code.
  })
  const ended = new Promise<void>((resolve) => {
    child.on('error', (error) => {
      failure = error
      resolve()
    })
    child.on('close', (code) => {
      // With some formats it says that the disk is full, and ends as if all were well.
      const isWhole = code === 0 && !complaint.includes('No space left on device')
      if (!isWhole) failure ??= new Error(`${program} stopped with code ${code}: ${complaint.trim()}`)
      resolve()
    })
  })
  return {
    child,
    ended,
    check: () => {
      if (failure) throw failure
    },
  }
}

/** What a file says of its first picture stream. */
export interface Stream {
  width: number
  height: number
  rate: Rate
  codec: string
  /** As ffmpeg calls it, for example yuva444p12le. */
  pixelFormat: string
  tags: ColourTags
  /** Of the first frame, as SMPTE ST 12-1 writes it; null where the file has none. */
  timecode: string | null
  /** Whether a second picture of alpha goes along, as WebM has it. */
  sideAlpha: boolean
}

interface ProbedStream {
  width: number
  height: number
  r_frame_rate: string
  codec_name: string
  pix_fmt: string
  color_primaries?: string
  color_transfer?: string
  color_space?: string
  color_range?: string
  tags?: Record<string, string>
}

/** What ffprobe says where it knows nothing. */
const said = (word: string | undefined) =>
  word === undefined || word === 'unknown' || word === 'reserved' ? null : word

/** Throws where the file has no picture stream. */
export async function probe(path: string, input: string[] = []): Promise<Stream> {
  const show = ['-v', 'error', '-select_streams', 'v:0', '-show_streams']
  const { child, ended, check } = startFfmpeg([...show, '-of', 'json', ...input, path], 'ffprobe')
  let text = ''
  for await (const part of child.stdout) text += String(part)
  await ended
  check()
  const [stream] = (JSON.parse(text) as { streams: ProbedStream[] }).streams
  if (!stream) throw new Error('The file has no picture stream.')
  const { width, height, r_frame_rate, codec_name, pix_fmt, tags = {} } = stream
  const [numerator, denominator] = r_frame_rate.split('/').map(Number)
  const tag = (name: string) => Object.entries(tags).find(([key]) => key.toLowerCase() === name)?.[1]
  return {
    ...{ width, height, codec: codec_name, pixelFormat: pix_fmt },
    rate: { numerator: numerator!, denominator: denominator! },
    tags: {
      primaries: said(stream.color_primaries),
      transfer: said(stream.color_transfer),
      matrix: said(stream.color_space),
      range: said(stream.color_range),
    },
    timecode: tag('timecode') ?? null,
    sideAlpha: tag('alpha_mode') === '1',
  }
}

/**
 * Frames as raw bytes in a pixel format: the codec's own, so that nothing is converted on the way; each that is stored, once.
 * `input`: options before the file, `output`: after it. The buffer is used again.
 */
export async function* rawFrames(
  path: string,
  format: string,
  bytes: number,
  input: string[] = [],
  output: string[] = [],
): AsyncGenerator<Buffer> {
  const read = [...input, '-i', path, '-map', '0:v:0', '-vsync', '0', ...output]
  const pipe = new FramePipe()
  const { child, ended, check } = startFfmpeg(
    [...read, '-f', 'rawvideo', '-pix_fmt', format, 'pipe:1'],
    'ffmpeg',
    pipe.writeEnd,
  )
  pipe.closeWriteEnd()
  try {
    yield* pipe.frames(bytes)
    await ended
    check()
  } finally {
    child.kill('SIGKILL')
  }
}
