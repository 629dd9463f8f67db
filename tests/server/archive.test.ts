import { appendFileSync, createWriteStream, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import { pipeline } from 'node:stream/promises'
import { afterAll, describe, expect, test } from '@jest/globals'
import { strToU8, unzipSync, zipSync } from 'fflate'
import sharp from 'sharp'
import { WaxError } from '#core/errors'
import { toDisplay } from '#core/values/oklab'
import type { PackedCard } from '#server/archive/card-archive'
import { archiveStream, LARGEST_ARCHIVE_BYTES, openArchive } from '#server/archive/card-archive'
import { readOwnPicture } from '#server/pictures/own-picture'
import { pngLight } from '#server/pictures/png-light'
import { demoCard, fontBytes } from '../support/engine'

const card = demoCard('02-lower-third')
const codeOf = async (work: () => Promise<unknown>) => {
  try {
    await work()
  } catch (error) {
    return (error as WaxError).fault.code
  }
  return null
}

const folder = mkdtempSync(join(tmpdir(), 'wax-archives-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
let count = 0
const onDisk = (bytes: Uint8Array) => {
  const path = join(folder, String(count++))
  writeFileSync(path, bytes)
  return path
}
const written = async (packed: PackedCard) => buffer(await archiveStream(packed))
const opening = (bytes: Uint8Array) => codeOf(async () => (await openArchive(onDisk(bytes), 'a.zip')).close())

describe('a card with its fonts and pictures in one file', () => {
  const file = new Uint8Array([1, 2, 3])

  test('comes back as it went, and holds what its names say (a second reader: unzip)', async () => {
    const font = fontBytes('anton')
    const bytes = await written({
      ...{ card, fonts: new Map([['anton', font]]) },
      pictures: [{ id: 'picture-0123456789abcdef', fileName: '../../boat.png', from: file }],
      sequences: [{ id: 'sequence-0123456789abcdef', fileName: 'waves.zip', from: onDisk(file) }],
    })
    expect(Object.keys(unzipSync(bytes)).sort()).toEqual([
      'card.json',
      'fonts/anton.ttf',
      // A name cannot lead out of its folder.
      'pictures/picture-0123456789abcdef/_.._boat.png',
      'sequences/sequence-0123456789abcdef/waves.zip',
    ])
    const read = await openArchive(onDisk(bytes), 'x.card.zip')
    expect(read.card).toEqual(card)
    expect(read.fonts.map(({ id }) => id)).toEqual(['anton'])
    expect(await read.fonts[0]!.bytes()).toEqual(font)
    expect(await read.pictures[0]!.bytes()).toEqual(file)
    expect(read.sequences).toMatchObject([{ id: 'sequence-0123456789abcdef', fileName: 'waves.zip' }])
    const copy = join(folder, 'copy')
    await read.sequences[0]!.writeTo(copy)
    expect(new Uint8Array(readFileSync(copy))).toEqual(file)
    read.close()
  })

  test('is refused where it holds no card, a broken one, or unpacks to too much', async () => {
    expect(await opening(strToU8('no zip'))).toBe('not-an-archive')
    expect(await opening(new Uint8Array(0))).toBe('not-an-archive')
    expect(await opening(strToU8('PK no zip at all'))).toBe('not-an-archive')
    const whole = await written({ card, fonts: new Map([['anton', fontBytes('anton')]]), pictures: [], sequences: [] })
    expect(await opening(whole.subarray(0, Math.floor(whole.length * 0.7)))).toBe('not-an-archive')
    expect(await opening(zipSync({ 'note.txt': strToU8('x') }))).toBe('not-an-archive')
    expect(await opening(zipSync({ 'card.json': strToU8('{"format":1}') }))).toBe('not-a-card')
    // 70 MB of nothing in a few kilobytes, under the name of a font.
    const bomb = zipSync(
      { 'card.json': strToU8(JSON.stringify(card)), 'fonts/big.ttf': new Uint8Array(70 * 1024 * 1024) },
      { level: 9 },
    )
    expect(bomb.length).toBeLessThan(LARGEST_ARCHIVE_BYTES / 1000)
    expect(await opening(bomb)).toBe('archive-too-large')
    // The same, and every place that tells its size says ten bytes: it is broken off there.
    const lying = Buffer.from(bomb)
    const size = Buffer.alloc(4)
    size.writeUInt32LE(70 * 1024 * 1024)
    let lies = 0
    for (let at = lying.indexOf(size); at >= 0; at = lying.indexOf(size, at + 1)) {
      lying.writeUInt32LE(10, at)
      lies++
    }
    expect(lies).toBeGreaterThanOrEqual(2)
    const archive = await openArchive(onDisk(lying), 'a.zip')
    expect(await codeOf(() => archive.fonts[0]!.bytes())).toBe('not-an-archive')
    expect(await codeOf(() => archive.fonts[0]!.writeTo(join(folder, 'lying')))).toBe('not-an-archive')
    archive.close()
  })

  test('is never in memory as a whole: 96 MB of a sequence go in and out', async () => {
    const large = join(folder, 'large')
    const part = Buffer.alloc(8 * 1024 * 1024, 7)
    for (let i = 0; i < 12; i++) appendFileSync(large, part)
    const before = process.memoryUsage().arrayBuffers
    let most = 0
    const look = setInterval(() => (most = Math.max(most, process.memoryUsage().arrayBuffers - before)), 5)
    const id = 'sequence-0123456789abcdef'
    const packed = join(folder, 'large.card.zip')
    const sequences = [{ id, fileName: 'waves.mov', from: large }]
    await pipeline(await archiveStream({ card, fonts: new Map(), pictures: [], sequences }), createWriteStream(packed))
    const archive = await openArchive(packed, 'large.card.zip')
    await archive.sequences[0]!.writeTo(join(folder, 'out'))
    archive.close()
    clearInterval(look)
    expect(statSync(join(folder, 'out')).size).toBe(12 * part.length)
    expect(most).toBeLessThan(32 * 1024 * 1024)
  })

  test('whose file goes away while it is sent ends there, and nothing else does', async () => {
    const sequences = [{ id: 'sequence-0123456789abcdef', fileName: 'waves.mov', from: onDisk(file) }]
    const stream = await archiveStream({ card, fonts: new Map(), pictures: [], sequences })
    rmSync(sequences[0]!.from)
    await expect(buffer(stream)).rejects.toThrow(/ENOENT/)
    await expect(archiveStream({ card, fonts: new Map(), pictures: [], sequences })).rejects.toThrow(/ENOENT/)
  })
})

/** A PNG with a chunk put before its image data. CRCs are not read by what is tested. */
function withChunk(png: Uint8Array, type: string, data: Uint8Array): Uint8Array {
  const buffer = Buffer.from(png)
  const at = buffer.indexOf('IDAT') - 4
  const head = Buffer.alloc(8)
  head.writeUInt32BE(data.length)
  head.write(type, 4, 'latin1')
  const crc = Buffer.alloc(4)
  crc.writeUInt32BE(crcOf(Buffer.concat([head.subarray(4), data])))
  return new Uint8Array(Buffer.concat([buffer.subarray(0, at), head, data, crc, buffer.subarray(at)]))
}

/** CRC-32 as PNG writes it (ISO 3309; PNG 3rd edition, Annex D). */
function crcOf(bytes: Uint8Array): number {
  let crc = 0xffffffff
  for (const byte of bytes) {
    crc ^= byte
    for (let k = 0; k < 8; k++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1
  }
  return (crc ^ 0xffffffff) >>> 0
}

const be = (value: number) => {
  const bytes = Buffer.alloc(4)
  bytes.writeUInt32BE(value)
  return new Uint8Array(bytes)
}

describe('the light of a PNG', () => {
  const grey = async (value: number) =>
    new Uint8Array(
      await sharp({ create: { width: 4, height: 4, channels: 3, background: { r: value, g: value, b: value } } })
        .png()
        .toBuffer(),
    )

  test('a gamma chunk of 1.0 says linear light: 188 of 255 stands for what sRGB writes as 223', async () => {
    const linear = withChunk(await grey(188), 'gAMA', be(100_000))
    expect(pngLight(linear)).toEqual({ gamma: 1 })
    const { picture } = await readOwnPicture(linear, 'linear.png')
    expect(picture.pixels[0]).toBe(Math.round(toDisplay(188 / 255) * 255))
    // IEC 61966-2-1: 1.055 · (188/255)^(1/2.4) − 0.055 = 0.874
    expect(picture.pixels[0]).toBe(223)
  })

  test('sRGB, a profile, and sRGB’s own gamma leave the values as they are; cICP 8 is linear whatever else is said', async () => {
    const plain = await grey(90)
    expect(pngLight(plain)).toBeNull()
    expect(pngLight(withChunk(plain, 'gAMA', be(45_455)))).toBeNull()
    expect(pngLight(withChunk(withChunk(plain, 'gAMA', be(100_000)), 'sRGB', new Uint8Array([0])))).toBeNull()
    const cicp = withChunk(withChunk(plain, 'sRGB', new Uint8Array([0])), 'cICP', new Uint8Array([1, 8, 0, 1]))
    expect(pngLight(cicp)).toEqual({ gamma: 1 })
    expect(pngLight(new Uint8Array([1, 2, 3]))).toBeNull()
  })

  test('16 bits: the public test image keeps its values', async () => {
    const { picture } = await readOwnPicture(readFileSync('tests/reference/png-suite/basn6a16.png'), 'basn6a16.png')
    expect([picture.width, picture.height]).toEqual([32, 32])
    // PngSuite images carry gAMA 1.0: linear light, straight alpha kept.
    expect(pngLight(readFileSync('tests/reference/png-suite/basn6a16.png'))).toEqual({ gamma: 1 })
  })
})
