import type { FramePicture } from '../../../core/frame/engine'
import { startFfmpeg } from '../ffmpeg'
import type { FilePlan, FrameWriter } from './encoder'

/** What ffmpeg calls raw RGBA of integers. */
export const rawName = (bits: FramePicture['bits']): string => (bits === 16 ? 'rgba64le' : 'rgba')

/** Options of ffmpeg for raw frames that come through its first pipe. */
export const rawInput = ({ width, height, rate }: FilePlan, format: string): string[] => [
  ...['-f', 'rawvideo', '-pix_fmt', format, '-s', `${width}x${height}`],
  ...['-r', `${rate.numerator}/${rate.denominator}`, '-i', 'pipe:0'],
]

/** Hands frames to ffmpeg, as raw bytes, one after the other. */
export function pipeInto(
  args: string[],
  bytesOf: (picture: FramePicture) => Uint8Array = ({ pixels }) => pixels,
): FrameWriter {
  const encoder = startFfmpeg(args)
  return {
    write: async (picture) => {
      encoder.check()
      const bytes = bytesOf(picture)
      const written = new Promise<void>((done) => encoder.child.stdin.write(bytes, (error) => error ?? done()))
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

/** Several writers that take the same frames, each what it makes of them. */
export const together = (writers: readonly FrameWriter[]): FrameWriter => ({
  write: async (picture) => void (await Promise.all(writers.map((writer) => writer.write(picture)))),
  close: async () => void (await Promise.all(writers.map((writer) => writer.close()))),
  abort: async () => void (await Promise.all(writers.map((writer) => writer.abort()))),
})
