import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll } from '@jest/globals'
import sharp from 'sharp'
import { WaxError } from '#core/errors'
import type { Picture } from '#core/paint/pictures'
import type { SequenceAbout } from '#server/sequences/about'
import { sequencePicture } from '#server/sequences/pictures'

// A small sequence of numbered pictures in a folder of its own, for tests of how sequences come in.

export const [W, H, COUNT] = [96, 64, 9]
export const numbered = (i: number, name = 'boat') => `${name}-${String(i).padStart(4, '0')}.png`
export const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args])

/** Flat fields that differ from frame to frame, one of them half clear, one whole: codecs keep flat fields well. */
export function picture(frame: number): Buffer {
  const pixels = Buffer.alloc(W * H * 4)
  for (let y = 0; y < H; y++) {
    for (let x = 0; x < W; x++) {
      const at = (y * W + x) * 4
      if (x < 32) pixels.set([30 + frame * 20, 120, 200 - frame * 15, 255], at)
      else if (x < 64) pixels.set([200, 40 + frame * 20, 60, 128], at)
    }
  }
  return pixels
}

const raw = (frame: number) => sharp(picture(frame), { raw: { width: W, height: H, channels: 4 } })

/** The code and the place of what is refused; null for what is taken. */
export async function codeOf(work: () => Promise<unknown>): Promise<[string, string] | null> {
  try {
    await work()
  } catch (error) {
    if (!(error instanceof WaxError)) throw error
    return [error.fault.code, error.fault.place]
  }
  return null
}

export const at = ({ width, pixels }: Picture, x: number, y: number) => [
  ...pixels.subarray((y * width + x) * 4, (y * width + x) * 4 + 4),
]

/** For one file of tests: the pictures lie in `pngs` before its first test, and go after its last. */
export function sequenceFolder() {
  const folder = mkdtempSync(join(tmpdir(), 'wax-sequences-'))
  const storage = join(folder, 'storage')
  const out = (name: string) => join(folder, name)
  const pngs = out('boat')
  afterAll(() => rmSync(folder, { recursive: true, force: true }))
  beforeAll(async () => {
    mkdirSync(pngs)
    for (let i = 0; i < COUNT; i++)
      await raw(i)
        .png()
        .toFile(join(pngs, numbered(i)))
  })
  return {
    ...{ folder, storage, out, pngs },
    /** What brings the pictures into ffmpeg. */
    source: ['-framerate', '25', '-i', join(pngs, 'boat-%04d.png')],
    async pixelsOf(about: SequenceAbout, index: number): Promise<Picture> {
      const found = await sequencePicture(storage, about.id, index)
      if (!found || !('pixels' in found)) throw new Error(JSON.stringify(found))
      return found
    },
  }
}
