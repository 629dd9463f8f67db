import type { FramePicture } from '../../frame/engine'
import { contrastRatio, LUMINANCES } from '../measures/contrast'
import { inkRows } from '../measures/ink-rows'
import type { Ground } from './grounds'
import { behind } from './grounds'

/** How far from the letters what lies around them is looked at, in px at 1080 lines. */
const AROUND = [3, 5] as const
/** Alpha from which a pixel is the letter's. */
const INK = 230

/**
 * Contrast (WCAG 2.2) of letters against what is seen close around them, over what lies behind the card. `letters` is the type
 * alone, `card` the whole card at that frame: straight pixels of 8 bits. Null where no letter is seen.
 */
export function contrastOver(letters: FramePicture, card: FramePicture, ground: Ground): number | null {
  let [inside, insides, outside, outsides] = [0, 0, 0, 0]
  aroundLetters(letters, card, ground, (_x, _y, own, around) => {
    inside += own
    insides++
    for (const luminance of around) outside += luminance
    outsides += around.length
  })
  return insides > 0 && outsides > 0 ? contrastRatio(inside / insides, outside / outsides) : null
}

/** The same of every pixel at the edge of a letter. */
export function contrastAt(
  letters: FramePicture,
  card: FramePicture,
  ground: Ground,
  take: (x: number, y: number, ratio: number) => void,
): void {
  aroundLetters(letters, card, ground, (x, y, own, around) => {
    if (around.length === 0) return
    take(x, y, contrastRatio(own, around.reduce((sum, luminance) => sum + luminance, 0) / around.length))
  })
}

/** Takes the luminance of every pixel of letters, and those of what is seen close around them there. */
function aroundLetters(
  letters: FramePicture,
  { pixels }: FramePicture,
  ground: Ground,
  take: (x: number, y: number, own: number, around: readonly number[]) => void,
): void {
  const { width, height, pixels: ink } = letters
  const rows = inkRows(letters, 0)
  const under = behind(ground, { width, height })
  const luminance = (x: number, y: number) => {
    const at = (y * width + x) * 4
    const alpha = pixels[at + 3]!
    const over = (c: number) =>
      LUMINANCES[Math.round((pixels[at + c]! * alpha + under(x, y, c) * (255 - alpha)) / 255)]!
    return 0.2126 * over(0) + 0.7152 * over(1) + 0.0722 * over(2)
  }
  const reach = AROUND.map((px) => Math.max(1, Math.round((px * height) / 1080)))
  const around: number[] = []
  for (let y = rows.top, at = rows.top * width * 4; y < rows.bottom; y++) {
    for (let x = 0; x < width; x++, at += 4) {
      if (ink[at + 3]! < INK) continue
      around.length = 0
      for (const px of reach) {
        for (const [dx, dy] of SIDES) {
          const [toX, toY] = [x + dx * px, y + dy * px]
          if (toX < 0 || toY < 0 || toX >= width || toY >= height) continue
          if (ink[(toY * width + toX) * 4 + 3]! <= 8) around.push(luminance(toX, toY))
        }
      }
      take(x, y, luminance(x, y), around)
    }
  }
}

const SIDES = [
  [-1, 0],
  [1, 0],
  [0, -1],
  [0, 1],
] as const
