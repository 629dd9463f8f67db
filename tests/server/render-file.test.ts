import { execFileSync } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, rmSync, symlinkSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, test } from '@jest/globals'
import type { Card } from '#core/card/schema'
import { bitsFor, deliveryOf } from '#core/formats/deliveries'
import { Engine } from '#core/frame/engine'
import type { FilePlan } from '#server/renders/encoders/encoder'
import { renderFrames } from '#server/renders/frame-pool'
import { pngSequence } from '#server/renders/encoders/png-sequence'
import { proRes4444 } from '#server/renders/encoders/prores4444'
import { Ledger } from '#server/renders/ledger'
import type { RenderOptions } from '#server/renders/options'
import { renderFile } from '#server/renders/render-file'
import { faultOf } from '#server/renders/task'
import { verifyFile } from '#server/renders/verify'
import { coat, emptyCard, fontBytes, solid, withBox, withType } from '../support/engine'

const folder = mkdtempSync(join(tmpdir(), 'wax-test-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const fonts = new Map([['anton', fontBytes('anton')]])

/** Type with a soft shadow that moves: every value of alpha is in it. */
function softCard(): Card {
  const face = [
    coat('fill', 'f', { paint: solid('#F2A33C') }),
    coat('stroke', 's', { width: 4, paint: solid('#3D0D16') }),
  ]
  const behind = [coat('shadow', 'h', { softness: 50, colour: '#FF9A3C', distance: 8 })]
  const x = {
    keys: [
      { frame: 0, value: 120.25 },
      { frame: 5, value: 200.75 },
    ],
  }
  return {
    ...withType(emptyCard(320, 176, 10), { wording: 'Wax', font: 'anton', size: 110, x }, { face, behind }),
    rate: { numerator: 30000, denominator: 1001 },
  }
}

const job = (card: Card, file: string, options: Partial<RenderOptions> = {}) => ({
  card,
  fonts,
  options: { format: 'png' as const, bits: 8 as const, from: 0, to: card.length, ...options },
  path: join(folder, file),
  stem: 'soft',
  threads: 2,
})

const left = (file: string) => readdirSync(folder).filter((name) => name.startsWith(file.replace(/\.\w+$/, '')))

describe('a PNG sequence', () => {
  test.each([8, 16] as const)('of %d bits holds every pixel that the engine made', async (bits) => {
    const report = await renderFile(job(softCard(), `soft${bits}.zip`, { bits }))
    expect(report.passed).toBe(true)
    expect(report.alpha).toEqual({ largest: 0, mean: 0 })
    expect(report.checks.map(({ name }) => name)).toEqual(['frames', 'size', 'alpha', 'colour'])
    const listed = execFileSync('python3', ['-m', 'zipfile', '-l', join(folder, `soft${bits}.zip`)], {
      encoding: 'utf8',
    })
    expect(listed.match(/soft-\d{5}\.png/g)).toHaveLength(10)
    expect(left(`soft${bits}.zip`)).toEqual([`soft${bits}.zip`])
  })

  test('of two threads is the same as of one', async () => {
    const plan = (path: string): FilePlan => ({
      path,
      width: 320,
      height: 176,
      rate: softCard().rate,
      first: 0,
      frames: 10,
      bits: 8,
      stem: 'soft',
    })
    const paths = [1, 2].map((threads) => ({ ...job(softCard(), `threads${threads}`), threads }))
    for (const one of paths) await renderFile(one)
    const frames = await Promise.all(
      paths.map(async ({ path }) => {
        const all: string[] = []
        for await (const { exact } of (await pngSequence.decode(plan(path))).frames)
          all.push(Buffer.from(exact!).toString('base64'))
        return all
      }),
    )
    expect(frames[0]).toHaveLength(10)
    expect(frames[0]).toEqual(frames[1])
  })
})

describe('ProRes 4444', () => {
  test('carries alpha to half a step of 8 bits; frames, size and rate are those of the card', async () => {
    const report = await renderFile(job(softCard(), 'soft.mov', { format: 'prores4444' }))
    expect(report.checks.filter(({ passed }) => !passed)).toEqual([])
    expect(report.alpha.largest).toBeGreaterThan(0)
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

/** The same forms in a colour a little off: five steps of 255 in one channel. */
function recoloured(): Card {
  const card = softCard()
  const [piece] = card.pieces
  const face = piece!.coats.face.map((one) => (one.kind === 'fill' ? { ...one, paint: solid('#F29E3C') } : one))
  return { ...card, pieces: [{ ...piece!, coats: { ...piece!.coats, face } }] }
}

describe('the check after writing', () => {
  /** A finished file, and a ledger of what somebody else says was made. */
  async function checked(change: { plan?: Partial<FilePlan>; card?: Card; format?: 'png' | 'prores4444' }) {
    const format = change.format ?? 'png'
    const encoder = format === 'png' ? pngSequence : proRes4444
    const name = format === 'png' ? 'told.zip' : 'told.mov'
    const card = softCard()
    await renderFile(job(card, name, { format }))
    const delivery = deliveryOf(format)
    const bits = bitsFor(delivery, 8)
    const kept = { bits, width: 320, height: 176, colour: !delivery.tolerance.exact }
    const ledger = await Ledger.create(join(folder, 'told.alpha'), kept)
    const engine = new Engine()
    engine.fonts.add('anton', fonts.get('anton')!)
    for (let frame = 0; frame < card.length; frame++)
      await ledger.enter(engine.render(change.card ?? card, frame, { bits }))
    const plan = {
      path: join(folder, name),
      width: 320,
      height: 176,
      rate: card.rate,
      frames: 10,
      bits,
      first: 0,
      stem: 'soft',
      ...change.plan,
    }
    const outcome = await verifyFile({ delivery, encoder, plan, ledger })
    await ledger.close()
    return outcome.checks.filter(({ passed }) => !passed).map(({ name: what }) => what)
  }

  test('passes what is true', async () => expect(await checked({})).toEqual([]))

  test.each([
    ['a missing frame', { plan: { frames: 11 } }, ['frames']],
    ['another size', { plan: { width: 640 } }, ['size']],
    ['another rate', { plan: { rate: { numerator: 30, denominator: 1 } }, format: 'prores4444' as const }, ['rate']],
    ['another alpha', { card: { ...softCard(), pieces: [] } }, ['alpha', 'colour']],
    ['another alpha in a film', { card: { ...softCard(), pieces: [] }, format: 'prores4444' as const }, ['alpha']],
    ['another colour in a film', { card: recoloured(), format: 'prores4444' as const }, ['colour']],
  ])('finds %s', async (_, change, wrong) => expect(await checked(change)).toEqual(wrong))
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
  const plan = (path: string): FilePlan => ({
    ...{ path, width: 320, height: 176, rate: softCard().rate, first: 0, frames: 4, bits: 16, stem: 'soft' },
  })
  const noise = () => {
    const pixels = new Uint8Array(320 * 176 * 8)
    for (let i = 0; i < pixels.length; i += 65_536) crypto.getRandomValues(pixels.subarray(i, i + 65_536))
    return { width: 320, height: 176, bits: 16 as const, pixels }
  }

  test.each([
    ['png', pngSequence, 'full.zip'],
    ['prores4444', proRes4444, 'full.mov'],
  ])('is one clear word, and nothing hangs or falls: %s', async (_format, encoder, name) => {
    const write = async () => {
      const writer = await encoder.open(plan(full(name)))
      try {
        for (let i = 0; i < 30; i++) await writer.write(noise())
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
  const job = { card: softCard(), fonts, bits: 8 as const, from: 0, to: 3, threads: 1 }
  const made = async (limit: number) => {
    let count = 0
    for await (const picture of renderFrames({ ...job, limit })) count += picture.width > 0 ? 1 : 0
    return count
  }
  // No thread starts and renders in a thousandth of a second.
  await expect(made(1)).rejects.toMatchObject({ fault: { code: 'too-slow', place: 'frame 0' } })
  expect(await made(60_000)).toBe(3)
})
