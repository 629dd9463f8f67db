import { readFile } from 'node:fs/promises'
import type { Rate } from '../../../core/values/rate'
import { pngChunks } from './chunks'

// For how long each picture of a file is shown, as the file says, and how often all of them are played. Readers of video guess a rate from
// that, and not at all from one picture.

export interface ShownTimes {
  /** In seconds. */
  each: number[]
  /** 0 for without end. */
  plays: number
}

/** Of an animated PNG (W3C PNG, third edition, 11.3.6.1, 11.3.6.2). */
export async function pngTimes(path: string): Promise<ShownTimes> {
  const times: ShownTimes = { each: [], plays: 1 }
  for (const { type, data } of pngChunks(await readFile(path))) {
    if (type === 'acTL') times.plays = data.readUInt32BE(4)
    // A denominator of 0 stands for 100.
    if (type === 'fcTL') times.each.push(data.readUInt16BE(20) / (data.readUInt16BE(22) || 100))
  }
  return times
}

/** Of a GIF (GIF89a, sections 18 to 26; the application extension of loops is common practice). */
export async function gifTimes(path: string): Promise<ShownTimes> {
  const bytes = await readFile(path)
  const times: ShownTimes = { each: [], plays: 1 }
  const table = (flags: number) => (flags & 0x80 ? 3 * 2 ** ((flags & 7) + 1) : 0)
  /** Where the blocks that begin at a place end. */
  const blocksEnd = (from: number) => {
    let at = from
    while (at < bytes.length && bytes[at] !== 0) at += bytes[at]! + 1
    return at + 1
  }
  let delay = 0
  for (let at = 13 + table(bytes[10] ?? 0); at < bytes.length;) {
    const sign = bytes[at]
    if (sign === 0x21) {
      if (bytes[at + 1] === 0xf9) delay = bytes.readUInt16LE(at + 4) / 100
      if (bytes.toString('latin1', at + 3, at + 14) === 'NETSCAPE2.0') times.plays = bytes.readUInt16LE(at + 16)
      at = blocksEnd(at + 2)
    } else if (sign === 0x2c) {
      times.each.push(delay)
      at = blocksEnd(at + 10 + table(bytes[at + 9]!) + 1)
    } else break
  }
  return times
}

/** The rate at which pictures are shown on the whole; null where they take no time. */
export function rateOfTimes({ each }: ShownTimes): Rate | null {
  const seconds = each.reduce((sum, time) => sum + time, 0)
  return seconds > 0 ? { numerator: Math.round(each.length * 1e6), denominator: Math.round(seconds * 1e6) } : null
}
