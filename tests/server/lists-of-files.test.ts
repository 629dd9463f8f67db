import { execFileSync } from 'node:child_process'
import { copyFileSync, existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { WaxError } from '#core/errors'
import { probe, rawFrames } from '#server/renders/ffmpeg'
import { formatOf } from '#server/renders/known-format'
import { readerFor, TELLING_BYTES } from '#server/sequences/containers'
import { startOf } from '#server/sequences/programs'
import { smallSequence } from '#server/sequences/small-frames'
import { takeInPath } from '#server/sequences/store'

// A file that names other files is never followed: what is brought in could else show whatever film lies on the server's disk.

const folder = mkdtempSync(join(tmpdir(), 'wax-lists-'))
const storage = join(folder, 'storage')
const film = join(folder, 'secret.ts')
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const make = (name: string, ...codec: string[]) => {
  const path = join(folder, name)
  const source = ['-f', 'lavfi', '-i', 'testsrc2=size=64x48:rate=25:duration=1', '-pix_fmt', 'yuv420p']
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...source, ...codec, path])
  return path
}
beforeAll(() => {
  make('secret.ts', '-c:v', 'mpeg2video')
})

const LISTS: Readonly<Record<string, () => string>> = {
  'playlist.m3u8': () => `#EXTM3U\n#EXT-X-VERSION:3\n#EXT-X-TARGETDURATION:1\n#EXTINF:1,\n${film}\n#EXT-X-ENDLIST\n`,
  'manifest.mpd': () =>
    `<?xml version="1.0"?><MPD xmlns="urn:mpeg:dash:schema:mpd:2011" profiles="urn:mpeg:dash:profile:isoff-on-demand:2011" type="static" mediaPresentationDuration="PT1S"><Period><AdaptationSet contentType="video"><Representation id="1" bandwidth="1" codecs="x"><BaseURL>file://${film}</BaseURL></Representation></AdaptationSet></Period></MPD>`,
  'joined.ffconcat': () => `ffconcat version 1.0\nfile '${film}'\n`,
  'session.sdp': () => 'v=0\no=- 0 0 IN IP4 127.0.0.1\ns=x\nc=IN IP4 127.0.0.1\nm=video 9 RTP/AVP 33\n',
  // Under the name of a film.
  'playlist.mov': () => `#EXTM3U\n#EXTINF:1,\n${film}\n#EXT-X-ENDLIST\n`,
}

/** The code of a fault of ours, the message of any other error, or null where there is none. */
const refused = (work: Promise<unknown>) =>
  work.then(
    () => null,
    (error: unknown) => (error instanceof WaxError ? error.fault.code : String(error)),
  )

describe.each(Object.keys(LISTS))('%s', (name) => {
  const path = join(folder, name)
  beforeAll(() => writeFileSync(path, LISTS[name]!()))

  test('is no sequence, has no best cut, and is no delivery', async () => {
    expect(await refused(takeInPath(storage, path))).toBe('no-pictures')
    const kept = existsSync(join(storage, 'sequences')) ? readdirSync(join(storage, 'sequences')) : []
    expect(kept).toEqual([])
    expect(await refused(smallSequence(path))).toBe('no-pictures')
    expect(await refused(formatOf([path]))).toBe('unknown-format')
  })

  test('is opened by no start of ffmpeg or ffprobe', async () => {
    expect(await refused(probe(path))).toMatch(/stopped with code/)
    expect(await refused(rawFrames(path, 'rgba', 64 * 48 * 4).next())).toMatch(/stopped with code/)
  })
})

test('ffmpeg itself would follow such a list: else the tests above would show nothing', () => {
  const path = join(folder, 'followed.m3u8')
  writeFileSync(path, LISTS['playlist.m3u8']!())
  const said = execFileSync('ffprobe', ['-v', 'error', '-show_entries', 'stream=width', path])
  expect(String(said)).toContain('width=64')
})

test.each([
  ['film.mov', 'mov', ['-c:v', 'prores_ks']],
  ['film.mp4', 'mov', ['-c:v', 'mpeg4']],
  ['film.webm', 'matroska', ['-c:v', 'libvpx']],
  ['film.mkv', 'matroska', ['-c:v', 'ffv1']],
  ['film.avi', 'avi', ['-c:v', 'mjpeg']],
  ['film.mxf', 'mxf', ['-c:v', 'mpeg2video']],
  ['film.ts', 'mpegts', ['-c:v', 'mpeg2video']],
  ['film.m2ts', 'mpegts', ['-c:v', 'mpeg2video']],
  ['film.mpg', 'mpeg', ['-c:v', 'mpeg1video']],
  ['film.m2v', 'mpegvideo', ['-c:v', 'mpeg2video']],
  ['film.ogv', 'ogg', ['-c:v', 'libtheora']],
  ['film.wmv', 'asf', ['-c:v', 'wmv2']],
  ['film.flv', 'flv', ['-c:v', 'flv1']],
  ['film.ivf', 'ivf', ['-c:v', 'libvpx-vp9']],
  ['film.y4m', 'yuv4mpegpipe', []],
  ['film.gif', 'gif', ['-pix_fmt', 'pal8']],
  ['film.apng', 'apng', ['-pix_fmt', 'rgba']],
])('%s is told by its first bytes, whatever it is called, and read', async (name, reader, codec) => {
  const path = make(name, ...codec)
  expect(readerFor(await startOf(path, TELLING_BYTES))).toBe(reader)
  const other = join(folder, 'nameless')
  copyFileSync(path, other)
  const about = await takeInPath(storage, other)
  expect([about.width, about.height]).toEqual([64, 48])
  expect(about.frames).toBeGreaterThan(10)
})
