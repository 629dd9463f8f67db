import { extentOf } from '../extent'
import { mixColours } from '../values/colour'
import type { EvaluatedPaint } from '../values/evaluated'
import type { Placement } from '../outline/outline'
import { within } from '../outline/outline'
import type { Px, Rgba } from '../units'
import type { PathPlace } from './along-path'
import type { Font } from './font'
import { setText } from './layout'
import type { SetGlyph, SetLetter, TypeSetting } from './setting'
import type { RangeValues } from './ranges'
import { weightsOf } from './sweep'

/** A colour that paints take on, by a share 0–1. */
export interface Tint {
  colour: Rgba
  share: number
  /** Fills alone, or every coat. */
  on: RangeValues['tinted']
}

/** Letters that go together: where they stand, and how they look there. */
export interface MovedLetters {
  /** Their glyphs, each from the first one's origin, in em. */
  glyphs: Omit<SetGlyph, 'letter'>[]
  /** The letters that they belong to, and how far tracking moves each from where it stands at rest, in em. */
  letters: { letter: number; x: number }[]
  /** Where the first one's origin stands, in em. */
  origin: { x: number; y: number }
  /** What the ranges do to them: from rest to where they are, in em. */
  moved: Placement
  /** 0–1. */
  opacity: number
  /** Standard deviation, in px of the piece. */
  blur: Px
  tints: Tint[]
}

export interface LetterSetting extends TypeSetting {
  /** 1 em. */
  size: Px
  ranges: readonly RangeValues[]
  /** Whether a range tracks. */
  spaced: boolean
  /** The letters that are wanted; all where left out. */
  only?: readonly number[]
  /** What is parted beside what the ranges go through: other bands of the same letters may go by others. */
  units?: readonly RangeValues['units'][]
  /** A colour that what was typed at a place has of its own; null for none. */
  colourAt?: (unit: number) => Rgba | null
}

const REST: Placement = { scale: 1, rotation: 0, x: 0, y: 0 }
const FINENESS = { letters: 0, words: 1, lines: 2, whole: 3 } as const

/** The letters of a text with what its ranges do to them: as one where they are words or lines of the same range. */
export function moveLetters(font: Font, setting: LetterSetting): MovedLetters[] {
  const { ranges, size, spaced, only, units = [], colourAt } = setting
  const rest = setText(font, setting, undefined, spaced)
  const weights = ranges.map((range) => weightsOf(rest.letters, range))
  const extra = (letter: number) => ranges.reduce((sum, { tracking }, k) => sum + weights[k]![letter]! * tracking, 0)
  const { glyphs: all, letters } = spaced ? setText(font, setting, extra, true) : rest
  const glyphs = only ? all.filter(({ letter }) => only.includes(letter)) : all
  const cap = font.capHeight / font.unitsPerEm
  const finest = Math.min(
    FINENESS.whole,
    ...[...units, ...ranges.map((range) => range.units)].map((one) => FINENESS[one]),
  )
  const restX = firstX(rest.glyphs)
  const colourOf = (letter: number) => colourAt?.(letters[letter]!.from) ?? null
  return together(glyphs, letters, finest, colourOf).map((set) => {
    const first = set[0]!.letter
    const [{ x, y }] = set as [SetGlyph]
    const state: Omit<MovedLetters, 'glyphs' | 'letters' | 'origin'> = { moved: REST, opacity: 1, blur: 0, tints: [] }
    const own = colourOf(first)
    if (own) state.tints.push({ colour: own, share: 1, on: 'fills' })
    ranges.forEach((range, k) => {
      const weight = weights[k]![first]!
      if (weight === 0) return
      state.moved = within(movedBy(range, weight, size, pivotOf(range, letters, first, cap)), state.moved)
      state.opacity *= between(1 + weight * (range.opacity / 100 - 1), 0, 1)
      state.blur = Math.sqrt(state.blur ** 2 + (weight * range.blur) ** 2)
      const share = between((weight * range.tint) / 100, 0, 1)
      if (share > 0) state.tints.push({ colour: range.colour, share, on: range.tinted })
    })
    const around = set.map((glyph) => aroundOrigin(glyph, x, y))
    return { ...state, glyphs: around, letters: lettersOf(set, restX), origin: { x, y } }
  })
}

/** Where the first glyph of each letter stands. */
function firstX(glyphs: readonly SetGlyph[]): ReadonlyMap<number, number> {
  const found = new Map<number, number>()
  for (const { letter, x } of glyphs) if (!found.has(letter)) found.set(letter, x)
  return found
}

const lettersOf = (set: readonly SetGlyph[], restX: ReadonlyMap<number, number>) =>
  [...firstX(set)].map(([letter, x]) => ({ letter, x: x - restX.get(letter)! }))

/** A glyph as it stands from another one's origin. */
function aroundOrigin({ id, x, y, face, size, way }: SetGlyph, ox: number, oy: number): Omit<SetGlyph, 'letter'> {
  return {
    ...{ id, x: x - ox, y: y - oy },
    ...(face ? { face } : {}),
    ...(size === undefined ? {} : { size }),
    ...(way ? { way } : {}),
  }
}

/** Glyphs of the same letter, word or line and of one colour, in reading order. */
function together(
  glyphs: readonly SetGlyph[],
  letters: readonly SetLetter[],
  finest: number,
  colourOf: (letter: number) => Rgba | null,
): SetGlyph[][] {
  const sets = new Map<string, SetGlyph[]>()
  for (const glyph of glyphs) {
    const letter = letters[glyph.letter]!
    if (letter.blank) continue
    const unit = [glyph.letter, letter.word, letter.line, 0][finest]!
    const name = `${unit} ${colourOf(glyph.letter)?.join() ?? ''}`
    const set = sets.get(name)
    if (set) set.push(glyph)
    else sets.set(name, [glyph])
  }
  return [...sets.values()].sort((a, b) => a[0]!.letter - b[0]!.letter)
}

/** The middle, foot or head of the letter, word or line, in em. */
function pivotOf({ units, pivot }: RangeValues, letters: readonly SetLetter[], index: number, cap: number) {
  const own = letters[index]!
  const all = letters.filter((letter, i) => {
    if (letter.blank) return false
    return units === 'letters' ? i === index : units === 'words' ? letter.word === own.word : letter.line === own.line
  })
  const up = pivot === 'middle' ? cap / 2 : pivot === 'head' ? cap : 0
  const placed = all.flatMap(({ place }) => place ?? [])
  if (placed.length > 0) {
    const mean = (of: (place: PathPlace) => number) => placed.reduce((sum, place) => sum + of(place), 0) / placed.length
    return { x: mean(({ x, dy }) => x + dy * up), y: mean(({ y, dx }) => y - dx * up) }
  }
  const [left] = extentOf(all.map((letter) => letter.left))
  const [, right] = extentOf(all.map((letter) => letter.right))
  return { x: (left + right) / 2, y: own.baseline - up }
}

/** Turned and grown about the pivot, then moved. */
function movedBy(range: RangeValues, weight: number, size: Px, pivot: { x: number; y: number }): Placement {
  const scale = Math.max(0, 1 + weight * (range.scale / 100 - 1))
  const there = {
    ...{ scale, rotation: weight * range.rotation },
    x: pivot.x + (weight * range.x) / size,
    y: pivot.y + (weight * range.y) / size,
  }
  return within(there, { scale: 1, rotation: 0, x: -pivot.x, y: -pivot.y })
}

const between = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value))

/** A paint that has taken on tints: solid colours and gradients wholly; the alpha of each colour stays. */
export function tintedPaint(paint: EvaluatedPaint, tints: readonly Tint[]): EvaluatedPaint {
  if (tints.length === 0) return paint
  const tinted = (colour: Rgba) => tints.reduce(mixed, colour)
  switch (paint.type) {
    case 'solid':
      return { ...paint, colour: tinted(paint.colour) }
    case 'texture':
      return { ...paint, colour: tinted(paint.colour), ground: tinted(paint.ground) }
    default:
      return { ...paint, stops: paint.stops.map((stop) => ({ ...stop, colour: tinted(stop.colour) })) }
  }
}

function mixed(from: Rgba, { colour: [r, g, b, a], share }: Tint): Rgba {
  const [mr, mg, mb] = mixColours([from[0], from[1], from[2], 1], [r, g, b, 1], share * a)
  return [mr, mg, mb, from[3]]
}
