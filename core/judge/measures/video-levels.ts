// What video takes of a colour.

/** The area of a picture that may lie beyond the limits of its levels, in % (EBU R 103). */
export const R103_AREA = 1

/** ITU-R BT.601 luma, and the amplitude of the colour carrier of composite video (BT.470): U and V as sine and cosine. */
function composite(red: number, green: number, blue: number): { luma: number; carrier: number } {
  const luma = 0.299 * red + 0.587 * green + 0.114 * blue
  const u = 0.492 * (blue - luma)
  const v = 0.877 * (red - luma)
  return { luma, carrier: Math.sqrt(u * u + v * v) }
}

/**
 * The highest and lowest level that a colour has as composite video, in % of the range from black to white: yellow and cyan of
 * full strength reach 133, blue and red −33.
 */
export function compositeLevels(red: number, green: number, blue: number): { low: number; high: number } {
  const { luma, carrier } = composite(red, green, blue)
  return { low: (luma - carrier) * 100, high: (luma + carrier) * 100 }
}

/** Limits of older transmission chains: 75 % bars are within, 100 % bars are not. Common practice, no published source. */
export const COMPOSITE = { from: -25, to: 120 }
