import type { Card, Piece } from '../card/schema'
import { linkFault } from '../card/links'
import { allPieces, holdersOf, pathTo } from '../card/tree'
import type { Picture } from '../kernels/kernels'
import type { Placement } from '../outline/outline'
import { insideOf } from '../time/clock'
import type { GridBox } from './grid-box'
import { isolated } from './isolated'
import type { Drawing } from './piece'
import { standingOf } from './piece'

/** Another piece as it stands on the card, alone, shown or not; null where it cannot be looked at. */
export function pieceAlone(
  drawing: Drawing,
  from: Piece,
  id: string,
  box: GridBox,
  /** What is drawn in its place. */
  as: (piece: Piece) => Piece = (piece) => piece,
): Picture | null {
  const { card, contents, finished } = drawing
  if (linkFault(card, from.id, id)) return null
  const found = standingAlone(card, id, drawing)
  if (!found) return null
  const plan = drawing.lists.plan(drawing, as(found.piece), found.parent, found.place, found.at)
  const { x, y, w, h } = box
  const name = contents.name(`alone ${plan.name()} ${JSON.stringify(found.parent)} ${x} ${y} ${w} ${h}`)
  return finished.of(name, () => isolated(drawing, { box, visible: box, name }, (canvas) => plan.lay(canvas)))
}

const shown = new WeakMap<Piece, Piece>()

/** A piece that is shown in any case, where the pieces that hold it put it. */
function standingAlone(card: Card, id: string, drawing: Drawing) {
  const way = pathTo(card.pieces, id)
  const piece = allPieces(card.pieces).find((one) => one.id === id)
  if (!way || !piece) return null
  let parent: Placement = { scale: drawing.scale, rotation: 0, x: 0, y: 0 }
  let at = drawing.at
  let place = `pieces[${way[0]}]`
  for (const [i, holder] of holdersOf(card.pieces, id).entries()) {
    const standing = standingOf({ ...holder, on: true, span: null, opacity: 100 }, parent, at)
    if (!standing) return null
    parent = standing.placement
    at = insideOf(holder, standing.at)
    place += `.pieces[${way[i + 1]}]`
  }
  const there = shown.get(piece) ?? { ...piece, on: true, span: null }
  shown.set(piece, there)
  return { piece: there, parent, at, place }
}
