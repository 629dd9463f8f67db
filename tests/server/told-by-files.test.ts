import { execFileSync } from 'node:child_process'
import { createWriteStream, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { afterAll, describe, expect, test } from '@jest/globals'
import { ZipFile } from 'yazl'
import { unzipSync } from 'fflate'
import sharp from 'sharp'
import { expectCard } from '#core/card/read'
import type { Card } from '#core/card/schema'
import type { RenderWish } from '#core/formats/deliveries/render-options'
import { deliveryOf } from '#core/formats/deliveries/table'
import type { FramePicture } from '#core/frame/engine'
import { Engine } from '#core/frame/engine'
import { pngChunks } from '#server/renders/encoders/chunks'
import { gifTimes, pngTimes } from '#server/renders/encoders/shown-times'
import type { RenderPlan } from '#server/renders/plan'
import { framesOf, held, planned, softCard, written } from '../support/delivered'
import { demoCard, engineWithFonts, fontBytes } from '../support/engine'

// What files say of themselves, and what other programs made of them: good ones are not refused, and no bad one passes.

const folder = mkdtempSync(join(tmpdir(), 'wax-told-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
let count = 0

interface Made {
  plan: RenderPlan
  frames: FramePicture[]
  paths: string[]
}

async function delivered(
  card: Card,
  wish: Partial<RenderWish> & Pick<RenderWish, 'format'>,
  shown?: FramePicture[],
): Promise<Made> {
  const whole = { from: 0, to: card.length, ...wish }
  const name = `d${count++}`
  const paths = deliveryOf(wish.format)
    .files(wish)
    .map(({ role, ending }) => join(folder, `${name}${role}${ending}`))
  const plan = planned(card, whole, paths)
  const frames = framesOf(card, plan.plan)
  await written(plan.plan, shown ?? frames)
  return { plan, frames, paths }
}
const wrong = async ({ plan, frames }: Made) =>
  (await held(plan, frames)).checks.filter(({ passed }) => !passed).map(({ name, found }) => `${name}: ${found}`)

const fault = (name: string) => expectCard(JSON.parse(readFileSync(`tests/reference/faults/${name}.card.json`, 'utf8')))
const at25 = (length = 6): Card => ({ ...softCard({ numerator: 25, denominator: 1 }), length })

/** Written again by another program. */
function again(path: string, input: string[], output: string[]): void {
  const made = path.replace(/(\.\w+)$/, '.again$1')
  execFileSync('ffmpeg', ['-v', 'error', ...input, '-i', path, ...output, '-y', made])
  renameSync(made, path)
}

describe('alpha that a file does not carry', () => {
  test('ProRes 4444 without a plane of it', async () => {
    const made = await delivered(at25(), { format: 'prores4444' })
    again(
      made.paths[0]!,
      [],
      ['-c:v', 'prores_ks', '-profile:v', '4444', '-alpha_bits', '0', '-pix_fmt', 'yuv444p10le', '-c:d', 'copy'],
    )
    expect(await wrong(made)).toContain('alpha: the file carries none')
  })

  test('WebM that says it has none, though it lies beside', async () => {
    const made = await delivered(at25(), { format: 'webm' })
    const bytes = readFileSync(made.paths[0]!)
    // Matroska's AlphaMode (RFC 9559, 5.1.4.1.28.4): 0x53C0, one byte long.
    const at = bytes.indexOf(Buffer.from([0x53, 0xc0, 0x81, 0x01]))
    expect(at).toBeGreaterThan(0)
    bytes[at + 3] = 0
    writeFileSync(made.paths[0]!, bytes)
    expect(await wrong(made)).toContain('alpha: the file carries none')
  })
})

describe('colour of thin type', () => {
  const thin = () => ({ ...fault('thin-type'), length: 3 })
  const fonts = new Map([['barlow-condensed-medium', fontBytes('barlow-condensed-medium')]])
  const shotsOf = (card: Card, plan: RenderPlan) => {
    const engine = new Engine()
    for (const [id, bytes] of fonts) engine.fonts.add(id, bytes)
    return Array.from({ length: card.length }, (_, frame) => engine.render(card, frame, plan.plan.form))
  }
  const asRed = (picture: FramePicture): FramePicture => {
    const pixels = picture.pixels.slice()
    const values = picture.bits === 8 ? pixels : new Uint16Array(pixels.buffer)
    for (let i = 0; i < values.length; i += 4) values[i + 1] = values[i + 2] = 0
    return { ...picture, pixels }
  }

  test.each([
    ['webm', {}],
    ['fillkey', {}],
    ['fillkey', { codec: 'h264' }],
    ['review', {}],
  ] as const)('in %s %j: as it is it passes, all red it does not', async (format, options) => {
    const card = thin()
    const wish = { format, from: 0, to: 3, ...options } as RenderWish
    const files = deliveryOf(format).files(options as object)
    const check = async (name: string, change: (picture: FramePicture) => FramePicture) => {
      const plan = planned(
        card,
        wish,
        files.map(({ role, ending }) => join(folder, `${name}-${format}${count++}${role}${ending}`)),
      )
      const frames = shotsOf(card, plan)
      await written(plan.plan, frames.map(change))
      return (await held(plan, frames)).checks.filter(({ passed }) => !passed).map(({ name: what }) => what)
    }
    expect(await check('white', (picture) => picture)).toEqual([])
    expect(await check('red', asRed)).toContain('colour')
  })
})

describe('frames that are nearly the same', () => {
  test('may be kept as one by a codec that rounds; by one that keeps every byte they may not', async () => {
    const engine = new Engine()
    engine.fonts.add('anton', fontBytes('anton'))
    const card = fault('nearly-equal-frames')
    const wish = { format: 'webm', from: 0, to: card.length } as const
    const plan = planned(card, wish, [join(folder, 'nearly.webm')])
    const frames = Array.from({ length: card.length }, (_, frame) => engine.render(card, frame, plan.plan.form))
    expect(new Set(frames.map(({ pixels }) => Buffer.from(pixels).toString('latin1'))).size).toBeGreaterThan(2)
    // One of them twice: their values differ by less than one step of 255.
    await written(
      plan.plan,
      frames.map((frame, i) => (i === 7 ? frames[6]! : frame)),
    )
    expect((await held(plan, frames)).checks.find(({ name }) => name === 'order')).toMatchObject({ passed: true })
  })
})

test('ProRes of a busy picture is held to its own rounding and the codec’s; with green moved by a step it is refused', async () => {
  const card = { ...demoCard('15-flat-made-glossy'), length: 1 }
  const plan = planned(card, { format: 'prores4444', from: 0, to: 1, scale: 0.5 }, [join(folder, 'busy.mov')])
  const frames = [engineWithFonts().render(card, 0, { ...plan.plan.form, scale: 0.5 })]
  const made: Made = { plan, frames, paths: [...plan.plan.paths] }
  await written(plan.plan, frames)
  const { checks } = await held(made.plan, made.frames)
  const colour = checks.find(({ name }) => name === 'colour')!
  expect([colour.passed, Number(/mean ([\d.]+) of/.exec(colour.found)![1]) > 0.2]).toEqual([true, true])
  const moved = made.frames.map((frame) => {
    const pixels = frame.pixels.slice()
    const values = new Uint16Array(pixels.buffer)
    for (let i = 0; i < values.length; i += 4) values[i + 1] = Math.max(0, values[i + 1]! - 256)
    return { ...frame, pixels }
  })
  await written(made.plan.plan, moved)
  expect(await wrong(made)).toEqual([expect.stringMatching(/^colour: /)])
})

describe('for how long pictures are shown', () => {
  test.each(['gif', 'apng', 'webp'] as const)('%s of one and of two pictures has a rate', async (format) => {
    for (const length of [1, 2])
      expect([length, await wrong(await delivered(at25(length), { format }))]).toEqual([length, []])
  })

  test('a pause in a GIF, and one that is played once', async () => {
    const made = await delivered(at25(), { format: 'gif' })
    const whole = readFileSync(made.paths[0]!)
    expect(await gifTimes(made.paths[0]!)).toEqual({ each: new Array(6).fill(0.04), plays: 0 })
    const paused = Buffer.from(whole)
    const control = Buffer.from([0x21, 0xf9, 0x04])
    paused.writeUInt16LE(50, paused.indexOf(control, paused.indexOf(control) + 1) + 4)
    writeFileSync(made.paths[0]!, paused)
    expect(await wrong(made)).toContain('times: frame 1 for another time')
    const once = Buffer.from(whole)
    once.writeUInt16LE(3, once.indexOf('NETSCAPE2.0') + 13)
    writeFileSync(made.paths[0]!, once)
    expect(await wrong(made)).toEqual(['times: played 3 times'])
  })

  test('the same in an animated PNG, and in WebP', async () => {
    const png = await delivered(at25(), { format: 'apng' })
    const bytes = readFileSync(png.paths[0]!)
    expect(await pngTimes(png.paths[0]!)).toEqual({ each: new Array(6).fill(0.04), plays: 0 })
    const second = bytes.indexOf('fcTL', bytes.indexOf('fcTL') + 1)
    bytes.writeUInt16BE(30, second + 4 + 20)
    bytes.writeUInt32BE(1, bytes.indexOf('acTL') + 8)
    writeFileSync(png.paths[0]!, bytes)
    expect(await wrong(png)).toEqual(
      expect.arrayContaining([expect.stringMatching(/^times: frame 1 for another time; played once/)]),
    )
    const webp = await delivered(at25(), { format: 'webp' })
    const riff = readFileSync(webp.paths[0]!)
    riff.writeUInt16LE(2, riff.indexOf('ANIM') + 8 + 4)
    writeFileSync(webp.paths[0]!, riff)
    expect(await wrong(webp)).toEqual(['times: played 2 times'])
  })
})

test('a ZIP that another program packed again is read by its names, without what file managers put beside', async () => {
  const made = await delivered(at25(), { format: 'png' })
  const files = Object.entries(unzipSync(readFileSync(made.paths[0]!))).reverse()
  const zip = new ZipFile()
  zip.addBuffer(Buffer.from('x'), '__MACOSX/._soft-00000.png')
  for (const [name, bytes] of files) zip.addBuffer(Buffer.from(bytes), name)
  zip.addBuffer(Buffer.from('x'), '.DS_Store')
  zip.end()
  await pipeline(zip.outputStream, createWriteStream(made.paths[0]!))
  expect(await wrong(made)).toEqual([])
})

describe('facts that editors rely on', () => {
  test.each([
    ['still', 8],
    ['still', 16],
  ] as const)('%s of %s bits says sRGB and no size in print', async (format, bits) => {
    const made = await delivered(at25(1), { format, bits })
    const types = [...pngChunks(readFileSync(made.paths[0]!))].map(({ type }) => type)
    expect(types.slice(0, 2)).toEqual(['IHDR', 'sRGB'])
    expect(types).not.toContain('pHYs')
    // A second reader: density of 72 stands for none.
    expect((await sharp(made.paths[0]!).metadata()).density ?? 72).toBe(72)
  })

  test.each([
    ['prores4444', {}],
    ['rle', {}],
    ['movpng', {}],
    ['movpng', { bits: 16 }],
    ['fillkey', {}],
  ] as const)('%s %j: the list of frames first, colour and square pixels told', async (format, options) => {
    const { paths } = await delivered(at25(), { format, ...options })
    for (const path of paths) {
      const bytes = readFileSync(path)
      expect(bytes.indexOf('moov')).toBeLessThan(bytes.indexOf('mdat'))
      const [moov, end] = [bytes.indexOf('moov'), bytes.indexOf('mdat')]
      for (const atom of ['colr', 'pasp']) {
        const at = bytes.indexOf(atom)
        expect([atom, at > moov && at < end]).toEqual([atom, true])
      }
    }
  })
})
