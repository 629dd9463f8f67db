import { Kept } from '../kept'
import { directedRuns, directionOf } from './bidi'
import type { Font, ShapedGlyph } from './font'
import { brokenLines, withoutSpaces } from './line-breaks'
import { alongPath, shrink } from './moved-text'
import type { SetGlyph, SetText, TypeFace, TypeSetting } from './setting'
import { readFeatures } from './features'
import { cased } from './wording'

/** The glyphs of a text at size 1; see `setText`. */
export const setType = (font: Font, setting: TypeSetting): SetGlyph[] => setText(font, setting).glyphs

/** A line to set: [start, end) of the text, and whether its paragraph goes on after it. */
interface Line {
  start: number
  end: number
  goesOn: boolean
  base: 'ltr' | 'rtl'
}

/** How a unit of the text is set. */
interface Style {
  face: TypeFace | null
  size: number
  shift: number
  tracking: number
}

type LaidGlyph = ShapedGlyph & { style: Style; own: number; advance: number; em: number }

/**
 * A text at size 1 (1 em = 1 unit). The origin is the piece's place: its x is the edge or middle that the lines are
 * aligned to, its y the middle between the first line's cap height and the last baseline. `spread` is tracking that a
 * letter has beside that of the setting, in thousandths of an em; `spaced` says that there may be any.
 */
export function setText(
  font: Font,
  setting: TypeSetting,
  spread: (letter: number) => number = () => 0,
  spaced = false,
): SetText {
  return new Setter(font, setting, spread, spaced).set()
}

const NO_STYLE: Style = { face: null, size: 1, shift: 0, tracking: 0 }

class Setter {
  private readonly text: string
  /** For each unit of the text the one of the wording. */
  private readonly from: number[]
  private readonly styles: readonly Style[]
  private readonly missing: string[] = []
  private tracking: number
  private readonly features: ReturnType<typeof readFeatures>

  constructor(
    private readonly font: Font,
    private readonly setting: TypeSetting,
    private readonly spread: (letter: number) => number,
    private readonly spaced: boolean,
  ) {
    const { text, from } = cased(setting.wording, setting.letterCase ?? 'typed')
    this.text = text
    this.from = from
    this.tracking = setting.tracking
    this.features = readFeatures(setting.features ?? '')
    this.styles = this.stylesOf()
  }

  set(): SetText {
    const { setting, font } = this
    const { width = 0, wide = 'break', align, least = 1, closest = 0 } = setting
    const lines = this.linesIn(wide === 'break' ? width : 0)
    const em = font.unitsPerEm
    const pitch = setting.leading / 100
    let size = 1
    const widest = () => Math.max(0, ...lines.map((line) => this.widthOf(line.start, this.inkEnd(line), line.base)))
    let full = width > 0 ? widest() : 0
    if (full > width && wide === 'smaller') size = Math.max(least, width / full)
    if (full > width && wide === 'closer') {
      this.tracking = Math.max(Math.min(closest, setting.tracking), setting.tracking - this.tooMuch(lines, width))
      full = widest()
    }
    const set: SetText = {
      glyphs: [],
      letters: [],
      size,
      overflows: width > 0 && full * size > width * (1 + 1e-9),
      missing: this.missing,
    }
    const first = (font.capHeight / em - (lines.length - 1) * pitch) / 2
    const state = { word: -1, inWord: false }
    lines.forEach((line, row) => {
      const baseline = first + row * pitch
      const glyphs = this.laid(line.start, line.end, line.base, set.letters.length)
      this.place(set, glyphs, line, { row, baseline, align, width: width / size, state })
    })
    if (size !== 1) shrink(set, size)
    if (setting.path) alongPath(set, setting.path, first * size)
    return set
  }

  /** Lines as they were typed, or broken to a width. */
  private linesIn(width: number): Line[] {
    const lines: Line[] = []
    let start = 0
    for (const words of this.text.split('\n')) {
      const base = directionOf(words)
      const end = start + words.length
      const own = start
      const broken =
        width > 0 ? brokenLines(words, width, (a, b) => this.widthOf(own + a, own + b, base)) : [[0, words.length]]
      broken.forEach(([a, b], i) => lines.push({ start: own + a!, end: own + b!, goesOn: i < broken.length - 1, base }))
      start = end + 1
    }
    return lines
  }

  /** The end of a line as far as it is seen: spaces at which it was broken hang over. */
  private inkEnd({ start, end, goesOn }: Line): number {
    return goesOn ? withoutSpaces(this.text, start, end) : end
  }

  private widthOf(start: number, end: number, base: 'ltr' | 'rtl'): number {
    return this.laid(start, end, base, null).reduce((sum, glyph) => sum + glyph.advance, 0)
  }

  /** By how much tracking must be less, in thousandths of an em, for every line to have room. */
  private tooMuch(lines: readonly Line[], width: number): number {
    return Math.max(
      0,
      ...lines.map((line) => {
        const glyphs = this.laid(line.start, this.inkEnd(line), line.base, null)
        const gaps = glyphs.filter((glyph, i) => i + 1 < glyphs.length && glyphs[i + 1]!.cluster !== glyph.cluster)
        const room = gaps.reduce((sum, { style }) => sum + style.size, 0)
        const over = glyphs.reduce((sum, glyph) => sum + glyph.advance, 0) - width
        return over > 0 && room > 0 ? (over / room) * 1000 : 0
      }),
    )
  }

  /** A stretch shaped, from left to right, with advances in em; `letter` is the index of its first letter, if it is known. */
  private laid(start: number, end: number, base: 'ltr' | 'rtl', letter: number | null): LaidGlyph[] {
    const line = this.text.slice(start, end)
    // CSS Text 3 §8.2: no optional ligatures where letters are spaced.
    const ligatures = this.tracking === 0 && !this.spaced
    const shaped = directedRuns(line, base).flatMap((run) => {
      const parts = this.partsOf(start + run.start, start + run.end)
      return (run.rightToLeft ? parts.reverse() : parts).flatMap((part) => {
        const style = this.styles[part.start] ?? NO_STYLE
        const font = style.face?.font ?? this.font
        const bounds = { start: part.start - start, end: part.end - start, rightToLeft: run.rightToLeft }
        return font
          .shapeRun(line, bounds, { ligatures: ligatures && style.tracking === 0, features: this.features })
          .map((glyph) => ({ ...glyph, style, font, rightToLeft: run.rightToLeft }))
      })
    })
    const starts = [...new Set(shaped.map(({ cluster }) => cluster))].sort((a, b) => a - b)
    const letterOf = new Map(starts.map((cluster, i) => [cluster, i]))
    return shaped.map(({ font, rightToLeft, ...glyph }, i) => {
      const { style, cluster } = glyph
      const next = shaped[i + 1]
      const own = (glyph.advance / font.unitsPerEm) * style.size
      let advance = own
      if (next !== undefined && next.cluster !== cluster) {
        const extra =
          this.tracking + style.tracking + (letter === null ? 0 : this.spread(letter + letterOf.get(cluster)!))
        const [a, b] = rightToLeft ? [next.cluster, cluster] : [cluster, next.cluster]
        advance = own + ((extra + this.between(line, a, b)) / 1000) * style.size
      }
      return { ...glyph, own, advance, em: font.unitsPerEm }
    })
  }

  /** Kerning by hand between what begins at two places. */
  private between(line: string, a: number, b: number): number {
    const { pairs } = this.setting
    if (!pairs || pairs.length === 0) return 0
    const pair = lastOf(line.slice(a, b)) + firstOf(line.slice(b))
    return pairs.find((one) => one.pair === pair)?.by ?? 0
  }

  /** A stretch in parts of one style each. */
  private partsOf(start: number, end: number): { start: number; end: number }[] {
    const parts: { start: number; end: number }[] = []
    for (let i = start; i < end; i++) {
      const last = parts.at(-1)
      if (last && this.styles[last.start] === this.styles[i]) last.end = i + 1
      else parts.push({ start: i, end: i + 1 })
    }
    return parts
  }

  private stylesOf(): readonly Style[] {
    const { runs = [], fallbacks = [] } = this.setting
    const plain = runs.length === 0 && fallbacks.length === 0
    const known = new Kept<string, Style>(1000)
    const styles: Style[] = []
    let at = 0
    for (const character of this.text) {
      let style = NO_STYLE
      if (!plain) {
        const typed = this.from[at]!
        const own = runs.filter(({ from, to }) => typed >= from && typed < to)
        const face = own.filter((run) => run.face !== null).at(-1)?.face ?? null
        const font = face?.font ?? this.font
        const needs = /[^\s\p{M}\p{C}]/u.test(character) && !font.covers(character)
        const other = needs ? fallbacks.findIndex((one) => one.font.covers(character)) : -1
        const name = `${own.map((run) => runs.indexOf(run)).join()} ${other}`
        style = known.of(name, () => ({
          face: other >= 0 ? fallbacks[other]! : face,
          size: own.reduce((size, run) => size * run.size, 1),
          shift: own.reduce((shift, run) => shift + run.shift, 0),
          tracking: own.reduce((sum, run) => sum + run.tracking, 0),
        }))
        // Marks stay with what they stand on.
        if (/\p{M}/u.test(character) && at > 0) style = styles[at - 1]!
      }
      const font = style.face?.font ?? this.font
      if (/[^\s\p{C}]/u.test(character) && !font.covers(character) && !this.missing.includes(character))
        this.missing.push(character)
      for (let i = 0; i < character.length; i++) styles.push(style)
      at += character.length
    }
    return styles
  }

  private place(
    set: SetText,
    glyphs: readonly LaidGlyph[],
    line: Line,
    at: {
      row: number
      baseline: number
      align: TypeSetting['align']
      width: number
      state: { word: number; inWord: boolean }
    },
  ): void {
    const { row, baseline, align, width, state } = at
    const first = set.letters.length
    const own = this.text.slice(line.start, line.end)
    const starts = [...new Set(glyphs.map(({ cluster }) => cluster))].sort((a, b) => a - b)
    const letterOf = new Map(starts.map((start, i) => [start, first + i]))
    const typed = (unit: number) => this.from[unit] ?? this.setting.wording.length
    state.inWord = false
    starts.forEach((start, i) => {
      const next = starts[i + 1] ?? own.length
      const blank = own.slice(start, next).trim() === ''
      if (!blank && !state.inWord) state.word++
      state.inWord = !blank
      set.letters.push({
        ...{ word: Math.max(0, state.word), line: row, blank, left: Infinity, right: -Infinity, baseline },
        ...{ from: typed(line.start + start), to: typed(line.start + next) },
      })
    })
    // Spaces that hang over at the end of a broken line take no room.
    const ink = this.inkEnd(line) - line.start
    const hanging = (glyph: LaidGlyph) => glyph.cluster >= ink
    const whole = glyphs.reduce((sum, glyph) => sum + (hanging(glyph) ? 0 : glyph.advance), 0)
    const gaps = glyphs.filter((glyph) => !hanging(glyph) && set.letters[letterOf.get(glyph.cluster)!]!.blank).length
    const justified = align === 'justify' && line.goesOn && gaps > 0 && width > whole
    const room = justified ? (width - whole) / gaps : 0
    const span = justified ? width : whole
    let pen = startOf(align, span, width, line.base)
    for (const glyph of glyphs) {
      const index = letterOf.get(glyph.cluster)!
      const letter = set.letters[index]!
      const { style, em } = glyph
      letter.left = Math.min(letter.left, pen)
      letter.right = Math.max(letter.right, pen + glyph.own)
      const up = style.shift + (this.setting.shift ?? 0)
      set.glyphs.push({
        ...{ id: glyph.id, letter: index },
        x: pen + (glyph.dx / em) * style.size,
        y: baseline - (glyph.dy / em) * style.size - up,
        ...(style.face ? { face: style.face } : {}),
        ...(style.size !== 1 ? { size: style.size } : {}),
      })
      pen += glyph.advance + (letter.blank && !hanging(glyph) ? room : 0)
    }
  }
}

/** Where a line begins. The box of justified words stands around the place of the piece. */
function startOf(align: TypeSetting['align'], span: number, width: number, base: 'ltr' | 'rtl'): number {
  if (align === 'left') return 0
  if (align === 'right') return -span
  if (align === 'justify' && width > 0) return base === 'rtl' ? width / 2 - span : -width / 2
  return -span / 2
}

const lastOf = (words: string) => [...words].at(-1) ?? ''
const firstOf = (words: string) => [...words.slice(0, 2)][0] ?? ''

/** Width of a line's advances at size 1; the space after the last cluster is not tracked. */
export function lineWidth(font: Font, line: string, tracking: number): number {
  const { letters } = setText(font, { wording: line, tracking, leading: 100, align: 'left' })
  return Math.max(0, ...letters.map(({ right }) => right))
}
