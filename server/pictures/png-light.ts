/** How the values of a PNG stand for light, where its chunks say something else than sRGB. */
export interface PngLight {
  /** Exponent that turns the file's values (0–1) into linear light; 1 for files that hold linear light. */
  gamma: number
}

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]
/** gAMA holds 100 000 / decoding exponent; this is that of sRGB's own approximation (PNG 3rd edition §11.3.2.2). */
const SRGB_GAMMA = 45455

/**
 * Reads the colour chunks of a PNG: cICP (transfer 8: linear; 13, 1: as a display) before iCCP and sRGB, those before
 * gAMA (PNG 3rd edition §4.3, precedence). Null for no PNG, and for files whose values are display-encoded.
 */
export function pngLight(bytes: Uint8Array): PngLight | null {
  if (SIGNATURE.some((byte, i) => bytes[i] !== byte)) return null
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  let gamma: number | null = null
  let managed = false
  for (let at = 8; at + 12 <= bytes.length;) {
    const length = view.getUint32(at)
    const type = String.fromCharCode(...bytes.subarray(at + 4, at + 8))
    const data = at + 8
    if (type === 'IDAT' || data + length > bytes.length) break
    // Rec. ITU-T H.273, TransferCharacteristics: 8 is linear.
    if (type === 'cICP' && length === 4) return bytes[data + 1] === 8 ? { gamma: 1 } : null
    if (type === 'sRGB' || type === 'iCCP') managed = true
    if (type === 'gAMA' && length === 4) gamma = view.getUint32(data)
    at = data + length + 4
  }
  if (managed || gamma === null || gamma === 0) return null
  // Within half a percent of sRGB's, nothing would change that can be seen.
  if (Math.abs(gamma - SRGB_GAMMA) < 250) return null
  return { gamma: 100_000 / gamma }
}
