/** A channel of a pixel: whole numbers of 8 or 16 bits, dithered, or numbers of IEEE 754: binary16 (half), binary32 (float). */
export type Bits = 8 | 16 | 'half' | 'float'

const BYTES: Record<Bits, 1 | 2 | 4> = { 8: 1, 16: 2, half: 2, float: 4 }

/** Bytes of a channel; all are little-endian. */
export const bytesOf = (bits: Bits): 1 | 2 | 4 => BYTES[bits]

/** How the pixels of a finished frame are written down: RGBA, rows from the top. */
export interface PixelForm {
  bits: Bits
  /** Premultiplied: colour times alpha, as over black; a premultiplied colour is never more than its alpha. */
  alpha: 'straight' | 'premultiplied'
  /** Display: encoded by sRGB (IEC 61966-2-1). Linear: in proportion to light. Straight colours are those of the form. */
  light: 'display' | 'linear'
}

/** Straight, encoded for the display, 8 bits: what the bench shows. */
export const PLAIN_FORM: PixelForm = { bits: 8, alpha: 'straight', light: 'display' }
