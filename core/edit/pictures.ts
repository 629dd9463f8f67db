import { withParts } from '../card/parts'
import type { Card, Piece } from '../card/schema'
import { piecesIn } from '../card/tree'

/** The card with other names for its pictures: of pieces, paints and the background. Names without another one stay. */
export function withPictures(card: Card, names: ReadonlyMap<string, string>): Card {
  const renamed = <T>(value: T): T => {
    if (typeof value !== 'object' || value === null || !('picture' in value)) return value
    const name = typeof value.picture === 'string' ? names.get(value.picture) : undefined
    return name === undefined ? value : { ...value, picture: name }
  }
  const visit = (piece: Piece): Piece => {
    const own = withParts(
      renamed(piece),
      (entry) => Object.fromEntries(Object.entries(entry).map(([key, value]) => [key, renamed(value)])) as typeof entry,
    )
    return 'pieces' in own ? { ...own, pieces: piecesIn(own).map(visit) } : own
  }
  return { ...card, background: renamed(card.background), pieces: card.pieces.map(visit) }
}
