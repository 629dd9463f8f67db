import { boundsOf } from '../extent'
import { allPieces } from '../card/tree'
import type { Piece } from '../card/schema'
import type { Placement } from '../outline/outline'
import { place as onCard } from '../outline/outline'
import type { Point, Px, Rect } from '../units'
import { holdsPieces } from '../card/tree'
import { inkOf, inkWithin, sideOf } from './group'
import { holdsOthers } from './held-pieces'
import { joined } from './grid-box'
import type { Drawing } from './piece'
import { formOf } from './form'
import type { LetterBox } from './set-words'
import { namingPiece } from './naming'
import { within } from './open-list'
import { standingOf } from './piece'

/** Where a piece stands, for handles on the stage. Card pixels. */
export interface PieceOutlook {
  id: string
  /** The corners of its ink bounds, turned with the piece: top left, top right, bottom right, bottom left. */
  corners: [Point, Point, Point, Point]
  /** Where its anchor stands. */
  place: Point
  /** What those corners span on the card. */
  bounds: Rect
  /** Ink bounds in the piece's own space: px before its scale, turn and place. */
  own: Rect
  /** From the piece's own space to the card. */
  placement: Placement
  /** Where its place counts from: the card's own corner, or the groups that it lies in. */
  parent: Placement
  /** What 100 % of a coat's length stands for, in card px before the piece's scale. */
  reference: Px
  /** Its opacity times that of the groups that it lies in, 0–1: 0 where it is not seen at that frame. */
  opacity: number
  /** Of type: its letters at rest, in its own px, and what has no room or no glyph. */
  type?: { letters: LetterBox[]; overflows: boolean; missing: string[] }
}

/** Where every piece stands, those in groups too, front first. Pieces without ink have all corners at their place. */
export function outlookOf(drawing: Drawing): PieceOutlook[] {
  const { card } = drawing
  const found: PieceOutlook[] = []
  const visit = (here: Drawing, pieces: readonly Piece[], above: number): Rect | null => {
    const { parent, path, at: now } = here.list
    let all: Rect | null = null
    pieces.forEach((piece, i) => {
      // A wash has no shape to take hold of.
      if (piece.kind === 'wash') return
      const place = `${path}[${i}]`
      // A piece that is off, clear or not seen now still has handles.
      const standing = standingOf({ ...piece, on: true, opacity: 100, span: null }, parent, now)
      if (!standing) return
      const { placement, anchor } = standing
      const opacity = above * (standingOf(piece, parent, now)?.opacity ?? 0)
      const empty = { left: 0, top: 0, right: 0, bottom: 0 }
      const spot = { left: anchor.x, top: anchor.y, right: anchor.x, bottom: anchor.y }
      const entry: PieceOutlook = {
        ...{ id: piece.id, place: anchor, placement, parent, own: empty, bounds: spot, reference: 0, opacity },
        corners: [anchor, anchor, anchor, anchor],
      }
      found.push(entry)
      const span = (own: Rect, full: Placement, units: Px) => {
        const corner = (x: number, y: number) => onCard(full, { x, y })
        const { left, top, right, bottom } = own
        entry.corners = [corner(left, top), corner(right, top), corner(right, bottom), corner(left, bottom)]
        entry.own = { left: left * units, top: top * units, right: right * units, bottom: bottom * units }
        entry.bounds = boundsOf(entry.corners)
      }
      if (holdsOthers(piece)) {
        const inner = holdsPieces(piece)
          ? visit(within(here, standing, place), piece.pieces, opacity)
          : inkWithin(here, standing, place)
        const ink = inkOf(here, standing, place)
        if (!inner || !ink) return
        span(ink, { ...placement, scale: 1 }, 1 / placement.scale)
        entry.reference = sideOf(ink) / placement.scale
        all = joined(all, inner)
        return
      }
      const { outlines } = drawing
      if (piece.kind === 'type')
        entry.type = namingPiece(piece, place, () => ({
          letters: outlines.words.letterBoxes(piece, standing.at, place),
          ...outlines.words.typeState(piece, standing.at, place),
        }))
      const form = namingPiece(piece, place, () => formOf(here, standing, place))
      if (!form) return
      const { bounds, placement: full } = form.hook
      span(bounds, full, full.scale / placement.scale)
      entry.reference = form.reference / placement.scale
      all = joined(all, form.bounds)
    })
    return all
  }
  visit(drawing, card.pieces, 1)
  const order = allPieces(card.pieces).map(({ id }) => id)
  return found.sort((a, b) => order.indexOf(a.id) - order.indexOf(b.id))
}
