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
 * Contrast (WCAG 2.2) of letters against what is seen close around them, over each of what may lie behind the card. `letters` is the
 * type alone, `card` the whole card at that frame: straight pixels of 8 bits. Null where no letter is seen.
 */
export function contrastsOver(
  letters: FramePicture,
  card: FramePicture,
  grounds: readonly Ground[],
): (number | null)[] {
  const luminances = grounds.map((ground) => luminanceOver(card, ground))
  const inside = new Float64Array(grounds.length)
  const outside = new Float64Array(grounds.length)
  let [insides, outsides] = [0, 0]
  aroundLetters(letters, (pixel, around) => {
    insides++
    outsides += around.length
    luminances.forEach((luminance, i) => {
      inside[i]! += luminance(pixel)
      for (const other of around) outside[i]! += luminance(other)
    })
  })
  const isSeen = insides > 0 && outsides > 0
  return grounds.map((_, i) => (isSeen ? contrastRatio(inside[i]! / insides, outside[i]! / outsides) : null))
}

/** The same of every pixel at the edge of a letter, over one ground. */
export function contrastAt(
  letters: FramePicture,
  card: FramePicture,
  ground: Ground,
  take: (x: number, y: number, ratio: number) => void,
): void {
  const { width } = letters
  const luminance = luminanceOver(card, ground)
  aroundLetters(letters, (pixel, around) => {
    if (around.length === 0) return
    const outside = around.reduce((sum, other) => sum + luminance(other), 0) / around.length
    take(pixel % width, Math.floor(pixel / width), contrastRatio(luminance(pixel), outside))
  })
}

/** Relative luminance of a pixel of the card, by its place in the order of rows, over what lies behind it. */
function luminanceOver({ width, height, pixels }: FramePicture, ground: Ground): (pixel: number) => number {
  const under = behind(ground, { width, height })
  return (pixel) => {
    const at = pixel * 4
    const alpha = pixels[at + 3]!
    let [red, green, blue] = [pixels[at]!, pixels[at + 1]!, pixels[at + 2]!]
    if (alpha < 255) {
      const [x, y] = [pixel % width, Math.floor(pixel / width)]
      red = Math.round((red * alpha + under(x, y, 0) * (255 - alpha)) / 255)
      green = Math.round((green * alpha + under(x, y, 1) * (255 - alpha)) / 255)
      blue = Math.round((blue * alpha + under(x, y, 2) * (255 - alpha)) / 255)
    }
    return 0.2126 * LUMINANCES[red]! + 0.7152 * LUMINANCES[green]! + 0.0722 * LUMINANCES[blue]!
  }
}

/** Takes every pixel of letters with those that are seen close around them there, all by their place in the order of rows. */
function aroundLetters(letters: FramePicture, take: (pixel: number, around: readonly number[]) => void): void {
  const { width, height, pixels: ink } = letters
  const rows = inkRows(letters, 0)
  const reach = AROUND.map((px) => Math.max(1, Math.round((px * height) / 1080)))
  const around: number[] = []
  for (let y = rows.top, pixel = rows.top * width; y < rows.bottom; y++) {
    for (let x = 0; x < width; x++, pixel++) {
      if (ink[pixel * 4 + 3]! < INK) continue
      around.length = 0
      for (const px of reach) {
        for (const [dx, dy] of SIDES) {
          const toX = x + dx * px
          const toY = y + dy * px
          if (toX < 0 || toY < 0 || toX >= width || toY >= height) continue
          const other = toY * width + toX
          if (ink[other * 4 + 3]! <= 8) around.push(other)
        }
      }
      take(pixel, around)
    }
  }
}

const SIDES = [
  [-1, 0],
  [1, 0],
  [0, -1],
  [0, 1],
] as const
