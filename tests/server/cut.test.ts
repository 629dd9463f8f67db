import { execFileSync, spawnSync } from 'node:child_process'
import { copyFileSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { zipSync } from 'fflate'
import sharp from 'sharp'
import { bestCut, distancesOf } from '#core/judge/best-cut'
import { smallSequence } from '#server/sequences/small-frames'

const folder = mkdtempSync(join(tmpdir(), 'wax-cut-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const [W, H, COUNT, PERIOD] = [96, 54, 31, 12]
const pngs = join(folder, 'boat')
const file = (i: number) => join(pngs, `boat-${String(i).padStart(4, '0')}.png`)

/** A disc that goes round on nothing, half clear. */
function picture(frame: number): Buffer {
  const turn = (2 * Math.PI * frame) / PERIOD
  const [cx, cy] = [W / 2 + 30 * Math.cos(turn), H / 2 + 15 * Math.sin(turn)]
  const pixels = Buffer.alloc(W * H * 4)
  for (let i = 0; i < W * H; i++) {
    const inside = ((i % W) - cx) ** 2 + (Math.floor(i / W) - cy) ** 2 < 144
    if (inside) pixels.set([246, 198, 103, 160], i * 4)
  }
  return pixels
}

const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args])

beforeAll(async () => {
  mkdirSync(pngs)
  for (let i = 0; i < COUNT; i++)
    await sharp(picture(i), { raw: { width: W, height: H, channels: 4 } })
      .png()
      .toFile(file(i))
})

describe('wax cut', () => {
  test('finds the period of one sequence in every form that it comes in', async () => {
    const numbered = ['-framerate', '25', '-i', join(pngs, 'boat-%04d.png')]
    const out = (name: string) => join(folder, name)
    ffmpeg(...numbered, '-c:v', 'qtrle', out('boat.mov'))
    ffmpeg(...numbered, '-c:v', 'libvpx-vp9', '-pix_fmt', 'yuva420p', '-crf', '20', '-b:v', '0', out('boat.webm'))
    ffmpeg(...numbered, '-f', 'apng', '-plays', '0', out('boat.png'))
    const all = Buffer.concat(Array.from({ length: COUNT }, (_, i) => picture(i)))
    await sharp(all, { raw: { width: W, height: H * COUNT, channels: 4, pageHeight: H } })
      .webp({ lossless: true, delay: new Array<number>(COUNT).fill(40) })
      .toFile(out('boat.webp'))
    await sharp(all, { raw: { width: W, height: H * COUNT, channels: 4, pageHeight: H } })
      .gif({ delay: new Array<number>(COUNT).fill(40) })
      .toFile(out('boat.gif'))
    const files = readdirSync(pngs).map((name) => [name, new Uint8Array(readFileSync(join(pngs, name)))] as const)
    writeFileSync(out('boat.zip'), zipSync(Object.fromEntries(files)))
    for (const path of [pngs, ...['boat.zip', 'boat.mov', 'boat.webm', 'boat.png', 'boat.gif', 'boat.webp'].map(out)]) {
      const sequence = await smallSequence(path)
      const found = bestCut(distancesOf(sequence.frames))
      expect([path, sequence.width, sequence.height, sequence.frames.length]).toEqual([path, W, H, COUNT])
      expect([path, found.periods[0]?.length, found.best.out - found.best.in, found.best.shows]).toEqual([
        path,
        PERIOD,
        PERIOD,
        false,
      ])
      // What is clear stays clear: alpha is read, of VP9 too.
      const { alpha } = sequence.frames[0]!
      expect([path, Math.min(...alpha), Math.max(...alpha) > 120]).toEqual([path, 0, true])
    }
  })

  test('tells it on the command line, in words and as JSON', () => {
    const wax = (...args: string[]) =>
      spawnSync(process.execPath, ['.wax/node/wax.mjs', 'cut', ...args], { encoding: 'utf8' })
    const { stdout, status } = wax(pngs, '--json')
    expect(status).toBe(0)
    const report = JSON.parse(stdout) as {
      frames: number
      best: { in: number; out: number }
      periods: { length: number }[]
    }
    expect(report).toMatchObject({
      frames: COUNT,
      width: W,
      height: H,
      periods: [{ length: PERIOD }],
    })
    expect(wax(pngs).stdout).toMatch(/Repeats itself after 12 frames.*does not show/s)
    // One time round: nothing is cut away.
    const once = join(folder, 'once')
    mkdirSync(once)
    for (const name of readdirSync(pngs).sort().slice(0, PERIOD)) copyFileSync(join(pngs, name), join(once, name))
    const whole = wax(once)
    expect(whole.status).toBe(0)
    expect(whole.stdout).toMatch(/It is a loop as it is\..*frames 0 to 11, 12 long.*does not show/s)
    expect(wax(join(folder, 'nowhere')).stderr).toMatch(/nowhere: There is no file or folder here/)
  })

  test('names what is wrong: a missing number, another size, no pictures, a file that breaks off', async () => {
    const bad = join(folder, 'bad')
    const fresh = () => {
      rmSync(bad, { recursive: true, force: true })
      mkdirSync(bad)
      for (const name of readdirSync(pngs).slice(0, 6)) copyFileSync(join(pngs, name), join(bad, name))
    }
    const fault = (path: string) =>
      smallSequence(path).then(
        () => null,
        (error: unknown) => error,
      )
    fresh()
    rmSync(join(bad, 'boat-0003.png'))
    expect(await fault(bad)).toMatchObject({ fault: { code: 'missing-frame', message: 'Frame 3 is missing.' } })
    fresh()
    await sharp(picture(0), { raw: { width: W, height: H, channels: 4 } })
      .resize(40, 20)
      .png()
      .toFile(join(bad, 'boat-0006.png'))
    expect(await fault(bad)).toMatchObject({
      fault: { code: 'other-size', message: expect.stringMatching(/40×20.*96×54/) },
    })
    mkdirSync(join(folder, 'empty'), { recursive: true })
    expect(await fault(join(folder, 'empty'))).toMatchObject({ fault: { code: 'no-pictures' } })
    writeFileSync(join(folder, 'words.mov'), 'no pictures in here')
    expect(await fault(join(folder, 'words.mov'))).toMatchObject({ fault: { code: 'no-pictures' } })
    writeFileSync(join(folder, 'half.webm'), readFileSync(join(folder, 'boat.webm')).subarray(0, 700))
    expect(await fault(join(folder, 'half.webm'))).toMatchObject({
      fault: { code: expect.stringMatching(/broken-file|no-pictures/) },
    })
    writeFileSync(join(folder, 'half.webp'), readFileSync(join(folder, 'boat.webp')).subarray(0, 60))
    expect(await fault(join(folder, 'half.webp'))).not.toBeNull()
  })
})
