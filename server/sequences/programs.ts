import { open } from 'node:fs/promises'
import { startFfmpeg } from '../renders/ffmpeg'
import { readerFor, TELLING_BYTES } from './containers'

/** All that a program writes; null where it fails before it has written anything. */
export async function output(program: string, args: string[]): Promise<Buffer | null> {
  const { child, ended, check } = startFfmpeg(args, program)
  const parts: Buffer[] = []
  for await (const part of child.stdout as AsyncIterable<Buffer>) parts.push(part)
  await ended
  try {
    check()
  } catch {
    if (parts.length === 0) return null
  }
  return Buffer.concat(parts)
}

/** The first bytes of a file. */
export async function startOf(path: string, bytes = 64): Promise<Buffer> {
  const file = await open(path)
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(bytes), 0, bytes, 0)
    return buffer.subarray(0, bytesRead)
  } finally {
    await file.close()
  }
}

/** Options by which a file is read as what its first bytes say, and as nothing else; null where they say nothing that is known. */
export async function readerOf(path: string): Promise<string[] | null> {
  const reader = readerFor(await startOf(path, TELLING_BYTES))
  return reader === null ? null : ['-f', reader]
}

/** What ffprobe says of a file's first stream of pictures. */
export interface VideoStream {
  width: number
  height: number
  r_frame_rate: string
  avg_frame_rate: string
  codec_name: string
  pix_fmt: string
  color_space?: string
  nb_read_packets?: string
  tags?: Record<string, string>
}

/** Null where the file has no pictures that ffmpeg reads. */
export async function videoStream(path: string, more: string[] = []): Promise<VideoStream | null> {
  const show = ['-v', 'error', '-select_streams', 'v:0', '-show_streams', ...more, '-of', 'json']
  const reader = await readerOf(path)
  if (!reader) return null
  const text = await output('ffprobe', [...show, ...reader, path])
  const { streams = [] } = JSON.parse(text?.toString() || '{}') as { streams?: VideoStream[] }
  return streams[0]?.width ? streams[0] : null
}

/** ffmpeg's own decoders drop the alpha of VP8 and VP9. */
export function decoderOf({ codec_name, tags }: VideoStream): string[] {
  const hasAlpha = Object.entries(tags ?? {}).some(
    ([name, value]) => name.toLowerCase() === 'alpha_mode' && value === '1',
  )
  return hasAlpha ? ['-c:v', codec_name === 'vp8' ? 'libvpx' : 'libvpx-vp9'] : []
}
