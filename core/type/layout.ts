import type { PathCommand } from '../outline/contour'
import type { Font, ShapedGlyph } from './font'

export interface TypeSetting {
  wording: string
  /** Extra space after each cluster, in thousandths of an em. */
  tracking: number
  /** Distance of baselines, % of the size. */
  leading: number
  align: 'left' | 'centre' | 'right'
}

/** A glyph and where its origin stands, in em, y down. */
export interface SetGlyph {
  id: number
  x: number
  y: number
  /** Index of the letter that it belongs to. */
  letter: number
}

/** What is read as one sign: a letter with its marks, a ligature, a space. In reading order. */
export interface SetLetter {
  /** Index of its word, over all lines; a space counts to the word before it. */
  word: number
  line: number
  blank: boolean
  /** From the left to the right of its advance, in em, without what tracking adds. */
  left: number
  right: number
  baseline: number
}

export interface SetText {
  glyphs: SetGlyph[]
  letters: SetLetter[]
}

/** The glyphs of a text at size 1; see `setText`. */
export const setType = (font: Font, setting: TypeSetting): SetGlyph[] => setText(font, setting).glyphs

/**
 * A text at size 1 (1 em = 1 unit). The origin is the piece's place: its x is the edge or middle that the lines are
 * aligned to, its y the middle between the first line's cap height and the last baseline. `spread` is tracking that a
 * letter has beside that of the setting, in thousandths of an em; `spaced` says that there may be any.
 */
export function setText(
  font: Font,
  { wording, tracking, leading, align }: TypeSetting,
  spread: (letter: number) => number = () => 0,
  spaced = false,
): SetText {
  const em = font.unitsPerEm
  const pitch = leading / 100
  const lines = wording.split('\n')
  const first = (font.capHeight / em - (lines.length - 1) * pitch) / 2
  const set: SetText = { glyphs: [], letters: [] }
  let word = -1
  lines.forEach((line, row) => {
    // CSS Text 3 §8.2: no optional ligatures where letters are spaced.
    const shaped = font.shape(line, tracking === 0 && !spaced)
    const starts = [...new Set(shaped.map(({ cluster }) => cluster))].sort((a, b) => a - b)
    const from = set.letters.length
    const letterOf = new Map(starts.map((start, i) => [start, from + i]))
    const glyphs = tracked(font, shaped, (cluster) => tracking + spread(letterOf.get(cluster)!))
    const width = glyphs.reduce((sum, glyph) => sum + glyph.advance, 0)
    const baseline = first + row * pitch
    let inWord = false
    starts.forEach((start, i) => {
      const blank = line.slice(start, starts[i + 1] ?? line.length).trim() === ''
      if (!blank && !inWord) word++
      inWord = !blank
      set.letters.push({ word: Math.max(0, word), line: row, blank, left: Infinity, right: -Infinity, baseline })
    })
    let pen = align === 'left' ? 0 : align === 'right' ? -width : -width / 2
    for (const glyph of glyphs) {
      const index = letterOf.get(glyph.cluster)!
      const letter = set.letters[index]!
      letter.left = Math.min(letter.left, pen)
      letter.right = Math.max(letter.right, pen + glyph.own)
      set.glyphs.push({ id: glyph.id, x: pen + glyph.dx / em, y: baseline - glyph.dy / em, letter: index })
      pen += glyph.advance
    }
  })
  return set
}

/** Width of a line's advances at size 1; the space after the last cluster is not tracked. */
export function lineWidth(font: Font, line: string, tracking: number): number {
  const glyphs = tracked(font, font.shape(line, tracking === 0), () => tracking)
  return glyphs.reduce((sum, glyph) => sum + glyph.advance, 0)
}

/** Glyphs with their advances in em: their own, and with the space that follows them. */
function tracked(font: Font, glyphs: readonly ShapedGlyph[], tracking: (cluster: number) => number) {
  return glyphs.map((glyph, i) => {
    const next = glyphs[i + 1]
    const endsCluster = next !== undefined && next.cluster !== glyph.cluster
    const own = glyph.advance / font.unitsPerEm
    return { ...glyph, own, advance: own + (endsCluster ? tracking(glyph.cluster) / 1000 : 0) }
  })
}

/** A glyph's contours at size 1 around its origin, y down. */
export function glyphPath(font: Font, id: number): PathCommand[] {
  const em = font.unitsPerEm
  return font.path(id).map((c): PathCommand => {
    switch (c.type) {
      case 'Z':
        return c
      case 'Q':
        return { type: 'Q', x1: c.x1 / em, y1: -c.y1 / em, x: c.x / em, y: -c.y / em }
      case 'C':
        return { type: 'C', x1: c.x1 / em, y1: -c.y1 / em, x2: c.x2 / em, y2: -c.y2 / em, x: c.x / em, y: -c.y / em }
      default:
        return { type: c.type, x: c.x / em, y: -c.y / em }
    }
  })
}
