import type { GroupPiece, Piece } from '../card/schema'
import type { Moment } from '../values/moment'
import { valuesAt } from '../values/evaluated'
import type { MaskDefinition } from '../masks/definition'
import type { OutlineWork } from '../pieces/definition'
import { PIECE_KINDS } from '../pieces/table'
import { readPathData } from '../outline/svg-path'
import type { PathCommand, Ring } from '../outline/contour'
import { flatten, flattenStretches } from '../outline/contour'
import { grownRings } from '../outline/grown'
import type { LineForm, Mould } from '../outline/mould'
import { isLine, ringsOf, strandsOf } from '../outline/mould'
import { spanOf } from '../outline/span'
import type { Strand } from '../outline/strand'
import { lengthOf } from '../outline/strand'
import type { Outline, Placement } from '../outline/outline'
import { outlineOf } from '../outline/outline'
import { unite, uniteShapes } from '../outline/unite'
import { Kept } from '../kept'
import type { FontBook } from '../type/font-book'
import type { SetGlyph, TypeFace } from '../type/setting'
import type { MovedLetters } from '../type/letter-motion'
import { moveLetters } from '../type/letter-motion'
import type { LetterRange } from '../type/ranges'
import { acts, numbersIn, RANGE_PARAMETERS } from '../type/ranges'
import type { Px, Rect } from '../units'
import { bandsTogether } from './banded-letters'
import type { BeforeStep } from './before-step'
import { detailFor, fineness, finenessFor, formScale } from './fineness'
import type { LaidStep } from './laid-steps'
import { formValuesAt } from './fitted'
import { laidSteps } from './laid-steps'
import { formedMould } from './moulds'
import { bytesOf, movedRing } from './rings'
import type { PlacedGlyph, SetPiece } from './set-words'
import { SetWords } from './set-words'
import { colourRuns } from './type-setting'

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

/** An outline after its steps, and what it is at rest: paints and lengths in % count by that. */
export interface FormedOutline extends SizedOutline {
  rest: SizedOutline
}

/** Letters on their way, with their outline. */
export interface OutlinedLetters extends SizedOutline, Omit<MovedLetters, 'glyphs' | 'letters' | 'origin'> {
  /** Where the outline stands among the words at rest, in em. */
  origin: Placement
  /** Whether it is some bands of letters, beside others. */
  cut: boolean
}

/** Makes outlines and keeps them: letters are shaped and united once, whatever their size and place. */
export class Outlines {
  private readonly kept = new Kept<string, Outline>(
    BUDGET,
    ({ segments }, key) => segments.length * 14 + key.length * 2,
  )
  private readonly paths = new Kept<string, PathCommand[]>(BUDGET, (path, text) => path.length * 60 + text.length * 2)
  private readonly moulds = new Kept<string, Mould>(BUDGET, (mould, key) => bytesOfMould(mould) + key.length * 2)

  private readonly texts = new Kept<string, number>(BUDGET, (_, text) => text.length * 2)
  private made = 0

  readonly words: SetWords

  constructor(
    fonts: FontBook,
    /** Told of work, in bytes that could be written meanwhile. */
    private readonly charge: (bytes: number) => void = () => {},
  ) {
    this.words = new SetWords(fonts)
  }

  /** `scale`: render pixels per card pixel, times the piece's own scale. `place` names the piece in errors. */
  of(piece: FormedPiece, at: Moment, scale: number, place: string): FormedOutline {
    const rest = this.atRest(piece, at, scale, place)
    const steps = laidSteps(piece, at)
    const only = piece.kind === 'type' ? piece.only : undefined
    if (steps.length === 0 && only && piece.kind === 'type')
      return { ...this.ofType(this.words.of(piece, at, place), scale, only), rest }
    if (steps.length === 0 || !rest.outline.bounds) return { ...rest, rest }
    const fine = formScale(rest, scale)
    const fineness = finenessFor(fine)
    const { key, mould } = this.formed(piece, at, { scale: fine, place, steps, rest, banded: false })
    const outline = this.kept.of(`whole ${key} ${only?.join() ?? ''}`, () => {
      const seen = only ? mould.filter(({ letter }) => only.includes(letter)) : mould
      const parts = seen.map(({ form }) => ringsOf(form, fineness))
      return this.outlined(uniteShapes(parts, fineness.grid), rest)
    })
    return { outline, enlarge: 1, rest }
  }

  /** An outline without its steps. */
  private atRest(piece: FormedPiece, at: Moment, scale: number, place: string): SizedOutline {
    if (piece.kind === 'type') return this.ofType(this.words.of(piece, at, place), scale)
    const definition = PIECE_KINDS[piece.kind]
    const values = { ...formValuesAt(piece, at), ...definition.also?.(piece) } as never
    const outline = this.kept.of(this.shapeKey(piece, values, scale), () => {
      const rings = ringsOf(definition.outline!(values, this.workAt(scale, place)), finenessFor(scale))
      const made = this.outlined(rings, null)
      const { bounds } = made
      const smaller = bounds ? Math.min(bounds.right - bounds.left, bounds.bottom - bounds.top) : 1
      return { ...made, reference: definition.reference?.(values) ?? smaller }
    })
    return { outline, enlarge: 1 }
  }

  /** The area of a mask around its own place, its edge moved outward by some px. */
  mask(definition: MaskDefinition, values: never, grow: Px, scale: number, place: string): Outline {
    const shown = Object.values<unknown>(values).map((value) => this.short(value))
    return this.kept.of(JSON.stringify(['mask', definition.kind, shown, grow, detailFor(scale)]), () =>
      this.outlined(
        grownRings(definition.outline!(values, this.workAt(scale, place)), grow, 'round', finenessFor(scale)),
        null,
      ),
    )
  }

  private shapeKey(piece: FormedPiece, values: object, scale: number): string {
    return JSON.stringify([piece.kind, ...Object.values(values).map((value) => this.short(value)), detailFor(scale)])
  }

  private workAt(scale: number, place: string): OutlineWork {
    const { tolerance, grid } = finenessFor(scale)
    return {
      flat: (path) => flatten(path, tolerance),
      united: (rings, rule) => unite(rings, grid, rule),
      line: (path, style): LineForm => ({
        ...style,
        side: 'across',
        strands: flattenStretches(path, tolerance / 2),
        within: [],
      }),
      path: (data) => this.pathOf(data, `${place}.path`),
    }
  }

  /** The longest line of an outline at rest, in px: what words can stand along; null for one without any. */
  strandOf(piece: FormedPiece, at: Moment, place: string): Strand | null {
    const form = PIECE_KINDS[piece.kind].outline?.(formValuesAt(piece, at) as never, this.workAt(1, place))
    if (!form) return null
    const strands = isLine(form) ? form.strands : strandsOf(form)
    return strands.reduce<Strand | null>(
      (longest, strand) => (longest && lengthOf(longest) >= lengthOf(strand) ? longest : strand),
      null,
    )
  }

  /** What comes into one of a piece's steps; null where it has no such step, or no ink. */
  beforeStep(piece: FormedPiece, at: Moment, step: string, place: string): BeforeStep | null {
    const index = piece.outlineSteps.findIndex(({ id }) => id === step)
    const rest = index < 0 ? null : this.atRest(piece, at, 1, place)
    if (!rest?.outline.bounds) return null
    const before = { ...piece, outlineSteps: piece.outlineSteps.slice(index + 1) }
    const work = { scale: 1, place, steps: laidSteps(before, at), rest, banded: false }
    const { mould } = this.formed(before, at, work)
    return {
      whole: spanned(rest.outline.bounds, rest.enlarge),
      reference: rest.outline.reference * rest.enlarge,
      lines: mould.flatMap(({ form }) =>
        isLine(form) ? form.strands.map(({ points, closed }) => ({ points, closed, thickness: form.thickness })) : [],
      ),
    }
  }

  /** A short name for a text; never given twice. */
  nameOf = (text: string): string => `t${this.numberOf(text)}`

  private ofType({ face, size, key, text }: SetPiece, scale: number, only?: readonly number[]): SizedOutline {
    const detail = detailFor(size * scale)
    const outline = this.kept.of(JSON.stringify([key, detail, ...(only ? [only] : [])]), () => {
      const { glyphs: all, size: made } = text()
      const glyphs = only ? all.filter(({ letter }) => only.includes(letter)) : all
      return this.ofGlyphs(face, glyphs, detail, made)
    })
    return { outline, enlarge: size }
  }

  /** The mould of a piece after its steps, in px; known by its key. */
  private formed(
    piece: FormedPiece,
    at: Moment,
    { scale, place, steps, rest, banded }: FormWork,
  ): { key: string; mould: Mould } {
    const { outline, enlarge } = rest
    const laid = steps.map(({ definition, values, letters, chance }) => [definition.kind, values, letters, chance])
    const pressure = piece.kind === 'path' ? piece.pressure : []
    const own = this.moulded(piece, at, scale, place)
    const key = `mould ${this.numberOf(JSON.stringify([own.key, laid, banded, pressure]))}`
    const mould = this.moulds.of(key, () => {
      const whole = spanned(outline.bounds!, enlarge)
      const setting = { ...finenessFor(scale), whole, reference: outline.reference * enlarge, banded, pressure }
      const mould = own.make()
      const edges = mould.reduce((sum, { form }) => sum + edgesOf(form), 0)
      this.charge(edges * WORK_OF_EDGE * steps.length)
      return formedMould(mould, steps, setting)
    })
    return { key, mould }
  }

  /** What steps begin with: a piece's outline in parts, in px. */
  private moulded(piece: FormedPiece, at: Moment, scale: number, place: string): { key: string; make: () => Mould } {
    if (piece.kind === 'type') {
      const set = this.words.of(piece, at, place)
      return {
        key: JSON.stringify(['type', set.key, set.size, detailFor(scale)]),
        make: () => this.lettersOf(set, set.text().glyphs, scale),
      }
    }
    const definition = PIECE_KINDS[piece.kind]
    const values = formValuesAt(piece, at) as never
    return {
      key: this.shapeKey(piece, values, scale),
      make: () => {
        const form = definition.outline!(values, this.workAt(scale, place))
        const rest = spanOf(isLine(form) ? form.strands : form)
        return rest ? [{ letter: 0, band: null, rest, form }] : []
      },
    }
  }

  /** Each letter with its contours as a part of its own. */
  private lettersOf({ face, size }: SetPiece, glyphs: readonly SetGlyph[], scale: number): Mould {
    const detail = detailFor(size * scale)
    const { grid } = finenessFor(scale)
    const letters = new Map<number, Ring[][]>()
    for (const glyph of glyphs) {
      const rings = this.words.glyphRings(face, glyph, detail).map((ring) => enlarged(ring, size))
      letters.set(glyph.letter, [...(letters.get(glyph.letter) ?? []), rings])
    }
    return [...letters].flatMap(([letter, shapes]) => {
      const form = uniteShapes(shapes, grid)
      const rest = spanOf(form)
      return rest ? [{ letter, band: null, rest, form }] : []
    })
  }

  /**
   * Letters that letter motion moves, each with an outline of its own around its first glyph's origin, in reading
   * order; null where a piece has no motion of letters.
   */
  letters(piece: FormedPiece, at: Moment, scale: number, place: string): OutlinedLetters[] | null {
    if (piece.kind !== 'type') return null
    const acting = piece.ranges.filter(acts)
    const colourAt = colourRuns(piece, at)
    if (acting.length === 0 && !colourAt) return null
    const set = this.words.of(piece, at, place)
    const { face, setting, size, spaced } = set
    const moved = (ranges: readonly LetterRange[]) =>
      moveLetters(face.font, {
        ...setting,
        ...(colourAt ? { colourAt } : {}),
        ...{ size, spaced, ...(piece.only ? { only: piece.only } : {}) },
        ranges: ranges.map((range) => valuesAt(RANGE_PARAMETERS, range, at)),
        units: acting.map(({ units }) => units),
      })
    const steps = laidSteps(piece, at)
    if (steps.length > 0) return this.formedLetters(set, at, { scale, place, steps, acting, moved })
    return moved(acting).map(({ glyphs, origin, ...letters }) => {
      const detail = detailFor(size * scale * letters.moved.scale)
      const key = JSON.stringify([face.name, glyphs.map(glyphKey), detail])
      const outline = this.kept.of(key, () => this.ofGlyphs(face, glyphs, detail))
      return { ...letters, outline, enlarge: size, origin: { scale: 1, rotation: 0, ...origin }, cut: false }
    })
  }

  /** Letters whose outline has steps: bands that other ranges move are letters of their own. */
  private formedLetters(
    { piece, size }: SetPiece,
    at: Moment,
    { scale, place, steps, acting, moved: lettersBy }: LettersWork,
  ): OutlinedLetters[] {
    const limits = acting.map((range) => numbersIn(valuesAt(RANGE_PARAMETERS, range, at).bands))
    const banded = limits.some((limit) => limit !== null)
    const rest = this.atRest(piece, at, scale, place)
    if (!rest.outline.bounds) return []
    const all = banded ? null : lettersBy(acting)
    const grown = Math.max(...(all ?? lettersBy(acting)).map((letters) => letters.moved.scale), 0)
    if (grown <= 0) return []
    const { key, mould } = this.formed(piece, at, { scale: formScale(rest, scale * grown), place, steps, rest, banded })
    const fineness = finenessFor(formScale(rest, scale * grown))
    const whole = banded
      ? this.formed(piece, at, { scale: formScale(rest, scale * grown), place, steps, rest, banded: false })
      : null
    return bandsTogether(mould, all, acting, limits, lettersBy).map(
      ({ letters, bands, moved, opacity, blur, tints }) => {
        // Where all bands of a letter go together it was never cut.
        const cut = bands ? { key, mould } : (whole ?? { key, mould })
        const outline = this.kept.of(JSON.stringify(['letters', cut.key, letters, bands]), () => {
          const shapes = cut.mould.flatMap((part) => {
            const own = letters.find(({ letter }) => letter === part.letter)
            if (!own || (bands && !bands.includes(part.band))) return []
            return [ringsOf(part.form, fineness).map((ring) => movedRing(ring, own.x * size, 0))]
          })
          return this.outlined(bands ? unite(shapes.flat(), fineness.grid) : uniteShapes(shapes, fineness.grid), rest)
        })
        const origin = { scale: 1 / size, rotation: 0, x: 0, y: 0 }
        return { outline, enlarge: size, origin, moved, opacity, blur, tints, cut: bands !== null }
      },
    )
  }

  private ofGlyphs(face: TypeFace, glyphs: readonly PlacedGlyph[], detail: number, made = 1): Outline {
    const letters = glyphs.map((glyph) => this.words.glyphRings(face, glyph, detail))
    const edges = letters.flat().reduce((sum, { points }) => sum + points.length / 2, 0)
    this.charge(edges * WORK_OF_EDGE)
    const cap = (face.font.capHeight / face.font.unitsPerEm) * made
    return outlineOf(this.newName(), uniteShapes(letters, fineness(detail).grid), cap)
  }

  /** Rings as an outline, measured by what they are at rest. */
  private outlined(rings: readonly Ring[], rest: SizedOutline | null): Outline {
    const made = outlineOf(this.newName(), rings, rest ? rest.outline.reference * rest.enlarge : 1)
    this.charge(made.comesFrom.length * WORK_OF_EDGE)
    return made
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
    return typeof value === 'string' && value.length > SHORT ? this.numberOf(value) : value
  }

  private numberOf(text: string): number {
    return this.texts.of(text, () => ++this.made)
  }
}

interface FormWork {
  scale: number
  place: string
  steps: readonly LaidStep[]
  rest: SizedOutline
  banded: boolean
}

interface LettersWork {
  scale: number
  place: string
  steps: readonly LaidStep[]
  acting: readonly LetterRange[]
  moved(ranges: readonly LetterRange[]): MovedLetters[]
}

const spanned = ({ left, top, right, bottom }: Rect, by: number): Rect => ({
  ...{ left: left * by, top: top * by },
  ...{ right: right * by, bottom: bottom * by },
})

const bytesOfMould = (mould: Mould) =>
  mould.reduce(
    (sum, { form }) => sum + (isLine(form) ? bytesOf(form.strands) + bytesOf(form.within) : bytesOf(form)),
    64,
  )

const edgesOf = (form: Ring[] | LineForm) =>
  (isLine(form) ? form.strands : form).reduce((sum, { smooth }) => sum + smooth.length, 0)

/** A glyph as it stands in keys. */
const glyphKey = ({ face, ...glyph }: PlacedGlyph) => (face ? { ...glyph, face: face.name } : glyph)

const enlarged = ({ points, smooth }: Ring, by: number): Ring => ({ points: points.map((v) => v * by), smooth })
