import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { rawFrames } from '#server/renders/ffmpeg'
import { FrameUnpacker, packFrame, unpackFrame } from '#server/renders/packed-frame'

// Frames between programs, threads and segments: what comes out is what went in.

describe('a frame that is packed', () => {
  /** Stretches of zeros and of anything, of many lengths. */
  const frame = fc
    .array(fc.tuple(fc.nat(255), fc.integer({ min: 1, max: 9000 })), { minLength: 1, maxLength: 12 })
    .map((stretches) =>
      Uint8Array.from(
        stretches.flatMap(([seed, length]) =>
          Array.from({ length }, (_, i) => (seed < 128 ? 0 : (seed * (i + 1)) & 255)),
        ),
      ),
    )

  test('is the same again, whatever was unpacked before it', async () => {
    const unpacker = new FrameUnpacker()
    await fc.assert(
      fc.asyncProperty(frame, async (pixels) => {
        const packed = await packFrame(pixels)
        expect(Buffer.compare(await unpackFrame(packed), pixels)).toBe(0)
        expect(Buffer.compare(unpacker.unpack(packed), pixels)).toBe(0)
        // Of the same length, without what was there before.
        const clear = new Uint8Array(pixels.length)
        expect(Buffer.compare(unpacker.unpack(await packFrame(clear)), clear)).toBe(0)
      }),
      { numRuns: 60 },
    )
  })

  test('takes little room where it is clear, and is read from anywhere', async () => {
    const clear = await packFrame(new Uint8Array(1920 * 1080 * 8))
    expect(clear.length).toBeLessThan(64)
    const pixels = Uint8Array.from({ length: 10_000 }, (_, i) => i)
    const packed = await packFrame(pixels)
    const amid = new Uint8Array(packed.length + 3)
    amid.set(packed, 3)
    expect(Buffer.compare(await unpackFrame(amid.subarray(3)), pixels)).toBe(0)
  })
})

describe('frames that a program writes', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wax-frames-'))
  afterAll(() => rmSync(folder, { recursive: true, force: true }))
  const bytes = 64 * 36 * 4
  /** A film of so many frames, no two alike. */
  function film(frames: number): string {
    const path = join(folder, `${frames}.mov`)
    const source = `testsrc2=size=64x36:rate=25:duration=${frames / 25}`
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      source,
      '-c:v',
      'qtrle',
      '-pix_fmt',
      'argb',
      '-y',
      path,
    ])
    return path
  }

  test('come whole, each once, in their order, however late they are taken', async () => {
    const path = film(40)
    const input = ['-v', 'error', '-i', path, '-f', 'rawvideo', '-pix_fmt', 'rgba', 'pipe:1']
    const wanted = execFileSync('ffmpeg', input, { maxBuffer: 2 ** 26 })
    let at = 0
    for await (const frame of rawFrames(path, 'rgba', bytes)) {
      // Long enough for the next ones to come meanwhile, and to wait.
      if (at % 8 === 0) await new Promise((go) => setTimeout(go, 20))
      expect(frame.compare(wanted, at * bytes, (at + 1) * bytes)).toBe(0)
      at++
    }
    expect(at).toBe(40)
  })

  test('end where they are not wanted any more, where there are none, and where the program fails', async () => {
    for await (const frame of rawFrames(film(1000), 'rgba', bytes)) {
      expect(frame.length).toBe(bytes)
      break
    }
    // Less than one.
    const none = await rawFrames(film(1), 'rgba', bytes * 2).next()
    expect(none.done).toBe(true)
    await expect(rawFrames('/nowhere.mov', 'rgba', bytes).next()).rejects.toThrow(/nowhere/)
  })
})
