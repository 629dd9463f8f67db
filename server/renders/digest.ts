import { createHash } from 'node:crypto'

/** Bytes that are looked at together. */
const PIECE = 4096

/**
 * A hash of a frame, in hex: the first half of BLAKE2b-512 (RFC 7693) of its pieces of 4096 bytes, without those that are the same
 * as the one before, and then of the numbers of these, 32 bits each, little-endian. A title leaves most of a frame empty: what is
 * hashed is what is on it.
 */
export function digest(bytes: Uint8Array): string {
  const all = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const hash = createHash('blake2b512')
  const again: number[] = []
  let from = 0
  for (let at = PIECE; at + PIECE <= all.length; at += PIECE) {
    if (all.compare(all, at - PIECE, at, at, at + PIECE) !== 0) continue
    if (from < at) hash.update(all.subarray(from, at))
    again.push(at / PIECE)
    from = at + PIECE
  }
  hash.update(all.subarray(from))
  return hash
    .update(Buffer.from(Uint32Array.from(again).buffer))
    .digest('hex')
    .slice(0, 64)
}
