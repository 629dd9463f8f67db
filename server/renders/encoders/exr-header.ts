import { nominalRate, timecode } from '../../../core/time/timecode'
import type { Rate } from '../../../core/values/rate'

// What the header of an OpenEXR file says beyond what ffmpeg writes there (OpenEXR File Layout, "Header", "Standard Attributes"): its
// colours, its rate, and which frame it is.

/** An attribute as it lies in a header. */
function attribute(name: string, type: string, data: Buffer): Buffer {
  const size = Buffer.alloc(4)
  size.writeInt32LE(data.length)
  return Buffer.concat([Buffer.from(`${name}\0${type}\0`, 'latin1'), size, data])
}

/** CIE x and y of red, green, blue and white of ITU-R BT.709-6 §1, table 1. */
const BT709 = [0.64, 0.33, 0.3, 0.6, 0.15, 0.06, 0.3127, 0.329]

function chromaticities(): Buffer {
  const data = Buffer.alloc(BT709.length * 4)
  BT709.forEach((value, i) => data.writeFloatLE(value, i * 4))
  return attribute('chromaticities', 'chromaticities', data)
}

function framesPerSecond({ numerator, denominator }: Rate): Buffer {
  const data = Buffer.alloc(8)
  data.writeInt32LE(numerator)
  data.writeUInt32LE(denominator, 4)
  return attribute('framesPerSecond', 'rational', data)
}

/** Frames a second above which a timecode has no room for the number of a frame (SMPTE ST 12-1: two bits for its tens). */
const MOST_COUNTED = 30

/** Of a frame counted from the start of the run, in the bits of SMPTE ST 12-1 for 60 fields. */
function timeCode(frame: number, rate: Rate): Buffer[] {
  if (nominalRate(rate) > MOST_COUNTED) return []
  const parts = timecode(frame, rate).split(/[:;]/).map(Number) as [number, number, number, number]
  const [hours, minutes, seconds, frames] = parts.map(
    (value) => (Math.floor(value / 10) << 4) | (value % 10),
  ) as typeof parts
  const data = Buffer.alloc(8)
  data.writeUInt32LE(((hours << 24) | (minutes << 16) | (seconds << 8) | frames) >>> 0)
  return [attribute('timeCode', 'timecode', data)]
}

/** Magic number and version. */
const BEFORE_HEADER = 8

/** Where the attributes of a header end, and the names of those it has. */
function attributesOf(file: Buffer): { end: number; names: Set<string>; lines: number; linesPerChunk: number } {
  const names = new Set<string>()
  let at = BEFORE_HEADER
  let [lines, linesPerChunk] = [0, 1]
  while (file[at] !== 0) {
    const nameEnd = file.indexOf(0, at)
    const typeEnd = file.indexOf(0, nameEnd + 1)
    const name = file.toString('latin1', at, nameEnd)
    const data = typeEnd + 5
    if (name === 'dataWindow') lines = file.readInt32LE(data + 12) - file.readInt32LE(data + 4) + 1
    if (name === 'compression') linesPerChunk = LINES_PER_CHUNK[file[data]!] ?? 1
    names.add(name)
    at = data + file.readInt32LE(typeEnd + 1)
  }
  return { end: at, names, lines, linesPerChunk }
}

/** By the number of a compression: none, run lengths, ZIP of one line, ZIP of sixteen. */
const LINES_PER_CHUNK: readonly number[] = [1, 1, 1, 16]

/** The same file of scan lines, with its colours, its rate and its frame told. What it says already stays as it is. */
export function withFacts(file: Buffer, rate: Rate, frame: number): Buffer {
  const { end, names, lines, linesPerChunk } = attributesOf(file)
  const added = Buffer.concat([
    ...(names.has('chromaticities') ? [] : [chromaticities()]),
    ...(names.has('framesPerSecond') ? [] : [framesPerSecond(rate)]),
    ...(names.has('timeCode') ? [] : timeCode(frame, rate)),
  ])
  // The table of where each run of lines begins comes right after the header; all of them lie so much later now.
  const table = Buffer.from(file.subarray(end + 1, end + 1 + Math.ceil(lines / linesPerChunk) * 8))
  for (let at = 0; at < table.length; at += 8)
    table.writeBigUInt64LE(table.readBigUInt64LE(at) + BigInt(added.length), at)
  return Buffer.concat([file.subarray(0, end), added, Buffer.of(0), table, file.subarray(end + 1 + table.length)])
}
