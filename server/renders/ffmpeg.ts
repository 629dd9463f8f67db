import { spawn } from 'node:child_process'
import type { ChildProcessWithoutNullStreams } from 'node:child_process'
import type { Rate } from '../../core/values/rate'

// Everything that is done with ffmpeg and ffprobe: starting them, asking about a file, reading its planes as they are.

/** A program at work. */
export interface Running {
  child: ChildProcessWithoutNullStreams
  ended: Promise<void>
  /** Throws where the program has failed. */
  check(): void
}

export function startFfmpeg(args: string[], program = 'ffmpeg'): Running {
  const child = spawn(program, program === 'ffmpeg' ? ['-hide_banner', '-loglevel', 'error', ...args] : args)
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
      if (code !== 0) failure ??= new Error(`${program} stopped with code ${code}: ${complaint.trim()}`)
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
  /** As ffmpeg calls it, for example yuva444p12le. */
  pixelFormat: string
}

interface Probe {
  streams: { width: number; height: number; r_frame_rate: string; pix_fmt: string }[]
}

/** Throws where the file has no picture stream. */
export async function probe(path: string): Promise<Stream> {
  const show = ['-v', 'error', '-select_streams', 'v:0', '-show_entries', 'stream=width,height,r_frame_rate,pix_fmt']
  const { child, ended, check } = startFfmpeg([...show, '-of', 'json', path], 'ffprobe')
  let text = ''
  for await (const part of child.stdout) text += String(part)
  await ended
  check()
  const [stream] = (JSON.parse(text) as Probe).streams
  if (!stream) throw new Error('The file has no picture stream.')
  const { width, height, r_frame_rate, pix_fmt } = stream
  const [numerator, denominator] = r_frame_rate.split('/').map(Number)
  return { width, height, rate: { numerator: numerator!, denominator: denominator! }, pixelFormat: pix_fmt }
}

/** Frames as raw bytes in a pixel format: the codec's own, so that nothing is converted on the way. The buffer is used again. */
export async function* rawFrames(path: string, format: string, bytes: number): AsyncGenerator<Buffer> {
  const { child, ended, check } = startFfmpeg(['-i', path, '-f', 'rawvideo', '-pix_fmt', format, 'pipe:1'])
  const frame = Buffer.from(new ArrayBuffer(bytes))
  let filled = 0
  try {
    for await (const part of child.stdout as AsyncIterable<Buffer>) {
      let taken = 0
      while (taken < part.length) {
        const copied = part.copy(frame, filled, taken)
        filled += copied
        taken += copied
        if (filled < frame.length) continue
        filled = 0
        yield frame
      }
    }
    await ended
    check()
  } finally {
    child.kill('SIGKILL')
  }
}
