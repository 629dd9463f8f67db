import type { FramePicture } from '../../frame/engine'
import type { Px } from '../../units'
import { contrastRatio, LUMINANCES } from '../measures/contrast'
import { inkRows } from '../measures/ink-rows'
import type { Ground } from './grounds'
import { behind } from './grounds'
import type { LetterSpot } from './letters'
import { strongestOf } from './letters'

/** How far from the letters what lies around them is looked at, in px at 1080 lines. */
const AROUND = [3, 5] as const
/** Share of the strongest alpha from which a pixel is the letter's: faint type is read by its faint letters. */
const INK = 0.9
/** Alpha up to which a pixel lies beside the letters, of 255. */
const BESIDE = 8
/** Pixels that a letter has at least: what has fewer is a dot, and is read with the others. */
const LEAST_PIXELS = 12

/** How letters stand out from what is close around them: ratios of WCAG 2.2, 1–21. */
export interface LetterContrast {
  /** Of all letters together. */
  whole: number
  /** Of each letter; null for one that is not seen, or too small to be measured by itself. */
  letters: (number | null)[]
}

/**
 * Contrast of letters over each of what may lie behind the card. `letters` is the type alone, `card` the whole card at that frame:
 * straight pixels of 8 bits; `spots`: where each letter stands. Null where no letter is seen.
 */
export function contrastsOver(
  letters: FramePicture,
  card: FramePicture,
  grounds: readonly Ground[],
  spots: readonly LetterSpot[],
): (LetterContrast | null)[] {
  const luminances = grounds.map((ground) => luminanceOver(card, ground))
  const letterAt = nearest(spots, card.width)
  const sums = Array.from({ length: Math.max(1, spots.length) }, () => new Sums(grounds.length))
  aroundLetters(letters, (pixel, around) => {
    const own = sums[letterAt(pixel)]!
    own.insides++
    own.outsides += around.length
    luminances.forEach((luminance, i) => {
      own.inside[i]! += luminance(pixel)
      for (const other of around) own.outside[i]! += luminance(other)
    })
  })
  const all = sums.reduce((sum, one) => sum.with(one), new Sums(grounds.length))
  return grounds.map((_, i) => {
    const whole = all.ratio(i)
    if (whole === null) return null
    return { whole, letters: sums.map((own) => (own.isMeasured ? own.ratio(i) : null)) }
  })
}

/** The letter that stands out least, by its place in the wording; null for all of them where none was measured by itself. */
export function leastOf({ whole, letters }: LetterContrast): { ratio: number; letter: number | null } {
  let [ratio, letter]: [number, number | null] = [Infinity, null]
  for (const [i, one] of letters.entries()) if (one !== null && one < ratio) [ratio, letter] = [one, i]
  return letter === null ? { ratio: whole, letter } : { ratio, letter }
}

/** WCAG 2.2, 1.4.3: for large type, which all of a title is. */
export const LARGE_TYPE = 3

/** Whether there is a letter that does not stand out as large type must. */
export const isUnread = (contrast: LetterContrast | null): boolean =>
  contrast !== null && leastOf(contrast).ratio < LARGE_TYPE

/** Letter by letter the more of two: what is read at one of two times. */
export const betterOf = (one: LetterContrast, other: LetterContrast): LetterContrast => ({
  whole: Math.max(one.whole, other.whole),
  letters: one.letters.map((ratio, i) => more(ratio, other.letters[i])),
})

/** Letter by letter the less of two. */
export const worseOf = (one: LetterContrast, other: LetterContrast): LetterContrast => ({
  whole: Math.min(one.whole, other.whole),
  letters: one.letters.map((ratio, i) => less(ratio, other.letters[i])),
})

const more = (a: number | null, b: number | null | undefined) => (a === null ? a : Math.max(a, b ?? a))
const less = (a: number | null, b: number | null | undefined) => (a === null ? a : Math.min(a, b ?? a))

/** Sums of luminance inside and close outside of letters, over each ground. */
class Sums {
  insides = 0
  outsides = 0
  readonly inside: Float64Array
  readonly outside: Float64Array

  constructor(grounds: number) {
    this.inside = new Float64Array(grounds)
    this.outside = new Float64Array(grounds)
  }

  with(other: Sums): this {
    this.insides += other.insides
    this.outsides += other.outsides
    other.inside.forEach((value, i) => (this.inside[i]! += value))
    other.outside.forEach((value, i) => (this.outside[i]! += value))
    return this
  }

  get isMeasured(): boolean {
    return Math.min(this.insides, this.outsides) >= LEAST_PIXELS
  }

  ratio(ground: number): number | null {
    if (this.insides === 0 || this.outsides === 0) return null
    return contrastRatio(this.inside[ground]! / this.insides, this.outside[ground]! / this.outsides)
  }
}

/** Side of the cells that belong to one letter each, in px. */
const CELL: Px = 8

/** Tells the letter that a pixel belongs to, as letters move a little in their words: the one whose box is nearest to its cell. */
function nearest(spots: readonly LetterSpot[], width: number): (pixel: number) => number {
  if (spots.length < 2) return () => 0
  const columns = Math.ceil(width / CELL)
  const known = new Map<number, number>()
  return (pixel) => {
    const column = Math.floor((pixel % width) / CELL)
    const row = Math.floor(Math.floor(pixel / width) / CELL)
    const cell = row * columns + column
    let letter = known.get(cell)
    if (letter === undefined) {
      letter = nearestTo(spots, (column + 0.5) * CELL, (row + 0.5) * CELL)
      known.set(cell, letter)
    }
    return letter
  }
}

function nearestTo(spots: readonly LetterSpot[], x: Px, y: Px): number {
  let [letter, least] = [0, Infinity]
  for (const [i, { bounds }] of spots.entries()) {
    const { left, top, right, bottom } = bounds
    const away = length(Math.max(left - x, 0, x - right), Math.max(top - y, 0, y - bottom))
    // Boxes of turned letters overlap: then the nearer middle decides, by less than any pixel away does.
    const aside = length((left + right) / 2 - x, (top + bottom) / 2 - y)
    const distance = away + aside / 1e4
    if (distance < least) [letter, least] = [i, distance]
  }
  return letter
}

const length = (x: Px, y: Px): Px => Math.sqrt(x * x + y * y)

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
  const ofLetter = Math.max(BESIDE + 1, INK * strongestOf(letters))
  const reach = AROUND.map((px) => Math.max(1, Math.round((px * height) / 1080)))
  const around: number[] = []
  for (let y = rows.top, pixel = rows.top * width; y < rows.bottom; y++) {
    for (let x = 0; x < width; x++, pixel++) {
      if (ink[pixel * 4 + 3]! < ofLetter) continue
      around.length = 0
      for (const px of reach) {
        for (const [dx, dy] of SIDES) {
          const toX = x + dx * px
          const toY = y + dy * px
          if (toX < 0 || toY < 0 || toX >= width || toY >= height) continue
          const other = toY * width + toX
          if (ink[other * 4 + 3]! <= BESIDE) around.push(other)
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
