/** Encodings that tables come in, by their names in the WHATWG Encoding Standard. */
export const ENCODINGS = [
  { name: 'utf-8', label: 'UTF-8' },
  { name: 'utf-16le', label: 'UTF-16, little-endian' },
  { name: 'utf-16be', label: 'UTF-16, big-endian' },
  { name: 'windows-1252', label: 'Western (Windows-1252)' },
  { name: 'windows-1250', label: 'Central European (Windows-1250)' },
  { name: 'windows-1251', label: 'Cyrillic (Windows-1251)' },
  { name: 'windows-1253', label: 'Greek (Windows-1253)' },
  { name: 'macintosh', label: 'Western (Mac OS Roman)' },
] as const

export type Encoding = (typeof ENCODINGS)[number]['name']

/** The standard's decoder, as far as it is used here; both browsers and Node have it. */
interface Decoder {
  decode(bytes: Uint8Array): string
}
declare const TextDecoder: new (label: string, options?: { fatal?: boolean }) => Decoder

/** Text of a file in an encoding. What it cannot hold becomes U+FFFD; a byte order mark is left out. */
export const decoded = (bytes: Uint8Array, encoding: Encoding): string => new TextDecoder(encoding).decode(bytes)

/**
 * The encoding that a text file most likely has: by its byte order mark, by the zero bytes that UTF-16 has in every other
 * place, as UTF-8 where it is valid, else as what older spreadsheets write.
 */
export function encodingOf(bytes: Uint8Array): Encoding {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return 'utf-8'
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le'
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be'
  const head = bytes.subarray(0, 4096)
  const zeros = [0, 0]
  head.forEach((byte, i) => {
    if (byte === 0) zeros[i % 2]!++
  })
  const many = head.length / 8
  if (zeros[1]! > many && zeros[0]! < many) return 'utf-16le'
  if (zeros[0]! > many && zeros[1]! < many) return 'utf-16be'
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    return 'utf-8'
  } catch {
    return 'windows-1252'
  }
}
