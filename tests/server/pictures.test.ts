import { describe, expect, test } from '@jest/globals'
import sharp from 'sharp'
import { WaxError } from '#core/errors'
import { formerId, readOwnPicture } from '#server/pictures/own-picture'
import { inTurn } from '#server/pictures/turns'

const RGBA = Buffer.from([255, 0, 0, 255, 0, 255, 0, 128, 0, 0, 255, 0, 9, 8, 7, 255])
const raw = { raw: { width: 2, height: 2, channels: 4 as const } }

/** A PNG with one more chunk right after its header. */
function withChunk(png: Buffer, type: string, data: Buffer): Uint8Array {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data])
  const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)]
  length.writeUInt32BE(data.length)
  sum.writeUInt32BE(crc32(body))
  return new Uint8Array(Buffer.concat([png.subarray(0, 33), length, body, sum, png.subarray(33)]))
}

/** PNG 3rd edition, annex D. */
function crc32(bytes: Uint8Array): number {
  let crc = 0xffffffff
  for (const byte of bytes) {
    crc ^= byte
    for (let k = 0; k < 8; k++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1
  }
  return (crc ^ 0xffffffff) >>> 0
}

const faultOf = async (bytes: Uint8Array) => {
  try {
    await readOwnPicture(bytes, 'boat.png')
  } catch (error) {
    return (error as WaxError).fault
  }
  return null
}

describe('a picture that is brought in', () => {
  test('as PNG keeps every pixel, straight', async () => {
    const png = await sharp(RGBA, raw).png().toBuffer()
    const { picture, id } = await readOwnPicture(new Uint8Array(png), 'boat.png')
    expect([picture.width, picture.height]).toEqual([2, 2])
    expect([...picture.pixels]).toEqual([...RGBA])
    expect(id).toMatch(/^picture-[0-9a-f]{16}$/)
  })

  test('has an id made from the bytes of its file; the one that older applications gave it is that of its pixels', async () => {
    const one = await sharp(RGBA, raw).png({ compressionLevel: 0 }).toBuffer()
    const two = await sharp(RGBA, raw).png({ compressionLevel: 9 }).toBuffer()
    const [a, again, b] = await Promise.all([one, one, two].map((file) => readOwnPicture(file, 'a')))
    // FIPS 180-4, by the platform's own digest.
    const digest = Buffer.from(await crypto.subtle.digest('SHA-256', new Uint8Array(one))).toString('hex')
    expect(a!.id).toBe(`picture-${digest.slice(0, 16)}`)
    expect(again!.id).toBe(a!.id)
    expect(b!.id).not.toBe(a!.id)
    expect(formerId(b!.picture)).toBe(formerId(a!.picture))
    expect(formerId({ ...a!.picture, width: 1, height: 4 })).not.toBe(formerId(a!.picture))
  })

  test('is decoded while no other is, over all who ask', async () => {
    let under = 0
    let most = 0
    const work = () =>
      inTurn(async () => {
        most = Math.max(most, ++under)
        await new Promise(setImmediate)
        under--
      })
    const failing = inTurn(() => Promise.reject(new Error('no picture')))
    await Promise.all([...Array.from({ length: 8 }, work), failing.catch(() => {}), ...Array.from({ length: 4 }, work)])
    expect([most, under]).toEqual([1, 0])
    await expect(failing).rejects.toThrow('no picture')
  })

  test('as JPEG is turned upright and made whole', async () => {
    const wide = await sharp({ create: { width: 40, height: 20, channels: 3, background: '#b8324a' } })
      .jpeg()
      .withMetadata({ orientation: 6 })
      .toBuffer()
    const { picture } = await readOwnPicture(wide, 'a.jpg')
    expect([picture.width, picture.height]).toEqual([20, 40])
    expect(picture.pixels[3]).toBe(255)
  })

  test('as WebP is read too', async () => {
    const webp = await sharp(RGBA, raw)
      .webp({ lossless: true, exact: true } as never)
      .toBuffer()
    expect((await readOwnPicture(webp, 'a.webp')).picture.pixels).toHaveLength(16)
  })

  test('of 8 bits in linear light (gAMA 1) is encoded step by step as IEC 61966-2-1 says', async () => {
    const ramp = Uint8Array.from({ length: 256 * 4 }, (_, i) => (i % 4 === 3 ? 255 : i >> 2))
    const plain = await sharp(ramp, { raw: { width: 256, height: 1, channels: 4 } })
      .png()
      .toBuffer()
    const { picture } = await readOwnPicture(withChunk(plain, 'gAMA', Buffer.from([0, 1, 0x86, 0xa0])), 'ramp.png')
    const encoded = (v: number) => (v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055)
    for (let v = 0; v < 256; v++) expect(picture.pixels[v * 4]).toBe(Math.round(encoded(v / 255) * 255))
    // From a table of sRGB: linear 1 of 255 is 13.
    expect([...picture.pixels.subarray(4, 8)]).toEqual([13, 13, 13, 255])
  })

  test('that is none, of a kind that is not read, or half a file, is refused by name', async () => {
    expect(await faultOf(new Uint8Array(Buffer.from('words')))).toMatchObject({
      code: 'not-a-picture',
      place: 'boat.png',
    })
    expect(await faultOf(new Uint8Array(0))).toMatchObject({ code: 'not-a-picture' })
    const svg = Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><script>alert(1)</script></svg>',
    )
    expect(await faultOf(new Uint8Array(svg))).toMatchObject({ code: 'not-a-picture', place: 'boat.png' })
    const png = await sharp(RGBA, raw).resize(300, 300).png().toBuffer()
    expect(await faultOf(new Uint8Array(png.subarray(0, png.length / 2)))).toMatchObject({ code: 'not-a-picture' })
  })

  test('of too many pixels is refused before it is decoded', async () => {
    const huge = await sharp({ create: { width: 6000, height: 4100, channels: 3, background: '#fff' } })
      .png()
      .toBuffer()
    expect(await faultOf(new Uint8Array(huge))).toMatchObject({ code: 'picture-too-large' })
  })
})
