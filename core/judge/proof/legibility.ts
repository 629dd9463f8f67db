import type { FramePicture } from '../../frame/engine'
import { contrastRatio, LUMINANCES } from '../measures/contrast'

/** Backdrops that every card is held against, as levels of 8 bits. */
export const PLAIN_BACKDROPS = [
  { id: 'black', label: 'black', level: 0 },
  { id: 'grey', label: 'mid grey', level: 128 },
  { id: 'white', label: 'white', level: 255 },
] as const

/** How far from the letters what lies around them is looked at, in px at 1080 lines. */
const AROUND = [3, 5] as const
/** Alpha from which a pixel is the letter's. */
const INK = 230

/**
 * Contrast (WCAG 2.2) of letters against what is seen close around them, over a backdrop. `letters` is the type alone, `card` the
 * whole card at that frame: straight pixels of 8 bits. Null where no letter is seen.
 */
export function contrastOver(letters: FramePicture, card: FramePicture, level: number): number | null {
  const { width, height, pixels: ink } = letters
  const { pixels } = card
  const luminance = (at: number) => {
    const alpha = pixels[at + 3]!
    const over = (channel: number) => LUMINANCES[Math.round((channel * alpha + level * (255 - alpha)) / 255)]!
    return 0.2126 * over(pixels[at]!) + 0.7152 * over(pixels[at + 1]!) + 0.0722 * over(pixels[at + 2]!)
  }
  const reach = AROUND.map((px) => Math.max(1, Math.round((px * height) / 1080)))
  let [inside, insides, outside, outsides] = [0, 0, 0, 0]
  for (let y = 0, at = 0; y < height; y++) {
    for (let x = 0; x < width; x++, at += 4) {
      if (ink[at + 3]! < INK) continue
      inside += luminance(at)
      insides++
      for (const px of reach) {
        for (const [dx, dy] of SIDES) {
          const [toX, toY] = [x + dx * px, y + dy * px]
          if (toX < 0 || toY < 0 || toX >= width || toY >= height) continue
          const there = (toY * width + toX) * 4
          if (ink[there + 3]! > 8) continue
          outside += luminance(there)
          outsides++
        }
      }
    }
  }
  return insides > 0 && outsides > 0 ? contrastRatio(inside / insides, outside / outsides) : null
}

const SIDES = [
  [-1, 0],
  [1, 0],
  [0, -1],
  [0, 1],
] as const
