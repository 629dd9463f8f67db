import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { Engine } from '#core/frame/engine'
import { PooledFrames } from '#server/renders/render-file'
import { DamagedFrames, FrameUnpacker, LARGEST_FRAME, packFrame, unpackFrame } from '#server/renders/packed-frame'
import { pressFiles } from '#server/renders/press/press-files'
import { Segment, SegmentWriter } from '#server/renders/segment'
import { planned, softCard } from '../support/delivered'

// Segments come from anybody who has a token: no length in them is believed before it is held against what is there.

const folder = mkdtempSync(join(tmpdir(), 'wax-segments-'))
const path = join(folder, 'segment')
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const FRAME = 64 * 36 * 4
const frame = (seed: number) => Uint8Array.from({ length: FRAME }, (_, i) => (i < 5000 ? 0 : (seed * 31 + i * 7) & 255))
let whole: Buffer

beforeAll(async () => {
  const writer = await SegmentWriter.create(path)
  for (let i = 0; i < 3; i++) await writer.add(i, frame(i))
  await writer.close()
  whole = readFileSync(path)
})

async function opening(bytes: Buffer, frameBytes?: number): Promise<unknown> {
  writeFileSync(path, bytes)
  const before = process.memoryUsage().arrayBuffers
  const outcome = await Segment.open(path, frameBytes).then(
    (segment) => segment.close().then(() => 'opened'),
    (error: unknown) => error,
  )
  // Nothing that was said was taken for memory.
  expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(2 ** 20)
  return outcome
}

const listAt = (bytes: Buffer) => bytes.length - 8 - Number(bytes.readBigUInt64LE(bytes.length - 8))
/** The segment with another list. */
function relisted(change: (list: { packing: string; entries: Record<string, unknown>[] }) => unknown): Buffer {
  const list = JSON.parse(whole.subarray(listAt(whole), -8).toString()) as Parameters<typeof change>[0]
  change(list)
  const text = Buffer.from(JSON.stringify(list))
  const foot = Buffer.alloc(8)
  foot.writeBigUInt64LE(BigInt(text.length))
  return Buffer.concat([whole.subarray(0, listAt(whole)), text, foot])
}
const footed = (length: bigint) => {
  const bytes = Buffer.from(whole)
  bytes.writeBigUInt64LE(length, bytes.length - 8)
  return bytes
}
const headed = (at: number, value: number) => {
  const bytes = Buffer.from(whole)
  bytes.writeUInt32LE(value, at)
  return bytes
}

describe('a segment', () => {
  test('as a worker writes it is opened', async () => {
    expect(await opening(whole)).toBe('opened')
    expect(await opening(whole, FRAME)).toBe('opened')
  })

  test.each([
    ['empty', () => Buffer.alloc(0)],
    ['of seven bytes', () => Buffer.alloc(7)],
    ['of nothing but a foot', () => Buffer.alloc(8)],
    ['whose foot says three billion', () => footed(3_000_000_000n)],
    ['whose foot says 2^62', () => footed(2n ** 62n)],
    ['whose foot says all of it and more', () => footed(BigInt(whole.length))],
    ['whose list is no JSON', () => footed(20n)],
    ['of another packing', () => relisted((list) => (list.packing = 'otherwise'))],
    ['with an entry of four billion bytes', () => relisted(({ entries }) => (entries[1]!.length = 4_000_000_000))],
    ['with an entry before its beginning', () => relisted(({ entries }) => (entries[0]!.at = -8))],
    ['with an entry in the list', () => relisted(({ entries }) => (entries[2]!.at = whole.length - 20))],
    ['with an entry of words', () => relisted(({ entries }) => (entries[0]!.length = '9'))],
    ['with an entry of nothing', () => relisted(({ entries }) => (entries[0]!.length = 0))],
    ['with a frame of fractions', () => relisted(({ entries }) => (entries[0]!.frame = 0.5))],
    ['whose frame says four billion bytes', () => headed(0, 4_000_000_000)],
    ['whose frame says as many as the largest, and one', () => headed(0, LARGEST_FRAME + 1)],
    ['whose frame has four billion parts', () => headed(4, 4_000_000_000)],
    ['whose frame has a part beyond its end', () => headed(12, FRAME + 4096)],
    ['whose frame has a part that ends before it begins', () => headed(8, FRAME)],
    ['whose frame has less packed than its parts are long', () => headed(8, 8192)],
  ])('%s is damaged, and takes no memory', async (_, bytes) => {
    expect(await opening(bytes())).toBeInstanceOf(DamagedFrames)
  })

  test('with frames of another size is damaged for who knows the size', async () => {
    expect(await opening(whole, FRAME * 2)).toBeInstanceOf(DamagedFrames)
  })

  test('cut off or changed anywhere is damaged or the same, never anything else', async () => {
    await fc.assert(
      fc.asyncProperty(fc.nat(whole.length - 1), fc.nat(255), fc.boolean(), async (at, value, isCut) => {
        const bytes = isCut ? whole.subarray(0, at) : Buffer.from(whole)
        if (!isCut) bytes[at] = value
        const outcome = await opening(Buffer.from(bytes))
        expect(outcome === 'opened' || outcome instanceof DamagedFrames).toBe(true)
      }),
      { numRuns: 150 },
    )
  })
})

test('a packed frame that lies about itself is refused by both who unpack it', async () => {
  const packed = await packFrame(frame(1))
  for (const [at, value] of [
    [0, 4_000_000_000],
    [4, 500_000_000],
    [12, 4_000_000_000],
  ] as const) {
    const forged = Buffer.from(packed)
    forged.writeUInt32LE(value, at)
    await expect(unpackFrame(forged)).rejects.toThrow(DamagedFrames)
    expect(() => new FrameUnpacker().unpack(forged)).toThrow(DamagedFrames)
  }
  await expect(unpackFrame(packed.subarray(0, 6))).rejects.toThrow(DamagedFrames)
})

test('the hash of the last frame is asked for only when it is put down, however long that takes', async () => {
  // The order that a loaded machine makes: the frame is encoded and the file closed before its copy lies on the disk.
  const target = join(folder, 'still.png')
  const plans = planned(softCard(), { format: 'still', from: 0, to: 1 }, [`${target}.part.png`])
  const engine = new Engine()
  const pool = (async function* () {
    yield engine.render({ ...softCard(), pieces: [] }, 0, plans.plan.form)
  })()
  const slow = await SegmentWriter.create(join(folder, 'slow'))
  const add = slow.add.bind(slow)
  let isDown = false
  slow.add = async (frame, pixels) => {
    const kept = pixels.slice()
    await new Promise((go) => setTimeout(go, 300))
    await add(frame, kept)
    isDown = true
  }
  const frames = new PooledFrames(plans.plan, pool, slow)
  const { report } = await pressFiles({ ...plans, paths: [target], frames })
  expect(isDown).toBe(true)
  expect(report.checks.filter(({ passed }) => !passed)).toEqual([])
  await slow.abort()
})
