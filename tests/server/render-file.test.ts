import { execFileSync } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, rmSync, symlinkSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, test } from '@jest/globals'
import type { Card } from '#core/card/schema'
import type { RenderWish } from '#core/formats/deliveries/render-options'
import type { FramePicture } from '#core/frame/engine'
import { PLAIN_FORM } from '#core/kernels/pixel-form'
import { renderFrames } from '#server/renders/frame-pool'
import { encoderOf } from '#server/renders/encoders/table'
import { renderFile } from '#server/renders/render-file'
import { faultOf } from '#server/renders/render-fault'
import { fonts, planned, softCard } from '../support/delivered'
import { coat, emptyCard, solid, withBox } from '../support/engine'

const folder = mkdtempSync(join(tmpdir(), 'wax-test-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const job = (card: Card, file: string, options: Partial<RenderWish> = {}) => ({
  card,
  fonts,
  options: { format: 'png' as const, from: 0, to: card.length, ...options },
  paths: [join(folder, file)],
  stem: 'soft',
  threads: 2,
})

const left = (file: string) => readdirSync(folder).filter((name) => name.startsWith(file.replace(/\.\w+$/, '')))

describe('a PNG sequence', () => {
  test.each([8, 16] as const)('of %d bits holds every pixel that the engine made', async (bits) => {
    const { report, made, read } = await renderFile(job(softCard(), `soft${bits}.zip`, { bits }))
    expect(report.passed).toBe(true)
    expect(report.alpha).toEqual({ largest: 0, mean: 0 })
    expect(made).toEqual(read)
    expect(new Set(made).size).toBeGreaterThan(5)
    const listed = execFileSync('python3', ['-m', 'zipfile', '-l', join(folder, `soft${bits}.zip`)], {
      encoding: 'utf8',
    })
    expect(listed.match(/soft-\d{5}\.png/g)).toHaveLength(10)
    expect(left(`soft${bits}.zip`)).toEqual([`soft${bits}.zip`])
  })

  test('of two threads is the same as of one', async () => {
    const read = await Promise.all(
      [1, 2].map(async (threads) => (await renderFile({ ...job(softCard(), `threads${threads}`), threads })).read),
    )
    expect(read[0]).toHaveLength(10)
    expect(read[0]).toEqual(read[1])
  })

  test('a hold that is played again is made once, and stands in the file as often as it is played', async () => {
    const card: Card = { ...softCard(), zones: { hold: 4, out: 7 } }
    const { read, report } = await renderFile(job(card, 'held.zip', { holds: 3, to: 16 }))
    expect(report.passed).toBe(true)
    expect(read).toHaveLength(16)
    expect(read.slice(7, 10)).toEqual(read.slice(4, 7))
    expect(read.slice(10, 13)).toEqual(read.slice(4, 7))
    const once = await renderFile(job(card, 'once.zip'))
    expect([...read.slice(0, 7), ...read.slice(13)]).toEqual(once.read)
  })

  test('at twice the size it is rendered at that size', async () => {
    const { report, plan } = await renderFile(job(softCard(), 'large.zip', { scale: 2, to: 1 }))
    expect(report.passed).toBe(true)
    expect([plan.width, plan.height]).toEqual([640, 352])
  })
})

describe('ProRes 4444', () => {
  test('carries alpha to half a step of 8 bits; frames, size and rate are those of the card', async () => {
    const { report } = await renderFile(job(softCard(), 'soft.mov', { format: 'prores4444' }))
    expect(report.checks.filter(({ passed }) => !passed)).toEqual([])
    expect(report.alpha!.largest).toBeGreaterThan(0)
    const show = [
      '-v',
      'error',
      '-count_frames',
      '-show_entries',
      'stream=codec_name,codec_tag_string,color_space,color_primaries,color_transfer,nb_read_frames,r_frame_rate',
    ]
    const probed = execFileSync('ffprobe', [...show, '-of', 'default=nw=1', join(folder, 'soft.mov')], {
      encoding: 'utf8',
    })
    expect(probed).toContain('codec_tag_string=ap4h')
    expect(probed).toContain('nb_read_frames=10')
    expect(probed).toContain('r_frame_rate=30000/1001')
    for (const name of ['color_space', 'color_primaries', 'color_transfer']) expect(probed).toContain(`${name}=bt709`)
  })

  test('shows the colour that was meant, decoded by ffmpeg as BT.709, to 2 of 255', async () => {
    const colours = ['#C83C28', '#1E6B6A', '#F6C667', '#808080']
    const face = (colour: string) => [coat('fill', `f${colour.slice(1).toLowerCase()}`, { paint: solid(colour) })]
    const card = colours.reduce(
      (now, colour, i) => {
        const boxed = withBox(
          now,
          { x: 20 + i * 40, y: 40, width: 40, height: 80, id: `b${i}` },
          { face: face(colour) },
        )
        return boxed
      },
      emptyCard(160, 80, 2),
    )
    await renderFile(job(card, 'colours.mov', { format: 'prores4444' }))
    const raw = [
      '-v',
      'error',
      '-i',
      join(folder, 'colours.mov'),
      '-vf',
      'zscale=matrixin=709:rangein=limited,format=gbrap',
      '-frames:v',
      '1',
    ]
    const planes = execFileSync('ffmpeg', [...raw, '-f', 'rawvideo', '-pix_fmt', 'gbrap', 'pipe:1'])
    colours.forEach((colour, i) => {
      const at = 40 * 160 + 20 + i * 40
      const [g, b, r, a] = [0, 1, 2, 3].map((plane) => planes[plane * 160 * 80 + at]!)
      const meant = [1, 3, 5].map((k) => parseInt(colour.slice(k, k + 2), 16))
      ;[r!, g!, b!].forEach((value, c) => expect(Math.abs(value - meant[c]!)).toBeLessThanOrEqual(2))
      expect(a).toBe(255)
    })
  })
})

describe('what cannot be rendered', () => {
  test.each([
    ['no frames', { from: 4, to: 4 }, /no frame to render/],
    ['frames beyond the loop', { from: 0, to: 11 }, /has 10 frames/],
  ])('%s: one clear word, no file', async (name, options, words) => {
    await expect(renderFile(job(softCard(), `${name}.zip`, options))).rejects.toThrow(words)
    expect(left(`${name}.zip`)).toEqual([])
  })

  test('a missing font ends the render and leaves no file', async () => {
    await expect(
      renderFile({ ...job(softCard(), 'fontless.mov', { format: 'prores4444' }), fonts: new Map() }),
    ).rejects.toThrow(/anton/)
    expect(left('fontless')).toEqual([])
  })

  test('a cancelled render stops and leaves no file', async () => {
    const control = new AbortController()
    const long = { ...softCard(), length: 500 }
    const render = renderFile({
      ...job(long, 'cancelled.mov', { format: 'prores4444', to: 500 }),
      signal: control.signal,
      onProgress: (_, done) => done === 3 && control.abort(),
    })
    await expect(render).rejects.toThrow(/cancelled/)
    expect(existsSync(join(folder, 'cancelled.mov'))).toBe(false)
    expect(left('cancelled')).toEqual([])
  })
})

describe('a full disk', () => {
  // /dev/full takes nothing: every write ends as on a disk without room (Linux, full(4)).
  const full = (name: string) => {
    const path = join(folder, name)
    symlinkSync('/dev/full', path)
    return path
  }
  const noise = (bits: FramePicture['bits']) => {
    const pixels = new Uint8Array(320 * 176 * 4 * (bits === 16 ? 2 : 1))
    for (let i = 0; i < pixels.length; i += 65_536) crypto.getRandomValues(pixels.subarray(i, i + 65_536))
    return { width: 320, height: 176, bits, pixels }
  }

  test.each([
    ['png', 'full.zip'],
    ['prores4444', 'full.mov'],
    ['apng', 'full.png'],
    ['webp', 'full.webp'],
    ['webm', 'full.webm'],
  ] as const)('is one clear word, and nothing hangs or falls: %s', async (format, name) => {
    const { plan } = planned(softCard(), { format, from: 0, to: 4 }, [full(name)])
    const write = async () => {
      const writer = await encoderOf(format).open(plan)
      try {
        for (let i = 0; i < 30; i++) await writer.write(noise(plan.form.bits))
        await writer.close()
      } catch (error) {
        await writer.abort()
        throw error
      }
    }
    const error = await write().then(
      () => null,
      (reason: unknown) => reason,
    )
    expect(faultOf(error)).toMatchObject({ code: 'disk-full' })
  })
})

test('a frame that takes too long ends the render with a word that names it; one in time does not', async () => {
  const job = { card: softCard(), fonts, form: PLAIN_FORM, frames: [0, 1, 2], threads: 1 }
  const made = async (limit: number) => {
    let count = 0
    for await (const picture of renderFrames({ ...job, limit })) count += picture.width > 0 ? 1 : 0
    return count
  }
  // No thread starts and renders in a thousandth of a second.
  await expect(made(1)).rejects.toMatchObject({ fault: { code: 'too-slow', place: 'frame 0' } })
  expect(await made(60_000)).toBe(3)
})
