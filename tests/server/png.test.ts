import { readFileSync } from 'node:fs'
import { describe, expect, test } from '@jest/globals'
import type { FramePicture } from '#core/frame/engine'
import { decodePng, encodePng } from '#server/renders/encoders/png'

const SUITE = 'tests/reference/png-suite'

/** The pixels of a test image from its textual description (SNG), as RGBA at the image's own depth. */
function described(name: string): { width: number; height: number; bits: 8 | 16; values: number[] } {
  const text = readFileSync(`${SUITE}/${name}.sng`, 'utf8')
  const [, width, height, depth] = /width: (\d+); height: (\d+); bitdepth: (\d+)/.exec(text)!.map(Number) as [
    never,
    number,
    number,
    number,
  ]
  const alpha = /using[^;]*alpha/.test(text)
  const colour = /using[^;]*color/.test(text)
  const hex = /pixels hex\s([\s\S]*?)\}/.exec(text)![1]!.replace(/\s/g, '')
  const digits = depth / 4
  const samples = Array.from({ length: hex.length / digits }, (_, i) =>
    parseInt(hex.slice(i * digits, (i + 1) * digits), 16),
  )
  const channels = (colour ? 3 : 1) + (alpha ? 1 : 0)
  const top = 2 ** depth - 1
  const values = Array.from({ length: width * height }, (_, i) => {
    const pixel = samples.slice(i * channels, (i + 1) * channels)
    const rgb = colour ? pixel.slice(0, 3) : [pixel[0]!, pixel[0]!, pixel[0]!]
    return [...rgb, alpha ? pixel[channels - 1]! : top]
  }).flat()
  return { width, height, bits: depth as 8 | 16, values }
}

const valuesOf = ({ bits, pixels }: FramePicture) => [...(bits === 8 ? pixels : new Uint16Array(pixels.buffer))]

// PngSuite (Willem van Schaik), the public test images of the PNG specification; see its README beside the files.
describe.each(['basn6a08', 'basn6a16', 'basn4a08', 'basn2c08', 'basn2c16', 'basn0g08'])('%s', (name) => {
  test('is read to the pixel, and written and read again it is the same', async () => {
    const { width, height, bits, values } = described(name)
    const read = await decodePng(readFileSync(`${SUITE}/${name}.png`))
    expect([read.width, read.height, read.bits]).toEqual([width, height, bits])
    expect(valuesOf(read)).toEqual(values)
    const again = await decodePng(await encodePng(read))
    expect(again.bits).toBe(bits)
    expect(valuesOf(again)).toEqual(values)
  })
})
