import { once } from 'node:events'
import { spawn } from 'node:child_process'
import type { ChildProcessWithoutNullStreams } from 'node:child_process'
import type { Rate } from '../../../core/time/rate'
import type { DecodedFile, DecodedFrame, EncoderDefinition, FilePlan, FrameWriter } from './encoder'

// Frames travel as 16-bit RGB to planar YUV by zscale (BT.709, limited range): swscale would take BT.601 and
// round alpha. The codec keeps alpha in 16 bits without loss of its 10.
const TO_YUV = [
  'format=gbrap16le',
  'zscale=matrixin=gbr:rangein=full:primariesin=709:transferin=709:matrix=709:range=limited:primaries=709:transfer=709',
  'format=yuva444p10le',
].join(',')

export const proRes4444: EncoderDefinition = {
  format: 'prores4444',
  bitsFor: () => 16,
  // 10-bit alpha: half a step of 1/1023 is 0.125 of 255; dithering to 16 bits and the codec's 16-bit form add less.
  alphaTolerance: 0.5,
  open,
  decode,
}

async function open(plan: FilePlan): Promise<FrameWriter> {
  const { width, height, rate } = plan
  const encoder = startFfmpeg([
    ...['-f', 'rawvideo', '-pix_fmt', 'rgba64le', '-s', `${width}x${height}`],
    ...['-r', `${rate.numerator}/${rate.denominator}`, '-i', 'pipe:0', '-vf', TO_YUV],
    ...['-c:v', 'prores_ks', '-profile:v', '4444', '-alpha_bits', '16', '-qscale:v', '1', '-vendor', 'apl0'],
    ...['-f', 'mov', '-y', plan.path],
  ])
  return {
    write: async ({ pixels }) => {
      encoder.check()
      const drained = encoder.child.stdin.write(pixels)
      // A pipe that broke is told by the encoder's own last words, when it has ended.
      if (!drained) await Promise.race([once(encoder.child.stdin, 'drain').catch(() => encoder.ended), encoder.ended])
      encoder.check()
    },
    close: async () => {
      encoder.child.stdin.end()
      await encoder.ended
      encoder.check()
    },
    abort: async () => {
      encoder.child.kill('SIGKILL')
      await encoder.ended
    },
  }
}

interface Running {
  child: ChildProcessWithoutNullStreams
  ended: Promise<void>
  /** Throws where the program has failed. */
  check(): void
}

function startFfmpeg(args: string[], program = 'ffmpeg'): Running {
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

interface Probe {
  streams: { width: number; height: number; r_frame_rate: string; pix_fmt: string }[]
}

async function probe(path: string): Promise<Probe['streams'][number]> {
  const show = ['-v', 'error', '-select_streams', 'v:0', '-show_entries', 'stream=width,height,r_frame_rate,pix_fmt']
  const { child, ended, check } = startFfmpeg([...show, '-of', 'json', path], 'ffprobe')
  let text = ''
  for await (const part of child.stdout) text += String(part)
  await ended
  check()
  const [stream] = (JSON.parse(text) as Probe).streams
  if (!stream) throw new Error('The file has no picture stream.')
  return stream
}

async function decode(plan: FilePlan): Promise<DecodedFile> {
  const { width, height, r_frame_rate, pix_fmt } = await probe(plan.path)
  const [numerator, denominator] = r_frame_rate.split('/').map(Number)
  const rate: Rate = { numerator: numerator!, denominator: denominator! }
  return { width, height, rate, frames: decodeAlpha(plan.path, width, height, pix_fmt) }
}

/** Reads the codec's own planes: a conversion to 8 bits would round alpha on the way. */
async function* decodeAlpha(path: string, width: number, height: number, format: string): DecodedFile['frames'] {
  const depth = /^yuva444p(10|12|16)le$/.exec(format)?.[1]
  // Without an alpha plane every pixel is solid.
  if (!depth) {
    yield { alpha: { values: new Uint8Array(width * height).fill(1), top: 1 }, exact: null }
    return
  }
  const top = 2 ** Number(depth) - 1
  const plane = width * height * 2
  const { child, ended, check } = startFfmpeg(['-i', path, '-f', 'rawvideo', '-pix_fmt', format, 'pipe:1'])
  const frame = Buffer.from(new ArrayBuffer(plane * 4))
  let filled = 0
  try {
    for await (const part of child.stdout as AsyncIterable<Buffer>) {
      let taken = 0
      while (taken < part.length) {
        const copied = part.copy(frame, filled, taken)
        filled += copied
        taken += copied
        if (filled === frame.length) {
          filled = 0
          const values = new Uint16Array(frame.buffer, plane * 3, width * height).slice()
          yield { alpha: { values, top }, exact: null } satisfies DecodedFrame
        }
      }
    }
    await ended
    check()
  } finally {
    child.kill('SIGKILL')
  }
}
