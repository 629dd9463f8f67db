import type { FramePicture } from '../../../core/frame/engine'
import type { Encoder, FilePlan, FrameWriter, ReadFile } from './encoder'
import { numbersOf } from './matte'
import { MOV, FAITHFUL_H264, readPlanes, SAID_709, TAGS_709, timecodeArgs, toYuv } from './movie'
import { filesIn, frameName, numberedFiles, numbersIn } from './numbered-files'
import { pipeInto, rawInput, rawName, together } from './piped'
import { decodePng, encodePng } from './png'

// Two files for a mixer: the colours, and alpha as a picture of greys. Legal levels run from 16 to 235 of 8 bits (ITU-R BT.709-6
// §5). Full ones run from 0 to 255 of 8 bits, but of 10 bits from 4 to 1019: the others are reserved for the timing of SDI, and
// ProRes keeps none of them (SMPTE RP 2077, from memory).

export const fillAndKey: Encoder = {
  tags: ({ options: { codec } }) => (codec === 'png' ? null : TAGS_709),
  // A MOV of ProRes has no word for levels, and is taken for legal: its values tell.
  keyTags: ({ options: { codec, key } }) =>
    codec === 'png' ? null : { ...TAGS_709, range: key !== 'full' ? 'tv' : codec === 'h264' ? 'pc' : null },
  // In the levels of a PNG a legal key has fewer steps than alpha.
  shown: ({ options: { codec, key } }) =>
    Promise.resolve({ of: (picture) => (codec === 'png' && key === 'legal' ? throughLegal(picture) : picture) }),
  open: (plan) => (plan.options.codec === 'png' ? openPngs(plan) : Promise.resolve(openMovies(plan))),
  read: (plan) => (plan.options.codec === 'png' ? readPngs(plan) : readMovies(plan)),
}

const LEGAL = { from: 16, span: 219 }

/** The luma of what is clear, and how much more that of what is solid has, in the values of a codec. */
function levelsOf(plan: FilePlan): { zero: number; span: number } {
  const { depth } = codecOf(plan)
  if (plan.options.key !== 'full') return { zero: LEGAL.from * 2 ** (depth - 8), span: LEGAL.span * 2 ** (depth - 8) }
  return depth === 8 ? { zero: 0, span: 255 } : { zero: 4, span: 1015 }
}

/** A level of 16 bits: 16 of 8 bits is 4096. */
const legal16 = (alpha: number) => Math.round((LEGAL.from + (LEGAL.span * alpha) / 65_535) * 256)
const alphaOfLegal16 = (level: number) => Math.round(((level / 256 - LEGAL.from) / LEGAL.span) * 65_535)

function throughLegal(picture: FramePicture): FramePicture {
  const made = { ...picture, pixels: picture.pixels.slice() }
  const values = numbersOf(made)
  for (let at = 3; at < values.length; at += 4) values[at] = alphaOfLegal16(legal16(values[at]!))
  return made
}

const CODECS = {
  prores: {
    format: 'yuv422p10le',
    depth: 10,
    args: ['-c:v', 'prores_ks', '-profile:v', '3', '-qscale:v', '1', '-vendor', 'apl0', ...MOV],
  },
  h264: {
    format: 'yuv420p',
    depth: 8,
    args: [
      '-c:v',
      'libx264',
      '-preset',
      'medium',
      '-crf',
      '2',
      ...FAITHFUL_H264,
      '-movflags',
      '+faststart',
      '-f',
      'mp4',
    ],
  },
} as const

const codecOf = ({ options: { codec } }: FilePlan) => CODECS[codec === 'h264' ? 'h264' : 'prores']

function openMovies(plan: FilePlan): FrameWriter {
  const { format, args } = codecOf(plan)
  const [fill, key] = plan.paths as [string, string]
  const colours = pipeInto([
    ...[...rawInput(plan, rawName(16)), '-vf', `format=gbrp16le,${toYuv(format)},${SAID_709}`],
    ...[...timecodeArgs(plan), ...args, '-y', fill],
  ])
  const range = plan.options.key === 'full' ? SAID_709.replace('range=tv', 'range=pc') : SAID_709
  const greys = pipeInto(
    [...rawInput(plan, format), '-vf', range, '-pix_fmt', format, ...timecodeArgs(plan), ...args, '-y', key],
    keyPlanes(plan),
  )
  return together([colours, greys])
}

/** Alpha as luma, without colour. The bytes are used again. */
function keyPlanes(plan: FilePlan): (picture: FramePicture) => Uint8Array {
  const { width, height } = plan
  const { depth, format } = codecOf(plan)
  const { zero, span } = levelsOf(plan)
  const count = width * height
  const chromas = 2 * Math.ceil(width / 2) * (format === 'yuv420p' ? Math.ceil(height / 2) : height)
  const values = depth === 8 ? new Uint8Array(count + chromas) : new Uint16Array(count + chromas)
  values.fill(2 ** (depth - 1), count)
  const levels = Uint16Array.from({ length: 65_536 }, (_, alpha) => Math.round(zero + (span * alpha) / 65_535))
  return ({ pixels }) => {
    const rgba = new Uint16Array(pixels.buffer, pixels.byteOffset, count * 4)
    for (let i = 0, at = 3; i < count; i++, at += 4) values[i] = levels[rgba[at]!]!
    return new Uint8Array(values.buffer)
  }
}

async function readMovies(plan: FilePlan): Promise<ReadFile> {
  const [fill, key] = await Promise.all([readPlanes(plan.paths[0]!), readPlanes(plan.paths[1]!)])
  if (fill.stored.kind !== 'planes' || key.stored.kind !== 'planes') throw new Error('These are no movies.')
  const { zero, span } = levelsOf(plan)
  const stored = { ...fill.stored, key: { format: key.stored.format, zero, span } }
  // Alpha is the other file.
  return { ...fill, alpha: true, key, stored, frames: pairs(fill, key) }
}

/** Colours of the one, alpha from the greys of the other. Ends with the shorter one; throws where that is the fill. */
async function* pairs(fill: ReadFile, key: ReadFile): ReadFile['frames'] {
  const greys = key.frames[Symbol.asyncIterator]()
  try {
    for await (const colour of fill.frames) {
      const next = await greys.next()
      if (next.done) return
      yield Buffer.concat([colour, next.value])
    }
    if (!(await greys.next()).done) throw new Error('The key has more frames than the fill.')
  } finally {
    await greys.return?.()
  }
}

async function openPngs(plan: FilePlan): Promise<FrameWriter> {
  const [fills, keys] = await Promise.all(plan.paths.map((path) => numberedFiles(path)))
  const { width, height } = plan
  const count = width * height
  const isLegal = plan.options.key !== 'full'
  let index = plan.first
  return {
    write: async (picture) => {
      const rgba = numbersOf(picture)
      const fill = new Uint16Array(count * 3)
      const key = new Uint16Array(count)
      for (let i = 0; i < count; i++) {
        fill[i * 3] = rgba[i * 4]!
        fill[i * 3 + 1] = rgba[i * 4 + 1]!
        fill[i * 3 + 2] = rgba[i * 4 + 2]!
        key[i] = isLegal ? legal16(rgba[i * 4 + 3]!) : rgba[i * 4 + 3]!
      }
      const name = frameName(plan.stem, index++, '.png')
      const of = (pixels: Uint16Array<ArrayBuffer>) => ({
        width,
        height,
        bits: 16 as const,
        pixels: new Uint8Array(pixels.buffer),
      })
      const [fillPng, keyPng] = await Promise.all([encodePng(of(fill), 3), encodePng(of(key), 1)])
      await Promise.all([fills!.add(name, fillPng), keys!.add(name, keyPng)])
    },
    close: async () => void (await Promise.all([fills!.close(), keys!.close()])),
    abort: async () => void (await Promise.all([fills!.abort(), keys!.abort()])),
  }
}

async function readPngs(plan: FilePlan): Promise<ReadFile> {
  const first = await filesIn(plan.paths[0]!, '.png').next()
  if (first.done) throw new Error('The fill has no frame.')
  const { width, height, bits } = await decodePng(first.value)
  const stored = { kind: 'pixels', bits } as const
  const facts = { width, height, rate: null, tags: null, timecode: null }
  const greys = await filesIn(plan.paths[1]!, '.png').next()
  const key = greys.done ? facts : { ...facts, ...sizeOf(await decodePng(greys.value)) }
  const numbers = await numbersIn(plan.paths[0]!, '.png')
  return { ...facts, key, numbers, stored, frames: pngPairs(plan) }
}

const sizeOf = ({ width, height }: FramePicture) => ({ width, height })

async function* pngPairs(plan: FilePlan): ReadFile['frames'] {
  const [fills, keys] = plan.paths.map((path) => filesIn(path, '.png')) as [
    AsyncGenerator<Buffer>,
    AsyncGenerator<Buffer>,
  ]
  const isLegal = plan.options.key !== 'full'
  for await (const png of fills) {
    const next = await keys.next()
    if (next.done) return
    const [fill, key] = await Promise.all([decodePng(png), decodePng(next.value)])
    const rgba = numbersOf(fill)
    const greys = numbersOf(key)
    for (let at = 0; at < rgba.length; at += 4) rgba[at + 3] = isLegal ? alphaOfLegal16(greys[at + 1]!) : greys[at + 1]!
    yield fill.pixels
  }
  if (!(await keys.next()).done) throw new Error('The key has more frames than the fill.')
}
