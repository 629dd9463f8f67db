import { probe, rawFrames, startFfmpeg } from '../ffmpeg'
import type { DecodedFile, DecodedFrame, Encoder, FilePlan, FrameWriter } from './encoder'

// Frames travel as 16-bit RGB to planar YUV by zscale (BT.709, limited range): swscale would take BT.601 and
// round alpha. The codec keeps alpha in 16 bits without loss of its 10.
const TO_YUV = [
  'format=gbrap16le',
  'zscale=matrixin=gbr:rangein=full:primariesin=709:transferin=709:matrix=709:range=limited:primaries=709:transfer=709',
  'format=yuva444p10le',
].join(',')

export const proRes4444: Encoder = { open, decode }

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
      const written = new Promise<void>((done) => encoder.child.stdin.write(pixels, (error) => error ?? done()))
      // A pipe that broke is told by the encoder's own last words, when it has ended.
      await Promise.race([written, encoder.ended])
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

async function decode(plan: FilePlan): Promise<DecodedFile> {
  const { width, height, rate, pixelFormat } = await probe(plan.path)
  return { width, height, rate, frames: decodeFrames(plan.path, width, height, pixelFormat) }
}

/** Reads the codec's own planes: a conversion to 8 bits would round alpha on the way. */
async function* decodeFrames(path: string, width: number, height: number, format: string): DecodedFile['frames'] {
  const depth = Number(/^yuva444p(10|12|16)le$/.exec(format)?.[1])
  // Without an alpha plane every pixel is solid.
  if (!depth) {
    yield { alpha: { values: new Uint8Array(width * height).fill(1), top: 1 }, exact: null, colour: null }
    return
  }
  const size = width * height
  for await (const frame of rawFrames(path, format, size * 8)) {
    const planes = new Uint16Array(frame.buffer, 0, size * 4).slice()
    const colour = (y: number) => rowOfRgb(planes, { width, size, depth }, y)
    yield {
      alpha: { values: planes.subarray(size * 3), top: 2 ** depth - 1 },
      exact: null,
      colour,
    } satisfies DecodedFrame
  }
}

/** One row as RGB, 0–1, of planar Y′CbCr: BT.709, limited range (ITU-R BT.709-6 §3, BT.2100 for more bits). */
function rowOfRgb(
  planes: Uint16Array,
  { width, size, depth }: { width: number; size: number; depth: number },
  y: number,
) {
  const scale = 2 ** (depth - 8)
  const row = new Float32Array(width * 3)
  for (let x = 0; x < width; x++) {
    const at = y * width + x
    const luma = (planes[at]! / scale - 16) / 219
    const cb = (planes[size + at]! / scale - 128) / 224
    const cr = (planes[2 * size + at]! / scale - 128) / 224
    row[x * 3] = luma + 1.5748 * cr
    row[x * 3 + 1] = luma - 0.1873 * cb - 0.4681 * cr
    row[x * 3 + 2] = luma + 1.8556 * cb
  }
  return row
}
