import { copyFileSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { crc32 } from 'node:zlib'
import { beforeAll, describe, expect, test } from '@jest/globals'
import { strToU8, zipSync } from 'fflate'
import sharp from 'sharp'
import { readPictures, takeInPath } from '#server/sequences/store'
import { at, codeOf, COUNT, ffmpeg, H, numbered, picture, sequenceFolder, W } from '../support/small-sequence'

const { folder, storage, out, pngs, source, pixelsOf } = sequenceFolder()

describe('what is broken', () => {
  beforeAll(() => {
    ffmpeg(...source, '-f', 'apng', '-plays', '0', out('boat.apng'))
    ffmpeg(...source, '-c:v', 'libvpx-vp9', '-pix_fmt', 'yuva420p', '-crf', '8', '-b:v', '0', out('vp9.webm'))
  })

  const copyOf = (name: string, change: (files: string[]) => void) => {
    mkdirSync(out(name))
    for (const file of readdirSync(pngs)) copyFileSync(join(pngs, file), join(out(name), file))
    change(
      readdirSync(out(name))
        .sort()
        .map((file) => join(out(name), file)),
    )
    return out(name)
  }

  test('a missing number and a torn picture show the one before, and are told; the rest plays', async () => {
    const gap = await takeInPath(
      storage,
      copyOf('gap', (files) => rmSync(files[3]!)),
    )
    expect([gap.frames, gap.order]).toEqual([COUNT, [0, 1, 2, 2, 3, 4, 5, 6, 7]])
    expect(gap.notes).toEqual(['Picture 3 is missing: the one before is shown instead.'])
    expect(at(await pixelsOf(gap, 3), 10, 20)[0]).toBe(70)
    const torn = copyOf('torn', (files) => writeFileSync(files[5]!, readFileSync(files[5]!).subarray(0, 150)))
    const about = await takeInPath(storage, torn)
    expect(about.notes).toEqual(['Picture 5 is cut off: the one before is shown instead.'])
    expect(at(await pixelsOf(about, 5), 10, 20)[0]).toBe(110)
  })

  test('is refused with a word that names the file', async () => {
    const other = copyOf('sizes', () => {})
    await sharp(picture(0), { raw: { width: W, height: H, channels: 4 } })
      .resize(40, 40)
      .png()
      .toFile(join(other, numbered(COUNT)))
    expect(await codeOf(() => takeInPath(storage, other))).toEqual(['other-size', `sizes: ${numbered(COUNT)}`])
    const two = copyOf('two', (files) => copyFileSync(files[0]!, join(out('two'), 'wave-0001.png')))
    expect((await codeOf(() => takeInPath(storage, two)))![0]).toBe('several-sequences')
    mkdirSync(out('empty'))
    writeFileSync(join(out('empty'), 'note.txt'), 'x')
    expect((await codeOf(() => takeInPath(storage, out('empty'))))![0]).toBe('no-pictures')
    expect((await codeOf(() => takeInPath(storage, out('nowhere'))))![0]).toBe('no-file')
    // A sound without pictures.
    ffmpeg('-f', 'lavfi', '-i', 'sine=duration=1', out('sound.mov'))
    expect(await codeOf(() => takeInPath(storage, out('sound.mov')))).toEqual(['no-pictures', 'sound.mov'])
    writeFileSync(out('nothing.mov'), 'nothing at all')
    expect((await codeOf(() => takeInPath(storage, out('nothing.mov'))))![0]).toBe('no-pictures')
    writeFileSync(out('no.zip'), 'PK nothing at all')
    expect((await codeOf(() => takeInPath(storage, out('no.zip'))))![0]).toBe('no-archive')
    copyFileSync(join(pngs, numbered(0)), out('still.png'))
    expect((await codeOf(() => takeInPath(storage, out('still.png'))))![0]).toBe('still')
    // Nothing of what was refused stays.
    expect(readdirSync(join(storage, 'sequences')).filter((name) => name.startsWith('incoming'))).toEqual([])
  })

  test('a sequence of 12,000 pictures and a ZIP bomb are refused before they fill the disk', async () => {
    const tiny = await sharp({ create: { width: 8, height: 8, channels: 4, background: '#102030' } })
      .png()
      .toBuffer()
    const many = Object.fromEntries(Array.from({ length: 12_000 }, (_, i) => [numbered(i, 'm'), new Uint8Array(tiny)]))
    writeFileSync(out('many.zip'), zipSync(many, { level: 0 }))
    expect((await codeOf(() => takeInPath(storage, out('many.zip'))))![0]).toBe('too-many-frames')
    // 220 MB of nothing in some kilobytes.
    writeFileSync(out('bomb.zip'), zipSync({ 'b-1.png': new Uint8Array(220 * 1024 * 1024) }, { level: 1 }))
    expect(await codeOf(() => takeInPath(storage, out('bomb.zip')))).toEqual([
      'sequence-too-large',
      'bomb.zip: b-1.png',
    ])
    writeFileSync(
      out('text.zip'),
      zipSync({ 'a-1.png': strToU8('no picture at all, only some words of text'.repeat(4)) }),
    )
    expect(await codeOf(() => takeInPath(storage, out('text.zip')))).toEqual(['no-picture', 'text.zip: a-1.png'])
  }, 60_000)

  test('an APNG that lies about its count is told, and plays what it has', async () => {
    const bytes = readFileSync(out('boat.apng'))
    const place = bytes.indexOf('acTL')
    bytes.writeUInt32BE(500, place + 4)
    bytes.writeUInt32BE(crc32(bytes.subarray(place, place + 12)), place + 12)
    writeFileSync(out('liar.apng'), bytes)
    const about = await takeInPath(storage, out('liar.apng'))
    expect([about.frames, about.notes]).toEqual([COUNT, [`It says that it has 500 pictures and has ${COUNT}.`]])
    expect(at(await pixelsOf(about, COUNT - 1), 10, 20)[0]).toBe(190)
  })

  test('a video that is cut off holds its last picture', async () => {
    const whole = readFileSync(out('vp9.webm'))
    writeFileSync(out('cut.webm'), whole.subarray(0, Math.floor(whole.length * 0.55)))
    const about = await takeInPath(storage, out('cut.webm'))
    await readPictures(storage, about).done
    const frames = readdirSync(join(storage, 'sequences', about.id, 'frames')).length
    expect(frames).toBeGreaterThan(1)
    expect(frames).toBeLessThan(COUNT)
    expect(about.frames).toBeLessThan(COUNT)
    expect(at(await pixelsOf(about, about.frames - 1), 10, 20)[3]).toBe(255)
  })
})

describe('a disk that fills while pictures are read', () => {
  const film = () => {
    const path = out('filling.mov')
    ffmpeg('-f', 'lavfi', '-i', 'testsrc2=size=320x180:rate=25:duration=4', '-c:v', 'qtrle', path)
    return path
  }

  test('leaves nothing half: they are read again, all of them, when there is room', async () => {
    const about = await takeInPath(storage, film())
    process.env.WAX_DISK_RESERVE = '1e12'
    try {
      await expect(readPictures(storage, about).done).rejects.toMatchObject({ fault: { code: 'disk-full' } })
    } finally {
      process.env.WAX_DISK_RESERVE = '0'
    }
    const left = readdirSync(join(storage, 'sequences', about.id)).sort()
    expect(left).toEqual(['about.json', 'source'])
    await readPictures(storage, about).done
    expect(readdirSync(join(storage, 'sequences', about.id, 'frames'))).toHaveLength(100)
  })

  test('and what an older application took for all of them is read again when the file is brought in again', async () => {
    const path = film()
    const about = await takeInPath(storage, path)
    const frames = join(storage, 'sequences', about.id, 'frames')
    await readPictures(storage, about).done
    for (const name of readdirSync(frames).sort().slice(57)) rmSync(join(frames, name))
    expect((await takeInPath(storage, path)).id).toBe(about.id)
    await readPictures(storage, about).done
    expect(readdirSync(frames)).toHaveLength(100)
  })

  test('a ZIP of numbered pictures says so, and leaves nothing', async () => {
    process.env.WAX_DISK_RESERVE = '1e12'
    try {
      expect((await codeOf(() => takeInPath(join(folder, 'full'), pngs)))![0]).toBe('disk-full')
    } finally {
      process.env.WAX_DISK_RESERVE = '0'
    }
    expect(readdirSync(join(folder, 'full/sequences'))).toEqual([])
  })
})
