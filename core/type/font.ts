import * as hb from 'harfbuzzjs'
import { WaxError } from '../errors'
import { Kept } from '../kept'
import type { PathCommand } from '../outline/contour'
import type { DirectedRun } from './bidi'
import { directedRuns } from './bidi'

/** Fonts larger than this are refused. */
export const LARGEST_FONT_BYTES = 30 * 1024 * 1024

/** One glyph of a shaped line, in font units. */
export interface ShapedGlyph {
  id: number
  /** Index of its first UTF-16 unit in the line. */
  cluster: number
  advance: number
  dx: number
  dy: number
}

/** An axis of a variable font, by the tag that the standard gives it. */
export interface FontAxis {
  tag: string
  min: number
  max: number
  standard: number
}

/** How a stretch is shaped: with optional ligatures or without, and with OpenType features. */
export interface Shaping {
  ligatures: boolean
  features?: readonly { tag: string; value: number }[]
}

/** Forms of a variable font that are kept: a moving axis gives a new one at each frame. */
const MOST_VARIANTS = 24

/** A TrueType or OpenType font (sfnt) ready for shaping. Shaping and outlines are HarfBuzz's. */
export class Font {
  readonly unitsPerEm: number
  /** Font units. */
  readonly capHeight: number
  readonly family: string
  readonly style: string
  private readonly face: hb.Face
  private readonly font: hb.Font
  /** Lines that were shaped before: letter motion asks for the same one at every frame. */
  private readonly shaped = new Kept<string, readonly ShapedGlyph[]>(2000)
  private readonly paths = new Map<number, PathCommand[]>()
  private readonly variants = new Kept<string, Font>(MOST_VARIANTS)
  /** The axes along which the font can be varied; none of one with a single form. */
  readonly axes: readonly FontAxis[]
  /** Tags of the OpenType features that it has. */
  readonly features: readonly string[]

  /**
   * Throws a WaxError where the bytes are no usable font. `place` names the file for people; `at` is where on its axes it
   * stands, which lets the family's own name out.
   */
  constructor(
    source: Uint8Array | hb.Face,
    private readonly place: string,
    at: Readonly<Record<string, number>> = {},
  ) {
    const face = source instanceof Uint8Array ? faceOf(source, place) : source
    this.face = face
    this.font = new hb.Font(face)
    const chosen = Object.entries(at).map(([tag, value]) => new hb.Variation(tag, value))
    if (chosen.length > 0) this.font.setVariations(chosen)
    this.axes = Object.entries(face.getAxisInfos()).map(([tag, { min, default: standard, max }]) => ({
      ...{ tag, min, max, standard },
    }))
    this.features = [...new Set([...face.getTableFeatureTags('GSUB'), ...face.getTableFeatureTags('GPOS')])].sort()
    this.unitsPerEm = face.upem
    this.capHeight = this.readCapHeight()
    this.family = face.getName(16, 'en') || face.getName(1, 'en') || 'Unnamed'
    this.style = face.getName(17, 'en') || face.getName(2, 'en') || 'Regular'
  }

  private readCapHeight(): number {
    const named = this.font.getMetricPosition(hb.MetricsTag.CAP_HEIGHT)
    if (named && named > 0) return named
    const glyph = this.font.nominalGlyph('H'.codePointAt(0)!)
    const measured = glyph === undefined ? undefined : this.font.glyphExtents(glyph)?.yBearing
    // Without capitals: 0.7 em, the usual share (common practice, no published source).
    return measured && measured > 0 ? measured : Math.round(this.unitsPerEm * 0.7)
  }

  /** The same font elsewhere on its axes; values are kept within what each axis has, axes that it has not are passed over. */
  varied(at: Readonly<Record<string, number>>): Font {
    const own = this.axes.flatMap(({ tag, min, max, standard }) => {
      const value = Math.min(max, Math.max(min, at[tag] ?? standard))
      return value === standard ? [] : [[tag, value] as const]
    })
    if (own.length === 0) return this
    return this.variants.of(own.join(' '), () => new Font(this.face, this.place, Object.fromEntries(own)))
  }

  /** One line of text, left to right in visual order. Optional ligatures only where asked for. */
  shape(line: string, ligatures: boolean): readonly ShapedGlyph[] {
    return directedRuns(line).flatMap((run) => [...this.shapeRun(line, run, { ligatures })])
  }

  /** A stretch of a line that runs one way, left to right as it stands; it sees what surrounds it. */
  shapeRun(line: string, run: DirectedRun, how: Shaping): readonly ShapedGlyph[] {
    const { start, end, rightToLeft } = run
    const features = how.features?.map(({ tag, value }) => `${tag}=${value}`).join() ?? ''
    const key = `${how.ligatures ? '+' : '-'}${rightToLeft ? '<' : '>'}${start} ${end} ${features} ${line}`
    return this.shaped.of(key, () => this.shapeAnew(line, run, how))
  }

  private shapeAnew(
    line: string,
    { start, end, rightToLeft }: DirectedRun,
    { ligatures, features = [] }: Shaping,
  ): ShapedGlyph[] {
    const buffer = new hb.Buffer()
    buffer.addText(line, start, end - start)
    buffer.setDirection(rightToLeft ? hb.Direction.RTL : hb.Direction.LTR)
    // Script and language.
    buffer.guessSegmentProperties()
    const off = ligatures ? [] : [new hb.Feature('liga', 0), new hb.Feature('clig', 0)]
    hb.shape(this.font, buffer, [...off, ...features.map(({ tag, value }) => new hb.Feature(tag, value))])
    const positions = buffer.getGlyphPositions()
    return buffer.getGlyphInfos().map((info, i) => ({
      id: info.codepoint,
      cluster: info.cluster,
      advance: positions[i]!.xAdvance,
      dx: positions[i]!.xOffset,
      dy: positions[i]!.yOffset,
    }))
  }

  /** A glyph's contours in font units, y up. */
  path(glyph: number): PathCommand[] {
    let path = this.paths.get(glyph)
    if (!path) {
      path = this.font.glyphToJson(glyph).map(({ type, values: v }): PathCommand => {
        if (type === 'Q') return { type, x1: v[0]!, y1: v[1]!, x: v[2]!, y: v[3]! }
        if (type === 'C') return { type, x1: v[0]!, y1: v[1]!, x2: v[2]!, y2: v[3]!, x: v[4]!, y: v[5]! }
        if (type === 'Z') return { type }
        return { type: type as 'M' | 'L', x: v[0]!, y: v[1]! }
      })
      this.paths.set(glyph, path)
    }
    return path
  }

  /** Whether the font has a glyph for a character. */
  covers(character: string): boolean {
    return this.font.nominalGlyph(character.codePointAt(0)!) !== undefined
  }
}

/** Throws a WaxError where the bytes are no usable font. */
function faceOf(bytes: Uint8Array, place: string): hb.Face {
  if (bytes.length > LARGEST_FONT_BYTES) {
    const size = Math.round(bytes.length / 1024 / 1024)
    throw new WaxError(
      'font-too-large',
      place,
      `The font has ${size} MB.`,
      'Fonts may have up to 30 MB: use a smaller cut or a subset.',
    )
  }
  const face = isSfnt(bytes) ? new hb.Face(new hb.Blob(bytes)) : null
  if (!face || face.upem <= 0 || !face.referenceTable('cmap') || !hasOutlines(face)) {
    throw new WaxError('not-a-font', place, 'This is no font with outlines.', 'Use a TTF, OTF, WOFF or WOFF2 file.')
  }
  return face
}

/** The signatures of TrueType, Apple TrueType and CFF fonts (OpenType 1.9, "Organization of an OpenType font"). */
function isSfnt(bytes: Uint8Array): boolean {
  const tag = String.fromCharCode(...bytes.subarray(0, 4))
  return tag === '\0\x01\0\0' || tag === 'true' || tag === 'OTTO'
}

function hasOutlines(face: hb.Face): boolean {
  return ['glyf', 'CFF ', 'CFF2'].some((table) => (face.referenceTable(table)?.length ?? 0) > 0)
}
