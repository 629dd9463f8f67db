import { mkdtempSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { Sharp } from 'sharp'
import sharp from 'sharp'
import type { FramePicture } from '#core/frame/engine'
import { deliveryOf } from '#core/formats/deliveries/table'
import { Changes } from '#server/renders/encoders/changed'
import { held, planned, written } from '../support/delivered'
import { coat, demoCard, emptyCard, engineWithFonts, solid, withBox } from '../support/engine'

// What animated pictures weigh beside what a general library makes of the same frames, each by itself and whole.

const folder = mkdtempSync(join(tmpdir(), 'wax-sizes-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** Frames of a card about as large as a small preview, from one where it moves. */
function framesOf(name: string, from: number, count: number): FramePicture[] {
  const [engine, card] = [engineWithFonts(), demoCard(name)]
  return Array.from({ length: count }, (_, i) => ({
    ...engine.render(card, from + i, { scale: 0.25 }),
  })).map((frame) => ({ ...frame, pixels: frame.pixels.slice() }))
}

async function deliver(format: 'apng' | 'webp' | 'gif', frames: readonly FramePicture[]) {
  const { width, height } = frames[0]!
  // A card of that size and length: the pictures are handed over.
  const card = withBox(
    emptyCard(width, height, frames.length),
    {},
    { face: [coat('fill', 'f', { paint: solid('#888888') })] },
  )
  const path = join(folder, `again${deliveryOf(format).files({})[0]!.ending}`)
  const plan = planned(card, { format, from: 0, to: frames.length }, [path])
  await written(plan.plan, frames)
  const { checks } = await held(plan, frames)
  return { bytes: statSync(path).size, failed: checks.filter(({ passed }) => !passed) }
}

/** Bytes of the same frames, each a whole file of its own. */
async function alone(frames: readonly FramePicture[], file: (picture: Sharp) => Sharp): Promise<number> {
  let bytes = 0
  for (const { width, height, pixels } of frames)
    bytes += (await file(sharp(pixels, { raw: { width, height, channels: 4 } })).toBuffer()).length
  return bytes
}

describe.each([
  ['02-lower-third', 10],
  ['11-flicker', 8],
])('%s', (name, from) => {
  const frames = framesOf(name, from, 10)

  test('WebP is within a tenth of libwebp’s own method, smaller than PNG, and PNG half of what is packed fast', async () => {
    const [webp, apng] = [await deliver('webp', frames), await deliver('apng', frames)]
    expect([...webp.failed, ...apng.failed]).toEqual([])
    const whole = await alone(frames, (picture) => picture.webp({ lossless: true, effort: 4, exact: true }))
    const fast = await alone(frames, (picture) => picture.png({ compressionLevel: 1 }))
    expect(webp.bytes / whole).toBeLessThan(1.1)
    expect(webp.bytes / apng.bytes).toBeLessThan(0.9)
    expect(apng.bytes / fast).toBeLessThan(0.6)
  })
})

test('what stands still weighs next to nothing, as one picture in any format', async () => {
  const [one] = framesOf('02-lower-third', 60, 1) as [FramePicture]
  for (const format of ['apng', 'webp', 'gif'] as const) {
    const first = (await deliver(format, [one, one])).bytes
    const twenty = await deliver(
      format,
      Array.from({ length: 20 }, () => one),
    )
    expect([format, twenty.failed]).toEqual([format, []])
    // GIF has clear pixels, and writes all that is seen each time.
    if (format !== 'gif') expect((twenty.bytes - first) / 18).toBeLessThan(200)
  }
})

describe('what changed', () => {
  const picture = (pixels: Uint8Array<ArrayBuffer>, width: number): FramePicture => ({
    ...{ width, height: pixels.length / 4 / width, bits: 8, pixels },
  })

  test('laid over the picture before it is the picture, in any cell, and no smaller part is', () => {
    const sizes = fc.record({ width: fc.integer({ min: 1, max: 9 }), height: fc.integer({ min: 1, max: 9 }) })
    const changed = sizes.chain(({ width, height }) =>
      fc.record({
        width: fc.constant(width),
        height: fc.constant(height),
        places: fc.uniqueArray(fc.integer({ min: 0, max: width * height - 1 }), { minLength: 1, maxLength: 4 }),
        cell: fc.constantFrom(1, 2),
      }),
    )
    fc.assert(
      fc.property(changed, ({ width, height, places, cell }) => {
        const before = new Uint8Array(width * height * 4).fill(7)
        const now = before.slice()
        for (const place of places) now[place * 4 + (place % 4)] = 200
        const changes = new Changes()
        expect(changes.of(picture(before, width), cell)).toEqual({ left: 0, top: 0, width, height })
        const part = changes.of(picture(now, width), cell)
        const columns = places.map((place) => place % width)
        const rows = places.map((place) => Math.floor(place / width))
        const even = (value: number) => value - (value % cell)
        const [left, top] = [even(Math.min(...columns)), even(Math.min(...rows))]
        expect(part).toEqual({
          ...{ left, top },
          ...{ width: Math.max(...columns) + 1 - left, height: Math.max(...rows) + 1 - top },
        })
        expect(changes.of(picture(now.slice(), width), cell)).toEqual({ left: 0, top: 0, width: 1, height: 1 })
      }),
    )
  })
})
