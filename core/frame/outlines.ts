import type { GroupPiece, Piece, TypePiece } from '../card/schema'
import type { Moment } from '../values/evaluated'
import { valuesAt } from '../values/evaluated'
import type { OutlineWork } from '../pieces/definition'
import { PIECE_KINDS } from '../pieces/table'
import { TYPE_PARAMETERS } from '../pieces/type'
import { readPathData } from '../outline/svg-path'
import type { PathCommand, Ring } from '../outline/contour'
import { flatten, flattenStretches } from '../outline/contour'
import type { Outline } from '../outline/outline'
import { outlineOf } from '../outline/outline'
import type { LineStyle } from '../outline/stroked'
import { strokeRings } from '../outline/stroked'
import { unite, uniteShapes } from '../outline/unite'
import { Kept } from '../kept'
import type { Font } from '../type/font'
import type { FontBook } from '../type/font-book'
import { wordingAt } from '../card/wording'
import { glyphPath, setText } from '../type/layout'
import type { MovedLetters } from '../type/letter-motion'
import { moveLetters } from '../type/letter-motion'
import { acts, RANGE_PARAMETERS, tracks } from '../type/ranges'

/** Curves stay within this many render pixels of their straight pieces. */
const TOLERANCE = 0.01
/** Points of united outlines are snapped to this share of a render pixel. */
const GRID = 4096
/** Bytes of outlines that are kept, of letters, and of paths as they were read. */
const BUDGET = 64 * 1024 * 1024
/** Bytes that could be written while one edge of an outline is made. */
const WORK_OF_EDGE = 4000
/** Texts longer than this go by a number in keys. */
const SHORT = 64

/** A piece that has an outline of its own. */
export type FormedPiece = Exclude<Piece, GroupPiece>

/** An outline, and the factor by which it must be enlarged to have the piece's size. */
export interface SizedOutline {
  outline: Outline
  enlarge: number
}

/** Letters on their way, with their outline. */
export interface OutlinedLetters extends SizedOutline, Omit<MovedLetters, 'glyphs'> {}

/** Makes outlines and keeps them: letters are shaped and united once, whatever their size and place. */
export class Outlines {
  private readonly kept = new Kept<string, Outline>(
    BUDGET,
    ({ segments }, key) => segments.length * 14 + key.length * 2,
  )
  private readonly glyphs = new Kept<string, Ring[]>(BUDGET, (rings, key) => bytesOf(rings) + key.length * 2)
  private readonly paths = new Kept<string, PathCommand[]>(BUDGET, (path, text) => path.length * 60 + text.length * 2)

  private readonly texts = new Kept<string, number>(BUDGET, (_, text) => text.length * 2)
  private made = 0

  constructor(
    private readonly fonts: FontBook,
    /** Told of work, in bytes that could be written meanwhile. */
    private readonly charge: (bytes: number) => void = () => {},
  ) {}

  /** `scale`: render pixels per card pixel, times the piece's own scale. `place` names the piece in errors. */
  of(piece: FormedPiece, at: Moment, scale: number, place: string): SizedOutline {
    if (piece.kind === 'type') return this.ofType(piece, at, scale, place)
    const definition = PIECE_KINDS[piece.kind]
    const detail = detailFor(scale)
    const values = valuesAt(definition.parameters, piece, at)
    const key = JSON.stringify([piece.kind, ...Object.values(values).map((value) => this.short(value)), detail])
    const outline = this.kept.of(key, () => {
      const rings = definition.outline!(values, this.workAt(detail, place))
      const made = outlineOf(this.newName(), rings, 1)
      this.charge(made.comesFrom.length * WORK_OF_EDGE)
      const { bounds } = made
      const smaller = bounds ? Math.min(bounds.right - bounds.left, bounds.bottom - bounds.top) : 1
      return { ...made, reference: definition.reference?.(values) ?? smaller }
    })
    return { outline, enlarge: 1 }
  }

  private workAt(detail: number, place: string): OutlineWork {
    const tolerance = TOLERANCE / detail
    return {
      flat: (path) => flatten(path, tolerance),
      united: (rings, rule) => unite(rings, detail * GRID, rule),
      line: (path, style) => lineRings(path, style, detail),
      path: (data) => this.pathOf(data, `${place}.path`),
    }
  }

  private ofType(piece: TypePiece, at: Moment, scale: number, place: string): SizedOutline {
    const { font, setting, size } = this.typeOf(piece, at, place)
    const spaced = piece.ranges.some(tracks)
    const detail = detailFor(size * scale)
    const key = JSON.stringify([piece.font, setting, detail, spaced])
    const outline = this.kept.of(key, () => {
      const { glyphs } = setText(font, setting, undefined, spaced)
      return this.ofGlyphs(font, piece.font, glyphs, detail)
    })
    return { outline, enlarge: size }
  }

  /**
   * Letters that letter motion moves, each with an outline of its own around its first glyph's origin, in reading
   * order; null where a piece has no motion of letters.
   */
  letters(piece: FormedPiece, at: Moment, scale: number, place: string): OutlinedLetters[] | null {
    if (piece.kind !== 'type') return null
    const acting = piece.ranges.filter(acts)
    if (acting.length === 0) return null
    const { font, setting, size } = this.typeOf(piece, at, place)
    const ranges = acting.map((range) => valuesAt(RANGE_PARAMETERS, range, at))
    return moveLetters(font, { ...setting, size, ranges, spaced: acting.some(tracks) }).map((letters) => {
      const detail = detailFor(size * scale * letters.moved.scale)
      const key = JSON.stringify([piece.font, letters.glyphs, detail])
      const outline = this.kept.of(key, () => this.ofGlyphs(font, piece.font, letters.glyphs, detail))
      return { ...letters, outline, enlarge: size }
    })
  }

  private typeOf(piece: TypePiece, at: Moment, place: string) {
    const { size, tracking, leading, align } = valuesAt(TYPE_PARAMETERS, piece, at)
    const setting = { wording: wordingAt(piece, at), tracking, leading, align }
    return { font: this.fonts.get(piece.font, `${place}.font`), setting, size }
  }

  private ofGlyphs(
    font: Font,
    name: string,
    glyphs: readonly { id: number; x: number; y: number }[],
    detail: number,
  ): Outline {
    const letters = glyphs.map(({ id, x, y }) =>
      this.glyph(font, name, id, detail).map((ring) => movedRing(ring, x, y)),
    )
    const edges = letters.flat().reduce((sum, { points }) => sum + points.length / 2, 0)
    this.charge(edges * WORK_OF_EDGE)
    return outlineOf(this.newName(), uniteShapes(letters, detail * GRID), font.capHeight / font.unitsPerEm)
  }

  /** A letter's own contours, united: fonts may let them overlap. */
  private glyph(font: Font, name: string, id: number, detail: number): Ring[] {
    return this.glyphs.of(`${name} ${id} ${detail}`, () =>
      unite(flatten(glyphPath(font, id), TOLERANCE / detail), detail * GRID),
    )
  }

  private pathOf(text: string, place: string): PathCommand[] {
    return this.paths.of(text, () => readPathData(text, place))
  }

  /** Names are never given twice: planes that were kept under one are of this very outline. */
  private newName(): string {
    return `outline ${++this.made}`
  }

  /** A value as it stands in keys: long texts, such as paths, by a number. */
  private short(value: unknown): unknown {
    return typeof value === 'string' && value.length > SHORT ? this.texts.of(value, () => ++this.made) : value
  }
}

/** Points of two doubles each, with their marks. */
const bytesOf = (rings: readonly Ring[]) => rings.reduce((sum, { points }) => sum + points.length * 9, 64)

function lineRings(path: readonly PathCommand[], style: LineStyle, detail: number): Ring[] {
  // An offset curve keeps within twice the tolerance of the curve it runs beside.
  const tolerance = TOLERANCE / detail / 2
  const rings = flattenStretches(path, tolerance).flatMap((stretch) => strokeRings(stretch, style, tolerance))
  return unite(rings, detail * GRID)
}

const movedRing = ({ points, smooth }: Ring, x: number, y: number): Ring => ({
  points: points.map((v, i) => v + (i % 2 ? y : x)),
  smooth,
})

/** Render pixels per outline unit, rounded up in steps of a quarter so that a growing piece is seldom flattened anew. */
function detailFor(pixels: number): number {
  let detail = 1
  while (detail < pixels && detail < 1 << 20) detail *= 1.25
  return detail
}
