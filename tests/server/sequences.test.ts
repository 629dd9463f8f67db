import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { crc32, deflateSync } from 'node:zlib'
import { describe, expect, test } from '@jest/globals'
import { zipSync } from 'fflate'
import sharp from 'sharp'
import UPNG from 'upng-js'
import { guessAlpha } from '#server/sequences/alpha-guess'
import { readPictures, sequenceAbout, takeInPath } from '#server/sequences/store'
import { evened } from '#server/sequences/video'
import { randomFrom } from '../support/random'
import { at, COUNT, ffmpeg, H, numbered, picture, sequenceFolder, W } from '../support/small-sequence'

const { storage, out, pngs, source, pixelsOf } = sequenceFolder()

describe('a sequence that is brought in', () => {
  test('has the pixels of its files in every form (sharp, UPNG and ffmpeg read them too)', async () => {
    ffmpeg(...source, '-c:v', 'qtrle', out('rle.mov'))
    ffmpeg(...source, '-c:v', 'png', out('png.mov'))
    ffmpeg(...source, '-c:v', 'prores_ks', '-profile:v', '4444', '-pix_fmt', 'yuva444p10le', out('prores.mov'))
    ffmpeg(...source, '-c:v', 'libvpx-vp9', '-pix_fmt', 'yuva420p', '-crf', '8', '-b:v', '0', out('vp9.webm'))
    ffmpeg(...source, '-f', 'apng', '-plays', '0', out('boat.apng'))
    ffmpeg(...source, '-c:v', 'libx264', '-crf', '4', '-pix_fmt', 'yuv444p', out('opaque.mp4'))
    const all = Buffer.concat(Array.from({ length: COUNT }, (_, i) => picture(i)))
    const tall = sharp(all, { raw: { width: W, height: H * COUNT, channels: 4, pageHeight: H } })
    await tall
      .clone()
      .webp({ lossless: true, delay: new Array<number>(COUNT).fill(40) })
      .toFile(out('boat.webp'))
    await tall
      .clone()
      .gif({ delay: new Array<number>(COUNT).fill(40) })
      .toFile(out('boat.gif'))
    const files = Object.fromEntries(
      readdirSync(pngs).map((name) => [name, new Uint8Array(readFileSync(join(pngs, name)))]),
    )
    writeFileSync(out('boat.zip'), zipSync(files))
    // By how much of 255 a codec changes flat colours, and alpha.
    const forms: [string, number, number, 8 | 16][] = [
      ['boat', 0, 0, 8],
      ['boat.zip', 0, 0, 8],
      ['rle.mov', 0, 0, 8],
      ['png.mov', 0, 0, 8],
      ['boat.apng', 0, 0, 8],
      ['boat.webp', 0, 0, 8],
      ['prores.mov', 3, 1, 16],
      ['vp9.webm', 4, 2, 8],
    ]
    for (const [name, colour, alpha, bits] of forms) {
      const about = await takeInPath(storage, out(name))
      expect([name, about.width, about.height, about.frames, about.bits]).toEqual([name, W, H, COUNT, bits])
      for (const index of [0, 4, COUNT - 1]) {
        const found = await pixelsOf(about, index)
        const step = bits === 16 ? 257 : 1
        for (const x of [10, 50, 85]) {
          const [wanted, got] = [picture(index).subarray((20 * W + x) * 4), at(found, x, 20)]
          expect([name, index, x, Math.abs(got[3]! / step - wanted[3]!) <= alpha]).toEqual([name, index, x, true])
          if (wanted[3] === 0) continue
          const off = [0, 1, 2].map((c) => Math.abs(got[c]! / step - wanted[c]!))
          expect([name, index, x, Math.max(...off) <= colour ? true : off]).toEqual([name, index, x, true])
        }
      }
    }
    // What has no alpha is whole.
    const opaque = await takeInPath(storage, out('opaque.mp4'))
    expect([opaque.alpha, at(await pixelsOf(opaque, 3), 85, 20)[3]]).toEqual([null, 255])
    // A folder and a ZIP file of the same pictures are one sequence.
    expect((await takeInPath(storage, out('boat.zip'))).id).toBe((await takeInPath(storage, pngs)).id)
    // A second reader of the same file, every pixel.
    const second = UPNG.toRGBA8(UPNG.decode(new Uint8Array(readFileSync(out('boat.apng'))).buffer)).map(
      (one) => new Uint8Array(one),
    )
    const apng = (await sequenceAbout(storage, (await takeInPath(storage, out('boat.apng'))).id))!
    for (let i = 0; i < COUNT; i++) expect((await pixelsOf(apng, i)).pixels).toEqual(second[i])
    const gif = await takeInPath(storage, out('boat.gif'))
    expect([gif.frames, gif.rate]).toEqual([COUNT, { numerator: 25, denominator: 1 }])
    const page = await sharp(out('boat.gif'), { page: 5 }).ensureAlpha().raw().toBuffer()
    const { pixels } = await pixelsOf(gif, 5)
    // What is clear has no colour.
    for (let i = 0; i < page.length; i += 4)
      expect([...pixels.subarray(i, i + 4)]).toEqual(
        page[i + 3] ? [...page.subarray(i, i + 4)] : [expect.any(Number), expect.any(Number), expect.any(Number), 0],
      )
  }, 120_000)

  test('is the same whatever is asked for first, and is read again where its pictures are gone', async () => {
    const about = await takeInPath(storage, out('rle.mov'))
    const before = await pixelsOf(about, 6)
    await readPictures(storage, about).done
    rmSync(join(storage, 'sequences', about.id, 'frames'), { recursive: true, force: true })
    const [last, first] = await Promise.all([pixelsOf(about, 6), pixelsOf(about, 0)])
    expect(last.pixels).toEqual(before.pixels)
    expect(at(first, 10, 20)).toEqual([
      ...picture(0)
        .subarray((20 * W + 10) * 4)
        .subarray(0, 4),
    ])
  })

  test('of any depth and kind of PNG file is as a second reader says (UPNG); 16 bits stay 16', async () => {
    const random = randomFrom(5)
    // UPNG reads rows of 1 to 4 bits wrongly where they do not end with a byte.
    const [w, h] = [16, 7]
    const chunk = (type: string, data: Uint8Array) => {
      const body = Buffer.concat([Buffer.from(type, 'latin1'), data])
      const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)]
      length.writeUInt32BE(data.length)
      sum.writeUInt32BE(crc32(body))
      return Buffer.concat([length, body, sum])
    }
    /** PNG 3rd edition, table 12: colour type, samples a pixel, bits a sample. */
    const kinds = [
      ...[1, 2, 4, 8, 16].map((bits) => [0, 1, bits] as const),
      ...[8, 16].map((bits) => [2, 3, bits] as const),
      ...[1, 2, 4, 8].map((bits) => [3, 1, bits] as const),
      ...[8, 16].map((bits) => [4, 2, bits] as const),
      ...[8, 16].map((bits) => [6, 4, bits] as const),
    ]
    for (const [type, samples, bits] of kinds) {
      const name = `t${type}-${bits}`
      mkdirSync(out(name))
      const row = Math.ceil((w * samples * bits) / 8)
      const file = () => {
        const head = Buffer.alloc(13)
        head.writeUInt32BE(w, 0)
        head.writeUInt32BE(h, 4)
        head.set([bits, type, 0, 0, 0], 8)
        const lines = Buffer.from(
          Uint8Array.from({ length: h * (row + 1) }, (_, i) => (i % (row + 1) === 0 ? 0 : random() * 256)),
        )
        const palette = Buffer.from(Uint8Array.from({ length: 3 * 2 ** Math.min(8, bits) }, () => random() * 256))
        return Buffer.concat([
          Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'),
          chunk('IHDR', head),
          ...(type === 3 ? [chunk('PLTE', palette)] : []),
          chunk('IDAT', deflateSync(lines)),
          chunk('IEND', Buffer.alloc(0)),
        ])
      }
      for (const i of [1, 2]) writeFileSync(join(out(name), numbered(i, name)), file())
      const about = await takeInPath(storage, out(name))
      const { pixels } = await pixelsOf(about, 1)
      const second = UPNG.decode(new Uint8Array(readFileSync(join(out(name), numbered(2, name)))).buffer)
      const wanted = new Uint8Array(UPNG.toRGBA8(second)[0]!)
      expect([name, about.bits, pixels.BYTES_PER_ELEMENT * 8]).toEqual([name, bits === 16 ? 16 : 8, about.bits])
      // UPNG leaves away the lower byte of 16 bits.
      const seen = about.bits === 16 ? Uint8Array.from(pixels, (v) => v >> 8) : pixels
      expect([name, seen.length, [...seen].findIndex((v, i) => v !== wanted[i])]).toEqual([name, wanted.length, -1])
    }
  })

  test('in linear light that says so is display-encoded, 16 bits deep', async () => {
    mkdirSync(out('linear'))
    for (const i of [1, 2]) {
      const values = new Uint16Array(8 * 8 * 4).map((_, k) => (k % 4 === 3 ? 65535 : 8000 * i))
      const png = await sharp(values, { raw: { width: 8, height: 8, channels: 4 } })
        .toColourspace('rgb16')
        .png()
        .toBuffer()
      const gama = Buffer.concat([Buffer.from('gAMA', 'latin1'), Buffer.from([0, 1, 0x86, 0xa0])])
      const sum = Buffer.alloc(4)
      sum.writeUInt32BE(crc32(gama))
      writeFileSync(
        join(out('linear'), numbered(i, 'l')),
        Buffer.concat([png.subarray(0, 33), Buffer.from([0, 0, 0, 4]), gama, sum, png.subarray(33)]),
      )
    }
    const about = await takeInPath(storage, out('linear'))
    // IEC 61966-2-1: 1.055 v^(1/2.4) − 0.055.
    const wanted = (1.055 * (16000 / 65535) ** (1 / 2.4) - 0.055) * 65535
    expect(Math.abs(at(await pixelsOf(about, 1), 3, 3)[0]! - wanted)).toBeLessThanOrEqual(1)
  })

  test('whose pictures last differently plays by their times', async () => {
    expect(evened([40, 40, 40])).toEqual({ order: null, rate: { numerator: 25, denominator: 1 }, note: null })
    // Hundredths of a second: 30 a second is 30, 30, 40.
    expect(evened([30, 30, 40]).rate).toEqual({ numerator: 30, denominator: 1 })
    expect(evened([100, 500, 200])).toMatchObject({
      order: [0, 1, 1, 1, 1, 1, 2, 2],
      rate: { numerator: 10, denominator: 1 },
    })
    const all = Buffer.concat([0, 1, 2].map(picture))
    await sharp(all, { raw: { width: W, height: H * 3, channels: 4, pageHeight: H } })
      .webp({ lossless: true, delay: [100, 300, 100] })
      .toFile(out('uneven.webp'))
    const about = await takeInPath(storage, out('uneven.webp'))
    expect([about.frames, about.order, about.notes.length]).toEqual([5, [0, 1, 1, 1, 2], 1])
    expect(at(await pixelsOf(about, 3), 10, 20)[0]).toBe(50)
  })
})

describe('on what its colours were laid', () => {
  const soft = (ground: number | null, [r, g, b]: readonly [number, number, number]) => {
    const random = randomFrom(3)
    const pixels = new Uint8Array(64 * 64 * 4)
    for (let i = 0; i < pixels.length; i += 4) {
      const a = random()
      const shade = 0.6 + 0.4 * random()
      const laid = [r, g, b].map((v) => (ground === null ? v * shade : v * shade * a + ground * (1 - a)))
      pixels.set([...laid, a * 255], i)
    }
    return pixels
  }

  test('is found from its half-transparent pixels; dark straight colours are not taken for black', () => {
    const bright = [246, 198, 103] as const
    expect(guessAlpha([soft(null, bright)])).toBe('straight')
    expect(guessAlpha([soft(0, bright)])).toBe('black')
    expect(guessAlpha([soft(255, bright)])).toBe('white')
    expect(guessAlpha([soft(null, [0, 0, 0])])).toBe('straight')
    expect(guessAlpha([soft(null, [3, 2, 2])])).toBe('straight')
    expect(guessAlpha([new Uint8Array(400)])).toBe('straight')
  })

  test('is said of files as they come in', async () => {
    for (const [name, ground] of [
      ['on-black', 0],
      ['on-white', 255],
      ['free', null],
    ] as const) {
      mkdirSync(out(name))
      for (const i of [1, 2, 3])
        await sharp(soft(ground, [246, 198, 103]), { raw: { width: 64, height: 64, channels: 4 } })
          .png()
          .toFile(join(out(name), numbered(i, name)))
      ffmpeg('-framerate', '25', '-i', join(out(name), `${name}-%04d.png`), '-c:v', 'qtrle', out(`${name}.mov`))
      const said = { 'on-black': 'black', 'on-white': 'white', free: 'straight' }[name]
      for (const path of [out(name), out(`${name}.mov`)])
        expect([path, (await takeInPath(storage, path)).alpha]).toEqual([path, said])
    }
  })
})
