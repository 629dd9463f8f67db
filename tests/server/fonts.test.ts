import { deflateSync } from 'node:zlib'
import { describe, expect, test } from '@jest/globals'
import { compress } from 'wawoff2'
import { readOwnFont } from '#server/fonts/own-font'
import { fileStem } from '#core/formats/file-stem'
import { fontBytes } from '../support/engine'

const ttf = fontBytes('orbitron-extrabold')

/** WOFF 1.0 from an sfnt, after the W3C text: header, table directory, packed tables. */
function woff(sfnt: Uint8Array): Uint8Array {
  const view = new DataView(sfnt.buffer, sfnt.byteOffset)
  const count = view.getUint16(4)
  const tables = Array.from({ length: count }, (_, i) => {
    const [tag, checksum, offset, length] = [0, 4, 8, 12].map((k) => view.getUint32(12 + i * 16 + k)) as [
      number,
      number,
      number,
      number,
    ]
    const plain = sfnt.subarray(offset, offset + length)
    const packed = deflateSync(plain)
    return { tag, checksum, length, data: packed.length < length ? packed : plain }
  })
  const total = tables.reduce((sum, { data }) => sum + ((data.length + 3) & ~3), 44 + count * 20)
  const out = new Uint8Array(total)
  const head = new DataView(out.buffer)
  ;[0x774f4646, view.getUint32(0), total].forEach((value, i) => head.setUint32(i * 4, value))
  head.setUint16(12, count)
  let at = 44 + count * 20
  tables.forEach(({ tag, checksum, length, data }, i) => {
    ;[tag, at, data.length, length, checksum].forEach((value, k) => head.setUint32(44 + i * 20 + k * 4, value))
    out.set(data, at)
    at += (data.length + 3) & ~3
  })
  return out
}

describe('a font that is brought in', () => {
  test('is the same font as TTF, WOFF and WOFF2', async () => {
    const [plain, packed, newer] = await Promise.all([
      readOwnFont(ttf, 'a.ttf'),
      readOwnFont(woff(ttf), 'a.woff'),
      readOwnFont(await compress(ttf), 'a.woff2'),
    ])
    expect(plain.family).toBe('Orbitron')
    expect(packed.family).toBe('Orbitron')
    expect(newer.family).toBe('Orbitron')
    // Tables come back to the bit: the id made from the contents is the same.
    expect(packed.id).toMatch(/^own-[0-9a-f]{16}$/)
    expect((await readOwnFont(woff(ttf), 'renamed.woff')).id).toBe(packed.id)
  })

  test.each([
    ['a text', new TextEncoder().encode('wOFFle: not a font at all, only a text')],
    ['half a WOFF2', new Uint8Array([0x77, 0x4f, 0x46, 0x32, 0, 1, 0, 0, 0, 0, 0, 9])],
    ['half a TTF', ttf.slice(0, 60)],
    ['nothing', new Uint8Array()],
  ])('is refused by its name where it is %s', async (_, bytes) => {
    await expect(readOwnFont(bytes, 'odd.woff')).rejects.toMatchObject({
      fault: { code: 'not-a-font', place: 'odd.woff' },
    })
  })

  test('is refused over 30 MB before it is unpacked', async () => {
    await expect(readOwnFont(new Uint8Array(30 * 1024 * 1024 + 1), 'huge.ttf')).rejects.toMatchObject({
      fault: { code: 'font-too-large' },
    })
  })
})

test.each([
  ['Lantern Regatta · opening', 'lantern-regatta-opening'],
  ['  ../../etc/passwd ', 'etc-passwd'],
  ['Élan — Nº 7', 'elan-no-7'],
  ['···', 'card'],
])('%j as a file name is %s', (name, stem) => expect(fileStem(name)).toBe(stem))
