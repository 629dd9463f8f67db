import { describe, expect, test } from '@jest/globals'
import sharp from 'sharp'
import { WaxError } from '#core/errors'
import { readOwnPicture } from '#server/pictures/own-picture'

const RGBA = Buffer.from([255, 0, 0, 255, 0, 255, 0, 128, 0, 0, 255, 0, 9, 8, 7, 255])
const raw = { raw: { width: 2, height: 2, channels: 4 as const } }

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

  test('has an id made from its pixels: the same in another file, another for another size', async () => {
    const one = await sharp(RGBA, raw).png({ compressionLevel: 0 }).toBuffer()
    const two = await sharp(RGBA, raw).png({ compressionLevel: 9 }).toBuffer()
    const tall = await sharp(RGBA, { raw: { width: 1, height: 4, channels: 4 } })
      .png()
      .toBuffer()
    const ids = await Promise.all([one, two, tall].map(async (file) => (await readOwnPicture(file, 'a')).id))
    expect(ids[0]).toBe(ids[1])
    expect(ids[0]).not.toBe(ids[2])
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
