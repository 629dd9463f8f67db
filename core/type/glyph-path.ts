import type { PathCommand } from '../outline/contour'
import type { Font } from './font'

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
