import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, test } from '@jest/globals'
import parseExr from 'parse-exr'
import UPNG from 'upng-js'
import yauzl from 'yauzl'
import type { RenderWish } from '#core/formats/deliveries/render-options'
import { deliveryOf } from '#core/formats/deliveries/table'
import type { FramePicture } from '#core/frame/engine'
import { encoderOf } from '#server/renders/encoders/table'
import { framesOf, held, planned, softCard, written } from '../support/delivered'

// Deliveries read by programs that have no part in writing or checking them.

const folder = mkdtempSync(join(tmpdir(), 'wax-readers-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const card = { ...softCard(), length: 5 }

async function delivered(
  name: string,
  wish: Omit<RenderWish, 'from' | 'to'>,
): Promise<{ paths: string[]; frames: FramePicture[] }> {
  const files = deliveryOf(wish.format).files(wish)
  const paths = files.map(({ role, ending }) => join(folder, `${name}${role}${ending}`))
  const { plan } = planned(card, { from: 0, to: card.length, ...wish }, paths)
  const frames = framesOf(card, plan)
  await written(plan, frames)
  return { paths, frames }
}

async function unzipped(path: string): Promise<{ name: string; bytes: Buffer }[]> {
  const zip = await yauzl.openPromise(path)
  const files: { name: string; bytes: Buffer }[] = []
  for await (const entry of zip.eachEntry()) {
    const parts: Buffer[] = []
    for await (const part of await zip.openReadStreamPromise(entry)) parts.push(part as Buffer)
    files.push({ name: entry.fileName, bytes: Buffer.concat(parts) })
  }
  return files
}

const mediaInfo = (path: string): Record<string, string> => {
  const { media } = JSON.parse(execFileSync('mediainfo', ['--Output=JSON', path], { encoding: 'utf8' })) as {
    media: { track: (Record<string, string> & { '@type': string })[] }
  }
  return media.track.find((track) => track['@type'] === 'Video')!
}

const all = (frames: FramePicture[]) => Buffer.concat(frames.map(({ pixels }) => pixels))

describe('PNG', () => {
  test.each([
    [8, 'rgba'],
    [16, 'rgba64le'],
  ] as const)('of %d bits is read by ffmpeg to the byte', async (bits, format) => {
    const { paths, frames } = await delivered(`png${bits}`, { format: 'png', bits })
    const files = await unzipped(paths[0]!)
    expect(files.map(({ name }) => name)).toEqual(frames.map((_, i) => `soft-0000${i}.png`))
    const read = files.map(({ bytes }) =>
      execFileSync(
        'ffmpeg',
        ['-v', 'error', '-f', 'png_pipe', '-i', 'pipe:0', '-f', 'rawvideo', '-pix_fmt', format, 'pipe:1'],
        {
          input: bytes,
          maxBuffer: 2 ** 26,
        },
      ),
    )
    expect(Buffer.compare(Buffer.concat(read), all(frames))).toBe(0)
  })
})

test('an animated PNG is read by UPNG to the byte, with its times', async () => {
  const { paths, frames } = await delivered('apng', { format: 'apng' })
  const file = readFileSync(paths[0]!)
  const image = UPNG.decode(file.buffer.slice(file.byteOffset, file.byteOffset + file.length) as ArrayBuffer)
  expect([image.width, image.height, image.frames.length]).toEqual([320, 176, 5])
  const read = UPNG.toRGBA8(image).map((frame) => Buffer.from(frame))
  read.forEach((frame, i) => expect(frame.equals(frames[i]!.pixels)).toBe(true))
})

describe('OpenEXR', () => {
  test.each(['half', 'float'] as const)(
    'of %s numbers is linear, premultiplied, by a reader from elsewhere',
    async (bits) => {
      const { paths, frames } = await delivered(`exr-${bits}`, { format: 'exr', bits })
      const files = await unzipped(paths[0]!)
      expect(files).toHaveLength(5)
      for (const [i, { bytes }] of files.entries()) {
        // Type 1015 is 32-bit numbers, as the reader calls it: halves are widened.
        const { data, width, height } = parseExr(new Uint8Array(bytes).buffer, 1015)
        expect([width, height]).toEqual([320, 176])
        const engines = framesOf({ ...card, length: i + 1 }, {
          form: { bits: 'float', alpha: 'premultiplied', light: 'linear' },
        } as never)[i]!
        const meant = new Float32Array(engines.pixels.buffer)
        let wrong = 0
        for (let y = 0; y < height; y++) {
          for (let x = 0; x < width * 4; x++) {
            // Its rows run upward.
            const [read, made] = [data[(height - 1 - y) * width * 4 + x]!, meant[y * width * 4 + x]!]
            const most = bits === 'float' ? 0 : Math.max(made * 2 ** -11, 2 ** -25)
            if (Math.abs(read - made) > most) wrong++
          }
        }
        expect(wrong).toBe(0)
      }
      expect(frames).toHaveLength(5)
    },
  )

  test('says its colours, its rate and its frame, by the same reader', async () => {
    const { paths } = await delivered('exr-facts', { format: 'exr' })
    const headers = (await unzipped(paths[0]!)).map(
      ({ bytes }) => parseExr(new Uint8Array(bytes).buffer, 1015).header as Record<string, never>,
    )
    const { chromaticities, framesPerSecond } = headers[0] as Record<'chromaticities' | 'framesPerSecond', never>
    // ITU-R BT.709-6, table 1.
    const wanted = { redX: 0.64, redY: 0.33, greenX: 0.3, greenY: 0.6, blueX: 0.15, blueY: 0.06, whiteX: 0.3127 }
    for (const [name, value] of Object.entries(wanted)) expect(chromaticities[name]).toBeCloseTo(value, 5)
    expect(framesPerSecond).toEqual([30000, 1001])
    // SMPTE ST 12-1, as OpenEXR lays it out: decimal digits by four bits, frames lowest.
    expect(headers.map(({ timeCode }) => timeCode)).toEqual([0, 1, 2, 3, 4].map((frame) => [frame, 0]))
  })
})

describe('what files say of themselves, by mediainfo', () => {
  const rate = { FrameRate_Num: '30000', FrameRate_Den: '1001' }
  const bt709 = { colour_primaries: 'BT.709', transfer_characteristics: 'BT.709', matrix_coefficients: 'BT.709' }

  test.each([
    [
      'ProRes 4444',
      { format: 'prores4444', timecode: '01:00:00;02' },
      0,
      { Format: 'ProRes', Format_Profile: '4444', ...rate, ...bt709 },
    ],
    ['run-length', { format: 'rle', timecode: '10:00:00:00' }, 0, { CodecID: 'rle ', ...rate }],
    ['PNG in MOV', { format: 'movpng' }, 0, { Format: 'PNG', ...rate }],
    ['WebM', { format: 'webm' }, 0, { Format: 'VP9', ...bt709 }],
    ['fill', { format: 'fillkey' }, 0, { Format: 'ProRes', Format_Profile: '422 HQ', ...rate, ...bt709 }],
    ['key', { format: 'fillkey' }, 1, { Format: 'ProRes', Format_Profile: '422 HQ', ...rate }],
    [
      'key of full range',
      { format: 'fillkey', codec: 'h264', key: 'full' },
      1,
      { Format: 'AVC', colour_range: 'Full' },
    ],
    [
      'review copy',
      { format: 'review' },
      0,
      { Format: 'AVC', ChromaSubsampling: '4:2:0', colour_range: 'Limited', ...bt709 },
    ],
  ] as const)('%s', async (name, wish, index, said) => {
    const { paths } = await delivered(name.replace(/ /g, '-'), wish)
    const video = mediaInfo(paths[index]!)
    expect(video).toMatchObject({ Width: '320', Height: '176', FrameCount: '5', ...said })
    if ('timecode' in wish) {
      const probed = execFileSync(
        'ffprobe',
        ['-v', 'error', '-show_entries', 'stream_tags=timecode', '-of', 'csv=p=0', paths[0]!],
        {
          encoding: 'utf8',
        },
      )
      expect(probed).toContain(wish.timecode)
    }
  })
})

test('fill and key, laid over a colour as a mixer does, give the frame over that colour', async () => {
  const { paths, frames } = await delivered('mixed', { format: 'fillkey', codec: 'png', fill: 'black', key: 'full' })
  const [fills, keys] = await Promise.all(paths.map(unzipped))
  const raw = (bytes: Buffer, format: string) =>
    new Uint16Array(
      new Uint8Array(
        execFileSync(
          'ffmpeg',
          ['-v', 'error', '-f', 'png_pipe', '-i', 'pipe:0', '-f', 'rawvideo', '-pix_fmt', format, 'pipe:1'],
          {
            input: bytes,
            maxBuffer: 2 ** 26,
          },
        ),
      ).buffer,
    )
  const under = [0x2000, 0x8000, 0xc000]
  const fill = raw(fills![2]!.bytes, 'rgb48le')
  const key = raw(keys![2]!.bytes, 'gray16le')
  const rgba = new Uint16Array(frames[2]!.pixels.buffer)
  let largest = 0
  for (let i = 0; i < key.length; i++) {
    for (let c = 0; c < 3; c++) {
      const mixed = fill[i * 3 + c]! + under[c]! * (1 - key[i]! / 65_535)
      // Premultiplied source-over (W3C Compositing and Blending 1).
      const meant = rgba[i * 4 + c]! + under[c]! * (1 - rgba[i * 4 + 3]! / 65_535)
      largest = Math.max(largest, Math.abs(mixed - meant))
    }
  }
  expect(largest).toBe(0)
})

describe('a review copy over footage', () => {
  const rate = { numerator: 50, denominator: 1 }
  const behind = { format: 'review', backdrop: 'crowd-lights', burn: false } as const

  test('shows it from its first frame, at the rate of the card, again from the beginning where it ends', async () => {
    const long = { ...card, rate, length: 420 }
    const { plan } = planned(long, { ...behind, from: 0, to: 420 }, [])
    const { width, height } = plan
    // Read by ffmpeg alone: 8 s of 25 frames a second.
    const size = `${width}:${height}`
    const flags = 'flags=bicubic+accurate_rnd+full_chroma_int+bitexact'
    const filters = `select='eq(n,3)+eq(n,199)',scale=${size}:force_original_aspect_ratio=increase:${flags},crop=${size}`
    const input = ['-v', 'error', '-i', 'public/footage/crowd-lights.webm', '-vf', filters, '-vsync', '0']
    const raw = execFileSync('ffmpeg', [...input, '-f', 'rawvideo', '-pix_fmt', 'rgba', 'pipe:1'], {
      maxBuffer: 2 ** 26,
    })
    const [third, last] = [raw.subarray(0, raw.length / 2), raw.subarray(raw.length / 2)]
    const clear = { width, height, bits: 8 as const, pixels: new Uint8Array(width * height * 4) }
    const shown = (await encoderOf('review').shown!(plan))!
    const seen = new Map<number, Uint8Array>()
    for (const at of [6, 7, 398, 406]) seen.set(at, (await shown.of(clear, at)).pixels)
    shown.end!()
    expect(third.equals(last)).toBe(false)
    for (const at of [6, 7, 406]) expect([at, third.equals(seen.get(at)!)]).toEqual([at, true])
    expect(last.equals(seen.get(398)!)).toBe(true)
  })

  test('is checked over the same footage, and one over other footage is refused', async () => {
    const { paths, frames } = await delivered('footage', behind)
    const of = (backdrop: 'crowd-lights' | 'bright-fog') =>
      held(planned(card, { ...behind, backdrop, from: 0, to: card.length }, paths), frames)
    expect((await of('crowd-lights')).checks.filter(({ passed }) => !passed)).toEqual([])
    // Even parts and fine ones.
    expect((await of('bright-fog')).checks.filter(({ passed }) => !passed).map(({ name }) => name)).toEqual([
      'colour',
      'colour',
    ])
  })
})
