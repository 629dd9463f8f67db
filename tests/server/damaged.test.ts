import { execFileSync } from 'node:child_process'
import { cpSync, mkdtempSync, renameSync, rmSync, statSync, truncateSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { extname, join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { RenderWish } from '#core/formats/deliveries/render-options'
import type { DeliveryFormat } from '#core/formats/deliveries/table'
import { deliveryOf, DELIVERY_FORMATS } from '#core/formats/deliveries/table'
import type { FramePicture } from '#core/frame/engine'
import type { RenderPlan } from '#server/renders/plan'
import { framesOf, held, planned, softCard, written } from '../support/delivered'

// Every delivery is damaged on purpose in every way in which it can be, and its check must refuse it. What cannot happen to a
// format is said beside it: a sequence of pictures has no rate, RGB has no matrix.

const folder = mkdtempSync(join(tmpdir(), 'wax-damaged-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

type Damage =
  | 'frame lost'
  | 'frame twice'
  | 'last frame empty'
  | 'alpha dropped'
  | 'premultiplied taken for straight'
  | 'wrong matrix'
  | 'wrong range'
  | 'wrong rate'
  | 'wrong colour tags'
  | 'cut short'

/** What a damage cannot be done to, and why. */
const CANNOT: Record<Damage, Partial<Record<string, string>>> = {
  'frame lost': { still: 'it is one frame' },
  'frame twice': { still: 'it is one frame' },
  'last frame empty': { still: 'it is one frame' },
  'alpha dropped': { review: 'it has none' },
  'premultiplied taken for straight': { review: 'it has no alpha' },
  'wrong matrix': notYuv(),
  'wrong range': notYuv(),
  'wrong rate': {
    ...{ png: 'pictures have no rate', exr: 'pictures have no rate', still: 'pictures have no rate' },
    'fillkey png': 'pictures have no rate',
  },
  'wrong colour tags': notYuv(),
  'cut short': {},
}

function notYuv() {
  const formats = [
    'png',
    'exr',
    'rle',
    'movpng',
    'movpng 16 bits premultiplied',
    'apng',
    'webp',
    'gif',
    'still',
    'fillkey png',
  ]
  return Object.fromEntries(formats.map((format) => [format, 'it holds RGB']))
}

/** Every delivery, fill and key as all that they are written as. */
const CASES: [string, DeliveryFormat, Partial<RenderWish>][] = [
  ...DELIVERY_FORMATS.map((format): [string, DeliveryFormat, Partial<RenderWish>] => [format, format, {}]),
  ['fillkey png', 'fillkey', { codec: 'png' }],
  ['fillkey h264', 'fillkey', { codec: 'h264', fill: 'straight', key: 'full' }],
  ['fillkey full', 'fillkey', { key: 'full', fill: 'straight' }],
  ['prores4444 premultiplied', 'prores4444', { alpha: 'premultiplied', matte: '#20C080' }],
  ['movpng 16 bits premultiplied', 'movpng', { bits: 16, alpha: 'premultiplied' }],
]

/** Changes RGBA of every pixel in place. */
type Change = (values: Uint8Array | Uint16Array | Float32Array, at: number, top: number) => void

const change = (picture: FramePicture, by: Change): FramePicture => {
  const pixels = picture.pixels.slice()
  const { bits } = picture
  const values =
    bits === 8 ? pixels : bits === 'float' ? new Float32Array(pixels.buffer) : new Uint16Array(pixels.buffer)
  // A half that is 1 is 0x3C00.
  const top = { 8: 255, 16: 65_535, half: 0x3c00, float: 1 }[bits]
  for (let at = 0; at < values.length; at += 4) by(values, at, top)
  return { ...picture, pixels }
}

const each =
  (by: Change) =>
  (frames: FramePicture[]): FramePicture[] =>
    frames.map((frame) => change(frame, by))

/** What somebody did to the pictures before they were written. */
const DONE: Partial<Record<Damage, (frames: FramePicture[], isStraight: boolean) => FramePicture[]>> = {
  'frame lost': (frames) => frames.filter((_, i) => i !== 2),
  'frame twice': (frames) => frames.map((frame, i) => (i === 3 ? frames[2]! : frame)),
  'last frame empty': (frames) => [
    ...frames.slice(0, -1),
    change(frames.at(-1)!, (values, at) => values.fill(0, at, at + 4)),
  ],
  'alpha dropped': each((values, at, top) => {
    values[at + 3] = top
  }),
  'premultiplied taken for straight': (frames, isStraight) =>
    each((values, at, top) => {
      const alpha = values[at + 3]!
      if (alpha === 0) return
      for (let c = at; c < at + 3; c++)
        values[c] = isStraight ? (values[c]! * alpha) / top : Math.min(top, (values[c]! * top) / alpha)
    })(frames),
}

/** What another program did to the finished file: it was decoded, filtered and written again by the same codec. */
const FILTERED: Partial<Record<Damage, string>> = {
  'wrong matrix':
    'scale=in_color_matrix=bt709:out_color_matrix=bt601:in_range=tv:out_range=tv,setparams=colorspace=bt709:range=tv',
  'wrong range':
    'scale=in_color_matrix=bt709:out_color_matrix=bt709:in_range=tv:out_range=pc,setparams=colorspace=bt709:range=tv',
  'wrong colour tags': 'setparams=colorspace=smpte170m:color_primaries=smpte170m:color_trc=smpte170m',
}

const CODECS: Record<string, string[]> = {
  prores4444: [
    '-c:v',
    'prores_ks',
    '-profile:v',
    '4444',
    '-alpha_bits',
    '16',
    '-qscale:v',
    '1',
    '-pix_fmt',
    'yuva444p10le',
  ],
  webm: ['-c:v', 'libvpx-vp9', '-crf', '18', '-b:v', '0', '-auto-alt-ref', '0', '-pix_fmt', 'yuva420p'],
  fillkey: ['-c:v', 'prores_ks', '-profile:v', '3', '-qscale:v', '1', '-pix_fmt', 'yuv422p10le'],
  'fillkey h264': ['-c:v', 'libx264', '-crf', '10', '-pix_fmt', 'yuv420p'],
  review: ['-c:v', 'libx264', '-crf', '18', '-pix_fmt', 'yuv420p'],
}

function refilter(path: string, filter: string, codec: string[], isWebm: boolean): void {
  const made = path.replace(/(\.\w+)$/, '.again$1')
  const input = isWebm ? ['-c:v', 'libvpx-vp9'] : []
  execFileSync('ffmpeg', ['-v', 'error', ...input, '-i', path, '-vf', filter, ...codec, '-y', made])
  renameSync(made, path)
}

describe.each(CASES)('%s', (name, format, options) => {
  // GIF counts in hundredths of a second.
  const card = { ...softCard(format === 'gif' ? { numerator: 25, denominator: 1 } : undefined), length: 6 }
  const isSmall = format === 'still'
  const wish: RenderWish = { format, from: 0, to: isSmall ? 1 : card.length, ...options }
  let frames: FramePicture[]
  let plan: RenderPlan

  const plannedAt = (where: string): RenderPlan => {
    const files = deliveryOf(format).files({ ...options })
    return planned(
      card,
      wish,
      files.map(({ role, ending }) => join(folder, `${name}-${where}${role}${ending}`.replace(/ /g, '-'))),
    )
  }

  beforeAll(async () => {
    plan = plannedAt('whole')
    frames = framesOf(card, plan.plan)
    await written(plan.plan, isSmall ? frames.slice(0, 1) : frames)
  })

  test('whole, it passes, and says so of all that it was asked', async () => {
    const { passed, checks, read } = await held(plan, frames)
    expect(checks.filter((check) => !check.passed)).toEqual([])
    expect(passed).toBe(true)
    expect(read).toHaveLength(isSmall ? 1 : 6)
    expect(checks.map((check) => check.name)).toEqual(expect.arrayContaining(['frames', 'size', 'colour', 'order']))
    if (!isSmall) expect(checks.map((check) => check.name)).toContain('seam')
  })

  const damages = (Object.keys(CANNOT) as Damage[]).filter((damage) => CANNOT[damage][name] === undefined)
  test.each(damages)('with %s, it is refused', async (damage) => {
    const now = plannedAt(damage)
    const done = DONE[damage]
    const filter = FILTERED[damage]
    if (done) {
      const pictures = done(isSmall ? frames.slice(0, 1) : frames, now.plan.form.alpha === 'straight')
      await written({ ...now.plan, frames: pictures.length }, pictures)
    } else if (damage === 'wrong rate') {
      await written({ ...now.plan, rate: { numerator: format === 'gif' ? 50 : 24, denominator: 1 } }, frames)
    } else {
      // What is done to a finished file is done to a copy of the whole one.
      plan.plan.paths.forEach((whole, i) => cpSync(whole, now.plan.paths[i]!, { recursive: true }))
      const path = now.plan.paths[0]!
      if (filter) refilter(path, filter, CODECS[name] ?? CODECS[format]!, extname(path) === '.webm')
      if (damage === 'cut short') truncateSync(path, Math.round(statSync(path).size * 0.6))
    }
    const { passed, checks } = await held(now, frames)
    expect({ damage, passed, wrong: checks.filter((check) => !check.passed).length > 0 }).toEqual({
      damage,
      passed: false,
      wrong: true,
    })
  })
})
