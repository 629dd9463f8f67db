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
  const count = bytes.readUInt32LE(4)
  const stretches = Array.from({ length: count }, (_, i): Stretch => [
    bytes.readUInt32LE(8 + i * 8),
    bytes.readUInt32LE(12 + i * 8),
  ])
  return { length: bytes.readUInt32LE(0), stretches, body: bytes.subarray(8 + count * 8) }
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
