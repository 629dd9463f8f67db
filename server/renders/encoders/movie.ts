import { WaxError } from '../../../core/errors'
import { probe, rawFrames } from '../ffmpeg'
import type { FilePlan, ReadFile } from './encoder'
import { bytesOfPlanes, planeForm } from './planes'

// What the files have in common that ffmpeg writes and reads.

/** Says of frames that they are BT.709 in the legal range, of square pixels: options of the output do not tag, the frames must carry it. */
export const SAID_709 = 'setparams=color_primaries=bt709:color_trc=bt709:colorspace=bt709:range=tv,setsar=1'

export const TAGS_709 = { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', range: 'tv' }

/** RGB to luma and chroma by zscale: swscale would take BT.601 and round alpha. */
export const toYuv = (format: string): string =>
  [
    'zscale=matrixin=gbr:rangein=full:primariesin=709:transferin=709:matrix=709:range=limited:primaries=709:transfer=709',
    `format=${format}`,
  ].join(',')

/** What looks sharper to the eye is further from the frame; colours are kept as finely as luma. */
export const FAITHFUL_H264 = ['-x264-params', 'psy=0:aq-mode=0:chroma-qp-offset=-6']

/** What is said of frames of RGB (IEC 61966-2-1), and that their pixels are square. */
export const SAID_SRGB = 'setparams=color_primaries=bt709:color_trc=iec61966-2-1:colorspace=gbr,setsar=1'

/** A QuickTime file whose list of frames stands first, so that it is read before all of it has come, with its colour told. */
export const MOV = ['-movflags', '+faststart+write_colr', '-f', 'mov']

export const timecodeArgs = ({ options: { timecode } }: FilePlan): string[] => (timecode ? ['-timecode', timecode] : [])

/** Reads a file whose codec keeps integer RGBA to the byte. */
export async function readRgba(path: string, format: 'rgba' | 'rgba64le', input: string[] = []): Promise<ReadFile> {
  const { width, height, rate, timecode } = await probe(path, input)
  const bits = format === 'rgba' ? 8 : 16
  const frames = rawFrames(path, format, (width * height * bits) / 2, input)
  return { width, height, rate, tags: null, timecode, stored: { kind: 'pixels', bits }, frames }
}

/** Reads a file whose codec keeps luma and chroma: its own planes, since a conversion to 8 bits would round on the way. */
export async function readPlanes(path: string, input: string[] = [], native?: string): Promise<ReadFile> {
  const { width, height, rate, tags, timecode, pixelFormat, sideAlpha } = await probe(path)
  const format = native ?? pixelFormat
  const form = planeForm(format)
  if (!form) throw new WaxError('other-pixels', 'file', `Its pixels are ${pixelFormat}.`, 'Render it again.')
  const frames = rawFrames(path, format, bytesOfPlanes({ width, height }, form), input)
  // Read as another format than it says it has, the alpha is a second picture beside it.
  const alpha = native ? sideAlpha : form.alpha
  return {
    width,
    height,
    rate,
    tags,
    timecode,
    alpha,
    stored: { kind: 'planes', format, full: tags.range === 'pc' },
    frames,
  }
}
