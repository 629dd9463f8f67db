import { inflateSync } from 'node:zlib'
import { decompress } from 'wawoff2'
import { WaxError } from '../../core/errors'
import { LARGEST_FONT_BYTES } from '../../core/type/font'

/** The plain TrueType or OpenType form of a TTF, OTF, WOFF or WOFF2 file. Throws a WaxError that names the file. */
export async function toSfnt(bytes: Uint8Array, fileName: string): Promise<Uint8Array> {
  if (bytes.length > LARGEST_FONT_BYTES) {
    const size = Math.round(bytes.length / 1024 / 1024)
    throw new WaxError(
      'font-too-large',
      fileName,
      `The file has ${size} MB.`,
      'Fonts may have up to 30 MB: use a smaller cut or a subset.',
    )
  }
  const signature = Buffer.from(bytes.subarray(0, 4)).toString('latin1')
  try {
    if (signature === 'wOF2') return await decompress(bytes)
    if (signature === 'wOFF') return unpackWoff(bytes)
  } catch {
    throw new WaxError(
      'not-a-font',
      fileName,
      'The font file is damaged and cannot be unpacked.',
      'Get the file again, or use its TTF or OTF form.',
    )
  }
  return bytes
}

interface WoffTable {
  tag: number
  offset: number
  packedLength: number
  length: number
  checksum: number
}

/** WOFF File Format 1.0 (W3C 2012): a header of 44 bytes, table entries of 20, each table zlib-packed or plain. */
function unpackWoff(bytes: Uint8Array): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const count = view.getUint16(12)
  const tables: WoffTable[] = Array.from({ length: count }, (_, i) => {
    const at = 44 + i * 20
    return {
      tag: view.getUint32(at),
      offset: view.getUint32(at + 4),
      packedLength: view.getUint32(at + 8),
      length: view.getUint32(at + 12),
      checksum: view.getUint32(at + 16),
    }
  })
  const total = tables.reduce((sum, table) => sum + padded(table.length), 12 + 16 * count)
  if (total > LARGEST_FONT_BYTES * 2) throw new Error('unpacked size')
  const out = new Uint8Array(total)
  const head = new DataView(out.buffer)
  const power = Math.floor(Math.log2(count))
  head.setUint32(0, view.getUint32(4))
  head.setUint16(4, count)
  head.setUint16(6, 16 * 2 ** power)
  head.setUint16(8, power)
  head.setUint16(10, count * 16 - 16 * 2 ** power)
  let at = 12 + 16 * count
  tables.forEach((table, i) => {
    const packed = bytes.subarray(table.offset, table.offset + table.packedLength)
    const plain = table.packedLength < table.length ? inflateSync(packed, { maxOutputLength: table.length }) : packed
    if (plain.length !== table.length) throw new Error('table length')
    const entry = 12 + i * 16
    head.setUint32(entry, table.tag)
    head.setUint32(entry + 4, table.checksum)
    head.setUint32(entry + 8, at)
    head.setUint32(entry + 12, table.length)
    out.set(plain, at)
    at += padded(table.length)
  })
  return out
}

const padded = (length: number) => (length + 3) & ~3
