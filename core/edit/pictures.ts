import { strokesOf } from '../brushes/stroke'
import { withParts } from '../card/parts'
import type { Card, Piece } from '../card/schema'
import { piecesIn } from '../card/tree'

/** The card with other names for its pictures: of pieces, paints, brushes and the background. Names without another one stay. */
export function withPictures(card: Card, names: ReadonlyMap<string, string>): Card {
  const renamed = <T>(value: T): T => {
    if (typeof value !== 'object' || value === null || !('picture' in value)) return value
    const name = typeof value.picture === 'string' ? names.get(value.picture) : undefined
    return name === undefined ? value : { ...value, picture: name }
  }
  const painted = <T extends object>(thing: T): T => {
    const strokes = strokesOf(thing)
    if (!strokes.some(({ tip }) => names.has(tip))) return thing
    return { ...thing, strokes: strokes.map((stroke) => ({ ...stroke, tip: names.get(stroke.tip) ?? stroke.tip })) }
  }
  const visit = (piece: Piece): Piece => {
    const own = withParts(painted(renamed(piece)), (entry) => {
      const values = Object.entries(entry).map(([key, value]) => [key, renamed(value)])
      return painted(Object.fromEntries(values) as typeof entry)
    })
    return 'pieces' in own ? { ...own, pieces: piecesIn(own).map(visit) } : own
  }
  return { ...card, background: renamed(card.background), pieces: card.pieces.map(visit) }
}
