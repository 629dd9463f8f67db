import { crc32 } from 'node:zlib'

// The chunks that PNG and WebP files are made of.

export interface Chunk {
  type: string
  data: Buffer
}

/** The chunks of a PNG file (W3C PNG, 5.3). */
export function* pngChunks(png: Buffer): Generator<Chunk> {
  for (let at = 8; at + 12 <= png.length;) {
    const length = png.readUInt32BE(at)
    yield { type: png.toString('latin1', at + 4, at + 8), data: png.subarray(at + 8, at + 8 + length) }
    at += 12 + length
  }
}

export function pngChunk(type: string, data: Buffer): Buffer {
  const chunk = Buffer.alloc(12 + data.length)
  chunk.writeUInt32BE(data.length, 0)
  chunk.write(type, 4, 'latin1')
  data.copy(chunk, 8)
  chunk.writeUInt32BE(crc32(chunk.subarray(4, 8 + data.length)), 8 + data.length)
  return chunk
}

/** The chunks of a WebP file (RFC 9649, 2.3): padded to even lengths. */
export function* webpChunks(webp: Buffer): Generator<Chunk> {
  for (let at = 12; at + 8 <= webp.length;) {
    const length = webp.readUInt32LE(at + 4)
    yield { type: webp.toString('latin1', at, at + 4), data: webp.subarray(at + 8, at + 8 + length) }
    at += 8 + length + (length & 1)
  }
}

export function webpChunk(type: string, data: Buffer): Buffer {
  const chunk = Buffer.alloc(8 + data.length + (data.length & 1))
  chunk.write(type, 0, 'latin1')
  chunk.writeUInt32LE(data.length, 4)
  data.copy(chunk, 8)
  return chunk
}
