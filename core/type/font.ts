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

/** A TrueType or OpenType font (sfnt) ready for shaping. Shaping and outlines are HarfBuzz's. */
export class Font {
  readonly unitsPerEm: number
  /** Font units. */
  readonly capHeight: number
  readonly family: string
  readonly style: string
  private readonly font: hb.Font
  /** Lines that were shaped before: letter motion asks for the same one at every frame. */
  private readonly shaped = new Kept<string, readonly ShapedGlyph[]>(500)
  private readonly paths = new Map<number, PathCommand[]>()

  /** Throws a WaxError where the bytes are no usable font. `place` names the file for people. */
  constructor(bytes: Uint8Array, place: string) {
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
    this.font = new hb.Font(face)
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

  /** One line of text, left to right in visual order. Optional ligatures only where asked for. */
  shape(line: string, ligatures: boolean): readonly ShapedGlyph[] {
    return this.shaped.of(`${ligatures ? '+' : '-'}${line}`, () => this.shapeLine(line, ligatures))
  }

  /** Runs of one direction are shaped one by one and laid as they stand; each sees what surrounds it. */
  private shapeLine(line: string, ligatures: boolean): ShapedGlyph[] {
    return directedRuns(line).flatMap((run) => this.shapeRun(line, run, ligatures))
  }

  private shapeRun(line: string, { start, end, rightToLeft }: DirectedRun, ligatures: boolean): ShapedGlyph[] {
    const buffer = new hb.Buffer()
    buffer.addText(line, start, end - start)
    buffer.setDirection(rightToLeft ? hb.Direction.RTL : hb.Direction.LTR)
    // Script and language.
    buffer.guessSegmentProperties()
    const off = ligatures ? [] : [new hb.Feature('liga', 0), new hb.Feature('clig', 0)]
    hb.shape(this.font, buffer, off)
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

/** The signatures of TrueType, Apple TrueType and CFF fonts (OpenType 1.9, "Organization of an OpenType font"). */
function isSfnt(bytes: Uint8Array): boolean {
  const tag = String.fromCharCode(...bytes.subarray(0, 4))
  return tag === '\0\x01\0\0' || tag === 'true' || tag === 'OTTO'
}

function hasOutlines(face: hb.Face): boolean {
  return ['glyf', 'CFF ', 'CFF2'].some((table) => (face.referenceTable(table)?.length ?? 0) > 0)
}
