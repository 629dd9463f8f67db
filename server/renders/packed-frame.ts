import { compress, uncompress, uncompressSync } from 'snappy'

// A frame as it is put down: most of a title's frame is clear, so pieces of nothing but zeros are left out, and the others are packed
// by Snappy (fast: a tenth of what it takes to make them). Numbers of 32 bits, little-endian, stand before them: how many bytes the
// frame has, how many stretches of pieces follow each other, and where each begins and ends.

/** How frames are packed. To be changed with it: machines that pack in another way cannot work together. */
export const PACKING = 'pieces of 4096, snappy'

const PIECE = 4096
const ZEROS = Buffer.alloc(PIECE)

/** Where a stretch of a frame begins and ends, in bytes. */
type Stretch = readonly [from: number, to: number]

/** Without loss. The pixels may be forgotten as soon as it is called. */
export async function packFrame(pixels: Uint8Array): Promise<Buffer> {
  const all = bufferOf(pixels)
  const stretches = inked(all)
  const head = Buffer.from(Uint32Array.of(all.length, stretches.length, ...stretches.flat()).buffer)
  const packed = await compress(Buffer.concat(stretches.map(([from, to]) => all.subarray(from, to))))
  return Buffer.concat([head, packed])
}

export async function unpackFrame(packed: Uint8Array): Promise<Uint8Array<ArrayBuffer>> {
  const { length, stretches, body } = opened(packed)
  return laidOut((await uncompress(body, { asBuffer: true })) as Buffer, stretches, new Uint8Array(length))
}

/** Unpacks frames one after the other into the same bytes. */
export class FrameUnpacker {
  private pixels = new Uint8Array(0)
  private last: readonly Stretch[] = []

  /** What it gives is used again for the next one. */
  unpack(packed: Uint8Array): Uint8Array<ArrayBuffer> {
    const { length, stretches, body } = opened(packed)
    if (this.pixels.length !== length) this.pixels = new Uint8Array(length)
    else for (const [from, to] of this.last) this.pixels.fill(0, from, to)
    this.last = stretches
    return laidOut(uncompressSync(body, { asBuffer: true }) as Buffer, stretches, this.pixels)
  }
}

/** Stretches of pieces that are not all zero. */
function inked(all: Buffer): Stretch[] {
  const found: Stretch[] = []
  let from = -1
  for (let at = 0; at < all.length; at += PIECE) {
    const to = Math.min(all.length, at + PIECE)
    const isClear = ZEROS.compare(all, at, to, 0, to - at) === 0
    if (!isClear && from < 0) from = at
    if (isClear && from >= 0) {
      found.push([from, at])
      from = -1
    }
  }
  if (from >= 0) found.push([from, all.length])
  return found
}

function opened(packed: Uint8Array): { length: number; stretches: Stretch[]; body: Buffer } {
  const bytes = bufferOf(packed)
  const { length, stretches, bodyAt } = frameHead(bytes, bytes.length)
  return { length, stretches, body: bytes.subarray(bodyAt) }
}

/** Bytes of the largest frame: 8192 px a side, four numbers of 32 bits each. */
export const LARGEST_FRAME = 8192 * 8192 * 16

/** What is wrong with frames that did not come from here, or did not arrive whole. */
export class DamagedFrames extends Error {
  override name = 'DamagedFrames'
}

/** Bytes before the stretches. */
const COUNTS = 8
/** Bytes in which Snappy says how long a text is, at the most. */
const SNAPPY_LENGTH = 5

/** How many of the first bytes of a packed frame tell all that its head says; `start` has its first eight. */
export function headBytes(start: Buffer, whole: number): number {
  if (whole < COUNTS + 1 || start.length < COUNTS) throw new DamagedFrames('A frame breaks off in its head.')
  return Math.min(whole, COUNTS + start.readUInt32LE(4) * 8 + SNAPPY_LENGTH)
}

/**
 * What the head of a packed frame says; `whole`: bytes of the packed frame, of which `bytes` are at least the head. Everything is held
 * against what is there before anybody takes memory for it. Throws a DamagedFrames.
 */
export function frameHead(bytes: Buffer, whole: number): { length: number; stretches: Stretch[]; bodyAt: number } {
  if (whole < COUNTS + 1) throw new DamagedFrames('A frame breaks off in its head.')
  const [length, count] = [bytes.readUInt32LE(0), bytes.readUInt32LE(4)]
  if (length > LARGEST_FRAME) throw new DamagedFrames('A frame is larger than any can be.')
  if (COUNTS + count * 8 >= whole) throw new DamagedFrames('A frame breaks off in its head.')
  const at = COUNTS + count * 8
  const stretches: Stretch[] = []
  let inked = 0
  let last = 0
  for (let i = 0; i < count; i++) {
    const [from, to] = [bytes.readUInt32LE(COUNTS + i * 8), bytes.readUInt32LE(COUNTS + 4 + i * 8)]
    if (from < last || to <= from || to > length) throw new DamagedFrames('A frame has parts outside of itself.')
    stretches.push([from, to])
    inked += to - from
    last = to
  }
  if (snappyLength(bytes, at) !== inked) throw new DamagedFrames('A frame is not as long as it says.')
  return { length, stretches, bodyAt: at }
}

/** How long a text is that Snappy has packed: a number of seven bits a byte, the lowest first (its format description, §1). */
function snappyLength(bytes: Buffer, at: number): number {
  let length = 0
  for (let i = 0; i < SNAPPY_LENGTH; i++) {
    const byte = bytes[at + i]
    if (byte === undefined) break
    length += (byte & 127) * 128 ** i
    if (byte < 128) return length
  }
  throw new DamagedFrames('A frame breaks off in its head.')
}

function laidOut(
  body: Buffer,
  stretches: readonly Stretch[],
  pixels: Uint8Array<ArrayBuffer>,
): Uint8Array<ArrayBuffer> {
  let at = 0
  for (const [from, to] of stretches) {
    pixels.set(body.subarray(at, at + to - from), from)
    at += to - from
  }
  return pixels
}

const bufferOf = (bytes: Uint8Array) => Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)
