import { brotliDecompressSync, gunzipSync } from 'node:zlib'
import { describe, expect, test } from '@jest/globals'
import { packed } from '#server/rim/packed'

const long = JSON.stringify(Array.from({ length: 400 }, (_, i) => ({ id: i, name: 'Lantern Regatta' })))

describe('answers go out packed', () => {
  test.each([
    ['br', 'br'],
    ['gzip, deflate, br', 'br'],
    ['gzip, deflate', 'gzip'],
    ['GZIP', 'gzip'],
    ['br;q=0, gzip;q=0.5', 'gzip'],
    ['br;q=0.0', null],
    ['deflate', null],
    ['', null],
    [undefined, null],
  ])('%s takes %s', async (accepts, encoding) => {
    const made = await packed(long, accepts)
    expect(made?.encoding ?? null).toBe(encoding)
    if (!made) return
    const read = made.encoding === 'br' ? brotliDecompressSync(made.bytes) : gunzipSync(made.bytes)
    expect(read.toString()).toBe(long)
    expect(made.bytes.length).toBeLessThan(long.length / 4)
  })

  test('what is short stays as it is', async () => {
    expect(await packed('{"ok":true}', 'br')).toBeNull()
  })
})
