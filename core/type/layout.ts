import type { PathCommand } from '../outline/contour'
import type { Font } from './font'

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
}

/**
 * The glyphs of a text at size 1 (1 em = 1 unit). The origin is the piece's place: its x is the edge or middle that
 * the lines are aligned to, its y the middle between the first line's cap height and the last baseline.
 */
export function setType(font: Font, { wording, tracking, leading, align }: TypeSetting): SetGlyph[] {
  const em = font.unitsPerEm
  const pitch = leading / 100
  const lines = wording.split('\n')
  const first = (font.capHeight / em - (lines.length - 1) * pitch) / 2
  return lines.flatMap((line, i) => {
    const glyphs = trackedLine(font, line, tracking)
    const width = glyphs.reduce((sum, glyph) => sum + glyph.advance, 0)
    const baseline = first + i * pitch
    let pen = align === 'left' ? 0 : align === 'right' ? -width : -width / 2
    return glyphs.map((glyph) => {
      const set = { id: glyph.id, x: pen + glyph.dx / em, y: baseline - glyph.dy / em }
      pen += glyph.advance
      return set
    })
  })
}

/** Width of a line's advances at size 1; the space after the last cluster is not tracked. */
export function lineWidth(font: Font, line: string, tracking: number): number {
  return trackedLine(font, line, tracking).reduce((sum, glyph) => sum + glyph.advance, 0)
}

function trackedLine(font: Font, line: string, tracking: number) {
  // CSS Text 3 §8.2: no optional ligatures where letters are spaced.
  const glyphs = font.shape(line, tracking === 0)
  return glyphs.map((glyph, i) => {
    const next = glyphs[i + 1]
    const endsCluster = next !== undefined && next.cluster !== glyph.cluster
    return { ...glyph, advance: glyph.advance / font.unitsPerEm + (endsCluster ? tracking / 1000 : 0) }
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
