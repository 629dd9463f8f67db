// On what the colours of pictures with alpha were laid, as their half-transparent pixels tell.

/** Alpha of pixels that tell something, 0–255. */
const [LEAST, MOST] = [16, 240]
/** Pixels below which nothing can be told. */
const FEW = 40
/** A value may be so much off by rounding. */
const ROUNDED = 2
/** What is laid on black or white keeps to its bounds but for compression. */
const NEARLY_ALL = 0.995
/** Colours near the bound in the mean: dark straight colours keep to it too. */
const NEAR = 0.4

/**
 * Straight RGBA of 8 bits as the files have it. Colours that were laid on black are never lighter than alpha, those that were laid on
 * white never darker than 255 − alpha, and both come near it; straight ones know nothing of it. Common practice, no published source.
 */
export function guessAlpha(pictures: readonly Uint8Array[]): 'straight' | 'black' | 'white' {
  let count = 0
  const [within, near] = [
    { black: 0, white: 0 },
    { black: 0, white: 0 },
  ]
  for (const pixels of pictures) {
    for (let i = 0; i < pixels.length; i += 4) {
      const a = pixels[i + 3]!
      if (a < LEAST || a > MOST) continue
      count++
      const [r, g, b] = [pixels[i]!, pixels[i + 1]!, pixels[i + 2]!]
      const [light, dark] = [Math.max(r, g, b), Math.min(r, g, b)]
      if (light <= a + ROUNDED) within.black++
      if (dark >= 255 - a - ROUNDED) within.white++
      near.black += Math.min(1, light / a)
      near.white += Math.min(1, (255 - dark) / a)
    }
  }
  if (count < FEW) return 'straight'
  const fits = (ground: 'black' | 'white') => within[ground] / count >= NEARLY_ALL && near[ground] / count >= NEAR
  if (fits('black') && !fits('white')) return 'black'
  return fits('white') && !fits('black') ? 'white' : 'straight'
}
