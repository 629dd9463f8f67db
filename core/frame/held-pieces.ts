import { PLACE_PARAMETERS } from '../pieces/place'
import type { Piece, TwinPiece } from '../card/schema'
import { holdsPieces } from '../card/tree'
import { PIECE_KINDS } from '../pieces/table'
import { insideOf } from '../time/clock'
import { valuesAt } from '../values/evaluated'
import { within as placedIn } from '../outline/outline'
import { fittedOf } from './fitted'
import { shifted, within } from './open-list'
import type { FoundPiece } from './other-piece'
import { foundPiece } from './other-piece'
import type { Drawing, Standing } from './piece'

// What lies in a piece: those of a group, and the one that a twin shows again.

const isTwin = (piece: Piece): piece is TwinPiece => PIECE_KINDS[piece.kind].holds === 'another'

/** Whether a piece is made of others. */
export const holdsOthers = (piece: Piece): boolean => holdsPieces(piece) || isTwin(piece)

/** The pieces that a piece is made of, front first, as it shows them. */
export function heldPieces(drawing: Drawing, standing: Standing, place: string): FoundPiece[] {
  const { piece } = standing
  if (isTwin(piece)) {
    const shown = shownBy(drawing, standing, piece)
    return shown ? [shown] : []
  }
  if (!holdsPieces(piece)) return []
  const inside = within(drawing, standing, place)
  return piece.pieces.map((inner, i) => ({ piece: inner, drawing: inside, place: `${inside.list.path}[${i}]` }))
}

/** The piece that a twin shows, in the twin's own space. What that one looks at in turn is shown along with it. */
function shownBy(drawing: Drawing, { at, placement }: Standing, twin: TwinPiece): FoundPiece | null {
  if (twin.source === null) return null
  const by = insideOf(twin, at).frame - drawing.list.at.frame
  const around = shifted(drawing.list, by)
  const found = foundPiece({ ...drawing, list: around }, twin.id, twin.source)
  if (!found) return null
  const { list } = found.drawing
  const { x, y } = { ...valuesAt(PLACE_PARAMETERS, found.piece, list.at), ...fittedOf(found.piece, list.at) }
  const parent = twin.way === 'with' ? placement : placedIn(placement, { x: -x, y: -y, rotation: 0, scale: 1 })
  return { ...found, drawing: { ...found.drawing, list: { ...list, parent, around } } }
}
