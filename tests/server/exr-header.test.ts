import { expect, test } from '@jest/globals'
import { withFacts } from '#server/renders/encoders/exr-header'

/** The header of a file of 20 lines in ZIP of sixteen, the table of its two runs, and their bytes. */
function file(...extra: Buffer[]): Buffer {
  const attribute = (name: string, type: string, data: Buffer) => {
    const size = Buffer.alloc(4)
    size.writeInt32LE(data.length)
    return Buffer.concat([Buffer.from(`${name}\0${type}\0`), size, data])
  }
  const window = Buffer.alloc(16)
  window.writeInt32LE(3, 8)
  window.writeInt32LE(19, 12)
  const header = Buffer.concat([
    Buffer.from([0x76, 0x2f, 0x31, 0x01, 2, 0, 0, 0]),
    ...[attribute('compression', 'compression', Buffer.of(3)), attribute('dataWindow', 'box2i', window), ...extra],
    Buffer.of(0),
  ])
  const table = Buffer.alloc(16)
  table.writeBigUInt64LE(BigInt(header.length + 16))
  table.writeBigUInt64LE(BigInt(header.length + 16 + 5), 8)
  return Buffer.concat([header, table, Buffer.from('first'), Buffer.from('second')])
}

const PAL = { numerator: 25, denominator: 1 }
/** Data of an attribute. */
function told(bytes: Buffer, name: string): Buffer | null {
  const at = bytes.indexOf(Buffer.from(`${name}\0`))
  if (at < 0) return null
  const data = bytes.indexOf(0, at + name.length + 1) + 5
  return bytes.subarray(data, data + bytes.readInt32LE(data - 4))
}

test('what is told goes into the header, and the table points to where the lines lie now', () => {
  const [before, after] = [file(), withFacts(file(), PAL, 0)]
  const by = after.length - before.length
  expect(by).toBeGreaterThan(60)
  const table = after.length - 'firstsecond'.length - 16
  for (const [i, word] of ['first', 'second'].entries()) {
    const at = Number(after.readBigUInt64LE(table + i * 8))
    expect(after.toString('latin1', at, at + word.length)).toBe(word)
  }
  expect(told(after, 'framesPerSecond')!.readInt32LE()).toBe(25)
})

test.each([
  [12, PAL, 0x12],
  [24, PAL, 0x24],
  [25, PAL, 0x100],
  // 12:34:56:19 of 25 frames a second.
  [((12 * 60 + 34) * 60 + 56) * 25 + 19, PAL, 0x12345619],
  [30 * 59, { numerator: 30_000, denominator: 1001 }, 0x5900],
])('frame %s at %j is 0x%s in the digits of SMPTE ST 12-1', (frame, rate, bits) => {
  expect(told(withFacts(file(), rate, frame), 'timeCode')!.readUInt32LE()).toBe(bits)
})

test('above 30 frames a second there is no room for a timecode; what is told already stays', () => {
  const fast = withFacts(file(), { numerator: 50, denominator: 1 }, 7)
  expect(told(fast, 'timeCode')).toBeNull()
  expect(told(fast, 'framesPerSecond')!.readInt32LE()).toBe(50)
  expect(withFacts(fast, PAL, 7).length).toBeGreaterThan(fast.length)
  expect(told(withFacts(fast, PAL, 7), 'framesPerSecond')!.readInt32LE()).toBe(50)
})
