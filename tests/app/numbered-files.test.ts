import { describe, expect, test } from '@jest/globals'
import { unzipSync } from 'fflate'
import { isSequence, lotsOf, packedPictures } from '~/composables/numbered-files'

const file = (name: string, content: BlobPart = 'x', type = '') => new File([content], name, { type })
const names = (lot: { files: File[] }) => lot.files.map(({ name }) => name)

/** The beginning of a PNG file, with a chunk before its pixels. */
const png = (chunk: string) => new TextEncoder().encode(`.PNG....IHDR.............${chunk}........IDAT`)

describe('files that are brought in', () => {
  test('are a sequence by themselves where they move', async () => {
    for (const name of ['a.mov', 'a.MP4', 'a.webm', 'a.gif', 'a.apng', 'a.zip'])
      expect(await isSequence(file(name))).toBe(true)
    expect(await isSequence(file('clip', 'x', 'video/quicktime'))).toBe(true)
    expect(await isSequence(file('a.png', png('acTL')))).toBe(true)
    expect(await isSequence(file('a.png', png('sRGB')))).toBe(false)
    expect(await isSequence(file('a.webp', 'RIFF....WEBPVP8X..........ANIM'))).toBe(true)
    expect(await isSequence(file('a.webp', 'RIFF....WEBPVP8 '))).toBe(false)
    for (const name of ['a.jpg', 'a.svg', 'a.card.json']) expect(await isSequence(file(name))).toBe(false)
  })

  test('are one lot where they are numbered with one name; two of them are two pictures', async () => {
    const wave = [1, 2, 3, 10].map((i) => file(`wave-${i}.png`, png('sRGB')))
    const two = [1, 2].map((i) => file(`boat${i}.png`, png('sRGB')))
    const lots = await lotsOf([file('logo.svg'), ...two, ...wave, file('clip.mov')])
    expect(lots.map((lot) => [names(lot), lot.moves])).toEqual([
      [['wave-1.png', 'wave-2.png', 'wave-3.png', 'wave-10.png'], true],
      [['logo.svg'], false],
      [['clip.mov'], true],
      [['boat1.png'], false],
      [['boat2.png'], false],
    ])
  })

  test('that are numbered are packed under the name that they have in common, as they are', async () => {
    const packed = await packedPictures([file('wave_0001.png', 'one'), file('wave_0002.png', 'two')])
    expect(packed.name).toBe('wave.zip')
    const entries = unzipSync(new Uint8Array(await packed.arrayBuffer()))
    const texts = Object.entries(entries).map(([name, bytes]) => [name, new TextDecoder().decode(bytes)])
    expect(texts).toEqual([
      ['wave_0001.png', 'one'],
      ['wave_0002.png', 'two'],
    ])
    expect((await packedPictures([file('7.png'), file('8.png')])).name).toBe('pictures.zip')
  })
})
