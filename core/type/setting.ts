import type { PathPlace, TextPath } from './along-path'
import type { Font } from './font'
import type { LetterCase } from './wording'

// Words to set, and words as they are set.

/** A font under the name by which its glyphs are kept. */
export interface TypeFace {
  name: string
  font: Font
}

/** A stretch of the wording that is set otherwise; UTF-16 units [from, to) of what was typed. */
export interface SetRun {
  from: number
  to: number
  /** Null for that of the piece. */
  face: TypeFace | null
  /** Share of the piece's size. */
  size: number
  /** Em of the piece that it stands above the line. */
  shift: number
  /** Tracking beside that of the piece. */
  tracking: number
}

export interface TypeSetting {
  wording: string
  /** Extra space after each cluster, in thousandths of an em. */
  tracking: number
  /** Distance of baselines, % of the size. */
  leading: number
  align: 'left' | 'centre' | 'right' | 'justify'
  /** Width of the text box in em; 0 or left out for none. */
  width?: number
  /** What becomes of lines that are wider: they are broken, all is made smaller, or set closer. */
  wide?: 'break' | 'smaller' | 'closer'
  /** The smallest share of the size, and the closest tracking in thousandths of an em, that this may lead to. */
  least?: number
  closest?: number
  letterCase?: LetterCase
  /** OpenType features by their tags; see `readFeatures`. */
  features?: string
  /** Em that all stands above its line. */
  shift?: number
  /** Space between two characters by hand, in thousandths of an em. */
  pairs?: readonly { pair: string; by: number }[]
  runs?: readonly SetRun[]
  /** Fonts that are asked for what the piece's own has no glyph for, in this order. */
  fallbacks?: readonly TypeFace[]
  path?: TextPath | null
}

/** A glyph and where its origin stands, in em, y down. */
export interface SetGlyph {
  id: number
  x: number
  y: number
  /** Index of the letter that it belongs to. */
  letter: number
  /** The font that it comes from; that of the piece where left out. */
  face?: TypeFace
  /** Its em in em of the piece; 1 where left out. */
  size?: number
  /** The direction of its baseline on a path, as a unit vector; to the right where left out. */
  way?: { x: number; y: number }
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
  /** UTF-16 units of what was typed that it stands for, [from, to). */
  from: number
  to: number
  /** Where the middle of its baseline stands on a path. */
  place?: PathPlace
}

export interface SetText {
  glyphs: SetGlyph[]
  letters: SetLetter[]
  /** Em of the glyphs in em of the piece: below 1 where all was made smaller to fit. */
  size: number
  /** Whether something has no room in the text box, or on the path. */
  overflows: boolean
  /** Characters that no font has a glyph for. */
  missing: string[]
}
