import { execFileSync } from 'node:child_process'
import { cpSync, readFileSync, renameSync, statSync, truncateSync, writeFileSync } from 'node:fs'
import { extname } from 'node:path'
import { unzipSync, zipSync } from 'fflate'
import { toLinear } from '#core/values/oklab'
import type { FramePicture } from '#core/frame/engine'
import type { FilePlan } from '#server/renders/encoders/encoder'
import { written } from './delivered'

// What can go wrong with a delivery between here and an edit: done on purpose, to every delivery to which it can be done. The test of
// checks holds each against what it was made from.

/** A delivery that is whole, and what it was made from. */
export interface Whole {
  /** The name of its case. */
  name: string
  plan: FilePlan
  frames: readonly FramePicture[]
}

export interface Damage {
  /** Cases that it cannot be done to, by the start of their names, and why. */
  cannot: Readonly<Record<string, string>>
  /** Puts the damaged delivery at the paths of `plan`. */
  make(whole: Whole, plan: FilePlan): Promise<void>
  /** What the check must say of it, where it can be known. */
  cause?: RegExp
  /** Cases whose cause cannot be told, and why. */
  untold?: Readonly<Record<string, string>>
}

const RGB = {
  ...{ png: 'it holds RGB', exr: 'it holds RGB', rle: 'it holds RGB', movpng: 'it holds RGB', apng: 'it holds RGB' },
  ...{ webp: 'it holds RGB', gif: 'it holds RGB', still: 'it holds RGB', 'fillkey png': 'it holds RGB' },
}
const ONE = { still: 'it is one frame' }
const NO_ALPHA = { review: 'it has no alpha' }
const NO_RATE = { png: 'pictures have no rate', exr: 'pictures have no rate', still: 'pictures have no rate' }
const NO_TIMECODE = {
  ...{ png: 'it has no timecode', exr: 'it has no timecode', still: 'it has no timecode', webm: 'it has no timecode' },
  ...{ apng: 'it has no timecode', webp: 'it has no timecode', gif: 'it has no timecode' },
  'fillkey png': 'it has no timecode',
}
const OVER_MATTE = { 'prores4444 premultiplied': 'the matte is as it was' }
const PNGS = { 'fillkey png': 'pictures have neither' }

/** Pictures that are other than they were meant. */
const pictures =
  (change: (frames: FramePicture[], plan: FilePlan) => FramePicture[]) =>
  async ({ frames }: Whole, plan: FilePlan): Promise<void> => {
    const changed = change([...frames], plan)
    await written({ ...plan, frames: changed.length }, changed)
  }

type Values = Uint8Array | Uint16Array | Float32Array
/** Changes RGBA at a place. `top` stands for 1. */
type Change = (values: Values, at: number, top: number) => void

function changed(picture: FramePicture, by: (values: Values, top: number) => void): FramePicture {
  const pixels = picture.pixels.slice()
  const { bits } = picture
  const values: Values =
    bits === 8 ? pixels : bits === 'float' ? new Float32Array(pixels.buffer) : new Uint16Array(pixels.buffer)
  // A half that is 1 is 0x3C00.
  by(values, { 8: 255, 16: 65_535, half: 0x3c00, float: 1 }[bits])
  return { ...picture, pixels }
}

const pixel =
  (change: Change) =>
  (picture: FramePicture): FramePicture =>
    changed(picture, (values, top) => {
      for (let at = 0; at < values.length; at += 4) change(values, at, top)
    })

const each = (change: Change) => pictures((frames) => frames.map(pixel(change)))

/** Of each picture, the pixel at another place. */
const moved = (from: (x: number, y: number, size: { width: number; height: number }) => [number, number]) =>
  pictures((frames) =>
    frames.map((picture) => {
      const { width, height } = picture
      return changed(picture, (values) => {
        const whole = values.slice()
        for (let y = 0; y < height; y++) {
          for (let x = 0; x < width; x++) {
            const [fromX, fromY] = from(x, y, picture)
            const at = (y * width + x) * 4
            const isInside = fromX >= 0 && fromX < width && fromY >= 0 && fromY < height
            for (let c = 0; c < 4; c++) values[at + c] = isInside ? whole[(fromY * width + fromX) * 4 + c]! : 0
          }
        }
      })
    }),
  )

/** What another program makes of a finished file: decoded, filtered, written again by the same codec. */
const filtered =
  (filter: string) =>
  async ({ name, plan: whole }: Whole, { paths }: FilePlan): Promise<void> => {
    copied(whole.paths, paths)
    const path = paths[0]!
    const made = path.replace(/(\.\w+)$/, '.again$1')
    const input = extname(path) === '.webm' ? ['-c:v', 'libvpx-vp9'] : []
    const codec = CODECS[name] ?? CODECS[name.split(' ')[0]!]!
    execFileSync('ffmpeg', ['-v', 'error', ...input, '-i', path, '-vf', filter, ...codec, '-y', made])
    renameSync(made, path)
    await Promise.resolve()
  }

const copied = (from: readonly string[], to: readonly string[]) =>
  from.forEach((path, i) => cpSync(path, to[i]!, { recursive: true }))

const CODECS: Record<string, string[]> = {
  prores4444: [
    ...['-c:v', 'prores_ks', '-profile:v', '4444', '-alpha_bits', '16', '-qscale:v', '1'],
    ...['-pix_fmt', 'yuva444p10le', '-c:d', 'copy'],
  ],
  webm: ['-c:v', 'libvpx-vp9', '-crf', '18', '-b:v', '0', '-auto-alt-ref', '0', '-pix_fmt', 'yuva420p'],
  fillkey: ['-c:v', 'prores_ks', '-profile:v', '3', '-qscale:v', '1', '-pix_fmt', 'yuv422p10le', '-c:d', 'copy'],
  'fillkey h264': ['-c:v', 'libx264', '-crf', '10', '-pix_fmt', 'yuv420p'],
  review: ['-c:v', 'libx264', '-crf', '18', '-pix_fmt', 'yuv420p'],
}

/** The whole file, but for the key, which is written by another plan. */
const keyOf =
  (other: (plan: FilePlan) => Partial<FilePlan>) =>
  async ({ frames, plan: whole }: Whole, plan: FilePlan): Promise<void> => {
    await written({ ...plan, ...other(plan) }, frames)
    cpSync(whole.paths[0]!, plan.paths[0]!)
  }
const ONLY_KEYS = (names: readonly string[]) =>
  Object.fromEntries(names.filter((name) => !name.startsWith('fillkey')).map((name) => [name, 'it has no key']))

/** Every damage. `formats`: the names of all deliveries. */
export function damages(formats: readonly string[]): Record<string, Damage> {
  const noKey = { ...ONLY_KEYS(formats), ...PNGS }
  return {
    'a frame lost': {
      cannot: ONE,
      make: pictures((frames) => frames.filter((_, i) => i !== 2)),
      cause: /^frame 2 is missing$/,
    },
    'a frame in place of the next': {
      cannot: ONE,
      make: pictures((frames) => frames.map((frame, i) => (i === 3 ? frames[2]! : frame))),
      cause: /^frame 3 is missing, frame 2 stands in its place once more$/,
    },
    'a frame too many': {
      cannot: ONE,
      make: pictures((frames) => frames.flatMap((frame, i) => (i === 2 ? [frame, frame] : [frame]))),
      cause: /^frame 2 stands there twice$/,
    },
    'two frames exchanged': {
      cannot: ONE,
      make: pictures((frames) => frames.map((_, i) => frames[i === 2 ? 3 : i === 3 ? 2 : i]!)),
      cause: /^frames 2 and 3 have changed places$/,
    },
    'all late by one': {
      cannot: ONE,
      make: pictures((frames) => frames.map((_, i) => frames[Math.max(0, i - 1)]!)),
      cause: /^all frames are late by one$/,
    },
    'the last frame empty': {
      cannot: ONE,
      make: pictures((frames) => [
        ...frames.slice(0, -1),
        pixel((values, at) => values.fill(0, at, at + 4))(frames.at(-1)!),
      ]),
    },
    'alpha lost': {
      cannot: NO_ALPHA,
      make: each((values, at, top) => {
        values[at + 3] = top
      }),
      cause: /^alpha is lost/,
      untold: { gif: 'what was clear shows the matte' },
    },
    'alpha inverted': {
      cannot: NO_ALPHA,
      make: each((values, at, top) => {
        values[at + 3] = top - values[at + 3]!
      }),
      cause: /^alpha is inverted$/,
      untold: { exr: 'half numbers are taken from one by their bits' },
    },
    'alpha on or off': {
      cannot: { ...NO_ALPHA, gif: 'it is on or off' },
      make: each((values, at, top) => {
        values[at + 3] = values[at + 3]! * 2 >= top ? top : 0
      }),
      cause: /^alpha is only on or off$/,
      untold: { exr: 'half of a half number is no half of its bits' },
    },
    'premultiplied taken for straight, or straight for premultiplied': {
      cannot: NO_ALPHA,
      make: pictures((frames, { form }) =>
        frames.map(
          pixel((values, at, top) => {
            const alpha = values[at + 3]!
            if (alpha === 0) return
            for (let c = at; c < at + 3; c++)
              values[c] =
                form.alpha === 'straight' ? (values[c]! * alpha) / top : Math.min(top, (values[c]! * top) / alpha)
          }),
        ),
      ),
      cause: /^colours were (multiplied by alpha once more|divided by alpha)/,
      untold: {
        ...{ exr: 'half numbers are divided by their bits', gif: 'it has no alpha but on and off' },
        ...OVER_MATTE,
      },
    },
    'red and blue exchanged': {
      cannot: {},
      make: each((values, at) => {
        const red = values[at]!
        values[at] = values[at + 2]!
        values[at + 2] = red
      }),
      cause: /^red and blue have changed places$/,
      untold: { review: 'the backdrop is as it was', ...OVER_MATTE },
    },
    'shifted by a pixel': {
      cannot: {},
      make: moved((x, y) => [x - 1, y]),
      cause: /^the picture is shifted by a pixel to the right$/,
      untold: { review: 'the backdrop is as it was' },
    },
    'upside down': {
      cannot: {},
      make: moved((x, y, { height }) => [x, height - 1 - y]),
      cause: /^the picture stands upside down$/,
      untold: { review: 'the backdrop is as it was' },
    },
    'light taken for linear': {
      cannot: { exr: 'it is in linear light' },
      make: each((values, at, top) => {
        for (let c = at; c < at + 3; c++) values[c] = Math.round(toLinear(values[c]! / top) * top)
      }),
      cause: /^light was taken from display to linear$/,
      untold: { review: 'the backdrop is as it was', gif: 'few colours come as near by other ways', ...OVER_MATTE },
    },
    'darker by a tenth': {
      cannot: {},
      make: each((values, at) => {
        for (let c = at; c < at + 3; c++) values[c] = Math.round(values[c]! * 0.9)
      }),
    },
    'another matrix': {
      cannot: RGB,
      make: filtered(
        'scale=in_color_matrix=bt709:out_color_matrix=bt601:in_range=tv:out_range=tv,setparams=colorspace=bt709:range=tv',
      ),
      cause: /^it was written by the matrix of BT.601 and is read by that of BT.709$/,
      untold: {
        review: 'over grey, the codec differs by as much',
        webm: 'its edges differ by as much',
        fillkey: 'its edges differ by as much',
      },
    },
    'another range': {
      cannot: RGB,
      make: filtered(
        'scale=in_color_matrix=bt709:out_color_matrix=bt709:in_range=tv:out_range=pc,setparams=colorspace=bt709:range=tv',
      ),
      cause: /^it was written in full levels and is read in video levels$/,
    },
    'other colour tags': {
      cannot: RGB,
      make: filtered('setparams=colorspace=smpte170m:color_primaries=smpte170m:color_trc=smpte170m'),
    },
    'another rate': {
      cannot: { ...NO_RATE, ...PNGS },
      make: ({ name, frames }, plan) =>
        written({ ...plan, rate: { numerator: name === 'gif' ? 50 : 24, denominator: 1 } }, frames),
    },
    'another timecode': {
      cannot: NO_TIMECODE,
      make: ({ frames }, plan) => written({ ...plan, options: { ...plan.options, timecode: '02:00:00:00' } }, frames),
    },
    'cut short': {
      cannot: {},
      make: async ({ plan: whole }, { paths }) => {
        copied(whole.paths, paths)
        truncateSync(paths[0]!, Math.round(statSync(paths[0]!).size * 0.6))
        await Promise.resolve()
      },
    },
    'a hole in the numbers': {
      cannot: Object.fromEntries(
        formats
          .filter((name) => !['png', 'exr', 'fillkey png'].includes(name))
          .map((name) => [name, 'its frames have no names']),
      ),
      make: async ({ plan: whole }, { paths }) => {
        copied(whole.paths, paths)
        const files = Object.entries(unzipSync(readFileSync(paths[0]!)))
        const renamed = files.map(([name, bytes], i) => [i < 3 ? name : name.replace('0000', '0001'), bytes])
        writeFileSync(paths[0]!, zipSync(Object.fromEntries(renamed) as Record<string, Uint8Array>, { level: 0 }))
        await Promise.resolve()
      },
    },
    'the key of another rate': {
      cannot: noKey,
      make: keyOf(() => ({ rate: { numerator: 24, denominator: 1 } })),
    },
    'the key of another timecode': {
      cannot: noKey,
      make: keyOf(({ options }) => ({ options: { ...options, timecode: '02:00:00:00' } })),
    },
    'the key of another range': {
      cannot: noKey,
      make: keyOf(({ options }) => ({ options: { ...options, key: options.key === 'full' ? 'legal' : 'full' } })),
    },
  }
}
