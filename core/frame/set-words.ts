import type { TypePiece } from '../card/schema'
import { Kept } from '../kept'
import type { Ring } from '../outline/contour'
import { flatten } from '../outline/contour'
import { unite } from '../outline/unite'
import type { Font } from '../type/font'
import type { FontBook } from '../type/font-book'
import { glyphPath } from '../type/glyph-path'
import { setText } from '../type/layout'
import type { SetGlyph, SetText, TypeFace, TypeSetting } from '../type/setting'
import { tracks } from '../type/ranges'
import type { Point, Px, Rect } from '../units'
import type { Moment } from '../values/moment'
import { detailFor, fineness } from './fineness'
import { bytesOf, movedRing } from './rings'
import { cornersOf, settingOf } from './type-setting'

/** Bytes of set words and of glyphs that are kept. */
const BUDGET = 64 * 1024 * 1024

/** A letter as a hand takes hold of it. */
export interface LetterBox {
  /** UTF-16 units of the wording, [from, to). */
  from: number
  to: number
  line: number
  blank: boolean
  /** From its upper left round to its lower left, from cap height to baseline. */
  corners: Point[]
}

/** Type at a moment. */
export interface SetPiece {
  piece: TypePiece
  face: TypeFace
  setting: TypeSetting
  size: Px
  /** Whether a range tracks. */
  spaced: boolean
  /** Names font and setting: equal keys, equal words at size 1. */
  key: string
  text(): SetText
}

/** A glyph among its words, without the letter that it belongs to. */
export type PlacedGlyph = Omit<SetGlyph, 'letter'>

/** Sets words and gives their glyphs' contours; both are kept. */
export class SetWords {
  private readonly glyphs = new Kept<string, Ring[]>(BUDGET, (rings, key) => bytesOf(rings) + key.length * 2)
  private readonly set = new Kept<string, SetText>(
    BUDGET,
    ({ glyphs, letters }) => (glyphs.length + letters.length) * 100,
  )

  constructor(private readonly fonts: FontBook) {}

  /** `place` names the piece in errors. */
  of(piece: TypePiece, at: Moment, place: string): SetPiece {
    const set = settingOf(this.fonts, piece, at, place)
    const spaced = piece.ranges.some(tracks)
    const key = `${set.key} ${spaced}`
    const text = () => this.set.of(key, () => setText(set.face.font, set.setting, undefined, spaced))
    return { ...set, piece, spaced, key, text }
  }

  /** From side to side of the lines of type, and from the first cap height to the last baseline, in px; null without letters. */
  lineBox(piece: TypePiece, at: Moment, place: string): Rect | null {
    const { face, size, text } = this.of(piece, at, place)
    const { letters, size: made } = text()
    if (letters.length === 0 || letters.some((letter) => letter.place)) return null
    const cap = (face.font.capHeight / face.font.unitsPerEm) * made
    return {
      left: Math.min(...letters.map(({ left }) => left)) * size,
      right: Math.max(...letters.map(({ right }) => right)) * size,
      top: (Math.min(...letters.map(({ baseline }) => baseline)) - cap) * size,
      bottom: Math.max(...letters.map(({ baseline }) => baseline)) * size,
    }
  }

  /** Whether words run over, and the characters that none of their fonts has. */
  typeState(piece: TypePiece, at: Moment, place: string): { overflows: boolean; missing: string[] } {
    const { overflows, missing } = this.of(piece, at, place).text()
    return { overflows, missing }
  }

  /** Where the letters of type stand at rest, in px: what hands on the stage take hold of. */
  letterBoxes(piece: TypePiece, at: Moment, place: string): LetterBox[] {
    const { face, size, text } = this.of(piece, at, place)
    const { letters, size: made } = text()
    const cap = (face.font.capHeight / face.font.unitsPerEm) * made
    return letters.map(({ left, right, baseline, blank, from, to, line, place: on }) => ({
      ...{ from, to, line, blank },
      corners: cornersOf({ left, right, top: baseline - cap, bottom: baseline }, on).map(({ x, y }) => ({
        x: x * size,
        y: y * size,
      })),
    }))
  }

  /** A glyph's contours where it stands among the words. */
  glyphRings(face: TypeFace, { id, x, y, size = 1, way, face: own }: PlacedGlyph, detail: number): Ring[] {
    const { name, font } = own ?? face
    const rings = this.glyph(font, name, id, size > 1 ? detailFor(detail * size) : detail)
    if (size === 1 && !way) return rings.map((ring) => movedRing(ring, x, y))
    const [c, s] = way ? [way.x * size, way.y * size] : [size, 0]
    return rings.map(({ points, smooth }) => {
      const turned = new Array<number>(points.length)
      for (let i = 0; i < points.length; i += 2) {
        turned[i] = points[i]! * c - points[i + 1]! * s + x
        turned[i + 1] = points[i]! * s + points[i + 1]! * c + y
      }
      return { points: turned, smooth }
    })
  }

  /** A letter's own contours, united: fonts may let them overlap. */
  private glyph(font: Font, name: string, id: number, detail: number): Ring[] {
    return this.glyphs.of(`${name} ${id} ${detail}`, () =>
      unite(flatten(glyphPath(font, id), fineness(detail).tolerance), fineness(detail).grid),
    )
  }
}
