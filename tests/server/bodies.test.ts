import { createHash, randomBytes } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { createServer, request } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals'
import type { H3Event } from 'h3'
import { createApp, defineEventHandler, toNodeListener } from 'h3'
import { LARGEST_CARD_BYTES } from '#core/card/read'
import { WaxError } from '#core/errors'
import { plainError } from '#server/rim/log'
import { sizeAllowed } from '#server/rim/sizes'
import { bodyBytes, bodyFile, bodyJson, revisionIn } from '#server/utils/body'
import { attachment, route } from '#server/utils/rim'

// What comes over the wire: counted, whatever its header says, and refused with a word where it is too much or broken.

const TOO_MUCH = { code: 'too-much', place: 'request', message: 'Too much.', remedy: 'Send less.' }
const MOST = 300_000
const folder = mkdtempSync(join(tmpdir(), 'wax-bodies-'))
const file = join(folder, 'body')
let handle: (event: H3Event) => Promise<unknown>
const server = createServer(toNodeListener(createApp().use(defineEventHandler((event) => route(handle)(event)))))

beforeAll(async () => {
  await new Promise<void>((go) => server.listen(0, '127.0.0.1', go))
})
afterEach(() => {
  delete process.env.WAX_MOST_PICTURE
})
afterAll(() => {
  server.close()
  rmSync(folder, { recursive: true, force: true })
})

interface Answer {
  status: number
  body: { data?: { code: string }; [name: string]: unknown }
}

interface Sending {
  /** Content-Length; without it the body is chunked. */
  length?: number
  /** When the connection is ended, with more promised than was sent. */
  cut?: Promise<void>
}

/** Sends parts one after the other. */
function send(parts: readonly Uint8Array[], { cut, length }: Sending = {}) {
  const { port } = server.address() as AddressInfo
  return new Promise<Answer | 'cut'>((resolve) => {
    const headers = length === undefined ? {} : { 'content-length': length }
    const asking = request({ port, host: '127.0.0.1', method: 'POST', headers }, (response) => {
      const got: Buffer[] = []
      response.on('data', (part: Buffer) => got.push(part))
      response.on('end', () =>
        resolve({ status: response.statusCode!, body: JSON.parse(Buffer.concat(got).toString()) as Answer['body'] }),
      )
    })
    asking.on('error', () => resolve('cut'))
    for (const part of parts) asking.write(part)
    if (cut) void cut.then(() => asking.destroy())
    else asking.end()
  })
}
const parts = (count: number, size = 50_000) => Array.from({ length: count }, () => randomBytes(size))

describe('the bytes of a request', () => {
  test('come whole and in order, up to the most that is allowed', async () => {
    const sent = parts(MOST / 50_000)
    handle = async (event) => ({
      hex: createHash('md5')
        .update(await bodyBytes(event, MOST, TOO_MUCH))
        .digest('hex'),
    })
    expect(await send(sent)).toEqual({
      status: 200,
      body: { hex: createHash('md5').update(Buffer.concat(sent)).digest('hex') },
    })
    const inFile = await sentToFile(sent)
    expect(inFile).toMatchObject({ status: 200 })
    expect(readFileSync(file).equals(Buffer.concat(sent))).toBe(true)
    expect((inFile as Answer).body.hash).toBe(createHash('sha256').update(Buffer.concat(sent)).digest('hex'))
  })

  const sentToFile = (sent: readonly Uint8Array[]) => {
    handle = async (event) => ({ hash: await bodyFile(event, file, MOST, TOO_MUCH, 'sha256') })
    return send(sent)
  }

  test('one too many ends it with what is said of it, whether its length was told or not', async () => {
    for (const read of [
      (event: H3Event) => bodyBytes(event, MOST, TOO_MUCH),
      (event: H3Event) => bodyFile(event, file, MOST, TOO_MUCH, 'sha256'),
    ]) {
      handle = read
      const over = [...parts(MOST / 50_000), randomBytes(1)]
      for (const length of [undefined, MOST + 1]) {
        expect(await send(over, length === undefined ? {} : { length })).toMatchObject({
          status: 413,
          body: { data: TOO_MUCH },
        })
      }
    }
  })

  test('a connection that ends before all was sent is told as that, and leaves nothing waiting', async () => {
    for (const read of [
      (event: H3Event) => bodyBytes(event, MOST, TOO_MUCH),
      (event: H3Event) => bodyFile(event, file, MOST, TOO_MUCH, 'sha256'),
    ]) {
      let begin = () => {}
      const cut = new Promise<void>((go) => (begin = go))
      const failed = new Promise<unknown>((tell) => {
        handle = async (event) => {
          begin()
          await read(event).catch(tell)
          return {}
        }
      })
      expect(await send(parts(2), { cut, length: 200_000 })).toBe('cut')
      expect(await failed).toMatchObject({ statusCode: 400, data: { code: 'cut-off' } })
    }
  })

  test('that cannot be written are told', async () => {
    handle = (event) => bodyFile(event, join(folder, 'nowhere', 'body'), MOST, TOO_MUCH, 'sha256')
    expect(await send(parts(1))).toMatchObject({ status: 500, body: { data: { code: 'server' } } })
  })
})

describe('JSON in a request', () => {
  const json = async (text: string | Uint8Array) => {
    handle = bodyJson
    return (await send([Buffer.from(text)])) as Answer
  }

  test('is an object; none is an empty one', async () => {
    expect((await json('{"name":"Régate","list":[1]}')).body).toEqual({ name: 'Régate', list: [1] })
    expect((await json('')).body).toEqual({})
  })

  test.each(['[1]', '"words"', 'null', '7', '{"name":', 'name=value', '\u0000'])('%j is refused', async (text) => {
    expect(await json(text)).toMatchObject({ status: 400, body: { data: { code: 'not-json' } } })
  })

  test('may be as large as the largest card, and what it comes in', async () => {
    const card = `{"document":"${'x'.repeat(LARGEST_CARD_BYTES)}"}`
    handle = async (event) => ({ length: ((await bodyJson(event)).document as string).length })
    expect(await send([Buffer.from(card)])).toMatchObject({ body: { length: LARGEST_CARD_BYTES } })
    const more = `{"document":"${'x'.repeat(LARGEST_CARD_BYTES + 70_000)}"}`
    expect(await send([Buffer.from(more)])).toMatchObject({ status: 413, body: { data: { code: 'too-large' } } })
  })

  test('a revision is a whole number that the database can hold', () => {
    const given = [0, 7, 2 ** 31 - 1, 2 ** 31, -1, 1.5, '7', null, undefined, NaN]
    expect(given.map(revisionIn)).toEqual([0, 7, 2 ** 31 - 1, ...new Array(7).fill(undefined)])
  })
})

describe('the rim', () => {
  const answer = async (error: unknown) => {
    handle = () => Promise.reject(error)
    return (await send([])) as Answer
  }

  test.each([
    ['what the core refuses', new WaxError('too-much', 'pieces[0]', 'Too much.', 'Less.'), 422, 'too-much'],
    ['a lost database', Object.assign(new Error('gone'), { code: 'ECONNREFUSED' }), 503, 'no-database'],
    ['a full disk', new Error('ENOSPC: no space left on device, write'), 507, 'disk-full'],
    ['anything else', new Error('words of a card'), 500, 'server'],
  ])('tells %s with a code, a place and a remedy', async (_, error, status, code) => {
    const got = await answer(error)
    expect(got).toMatchObject({ status, body: { data: { code } } })
    const { place, message, remedy } = got.body.data as unknown as Record<string, string>
    expect([place, message, remedy].every(Boolean)).toBe(true)
    // Nothing of an error that nobody foresaw leaves the server.
    if (status === 500) expect(JSON.stringify(got.body)).not.toContain('words of a card')
  })

  test('file names of any script go out as RFC 8187 has them', () => {
    // Its own example (section 3.2.3), and signs that it does not let through.
    expect(attachment('£ and € rates')).toBe("attachment; filename*=UTF-8''%C2%A3%20and%20%E2%82%AC%20rates")
    expect(attachment("a'b(c)*.png")).toBe("attachment; filename*=UTF-8''a%27b%28c%29%2a.png")
  })

  test('sizes follow the settings; a setting that is no size is none', () => {
    expect(sizeAllowed('picture', 5 * 1024 * 1024, 'boat.png')).toMatchObject({ most: 5 * 1024 * 1024 })
    process.env.WAX_MOST_PICTURE = '12'
    expect(sizeAllowed('picture', 5, 'boat.png')).toEqual({
      most: 12 * 1024 * 1024,
      fault: expect.objectContaining({ code: 'picture-too-large', remedy: 'Pictures may have up to 12 MB.' }),
    })
    for (const nonsense of ['', 'large', '-3', '0']) {
      process.env.WAX_MOST_PICTURE = nonsense
      expect(sizeAllowed('picture', 5, 'boat.png').most).toBe(5)
    }
  })

  test('an error in the log: what it is and where, not what it was about', () => {
    const cause = Object.assign(new Error('duplicate key\nDetail: (name)=(Lantern Regatta)'), { code: '23505' })
    const error = new Error(`Failed query: insert ...\nparams: Lantern Regatta ${'x'.repeat(500)}`, { cause })
    const plain = plainError(error) as { message: string; at: string[]; cause: object }
    expect(JSON.stringify(plain)).not.toContain('Lantern Regatta')
    expect(plain).toMatchObject({
      kind: 'Error',
      message: 'Failed query: insert ...',
      cause: { code: '23505', message: 'duplicate key' },
    })
    expect(plain.at.length).toBeLessThanOrEqual(8)
    expect(plain.at.every((line) => line.startsWith('at '))).toBe(true)
    expect(plainError('words')).toEqual({ kind: 'string' })
  })
})
