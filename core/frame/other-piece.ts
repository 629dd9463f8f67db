import { linkFault } from '../card/links'
import type { Piece } from '../card/schema'
import { allPieces, holdersOf, pathTo } from '../card/tree'
import type { Picture } from '../kernels/kernels'
import type { LinkUse } from '../values/parameter-kinds'
import type { GridBox } from './grid-box'
import { isolated } from './isolated'
import { within } from './open-list'
import type { Drawing } from './piece'
import { standingOf } from './piece'
import type { PlannedPiece } from './still-runs'

// Another piece of the card, as one sees it from a list that is being drawn: where and when that list is shown, whether the other
// one is shown itself or not.

/** A piece in its own list. */
export interface FoundPiece {
  piece: Piece
  /** Its list is open. */
  drawing: Drawing
  place: string
}

/** Another piece and its list, in step with the one that is open; null where it cannot be looked at. */
export function foundPiece(drawing: Drawing, from: string, id: string, use: LinkUse = 'picture'): FoundPiece | null {
  const { card } = drawing
  if (linkFault(card, from, id, use) !== null) return null
  const way = pathTo(card.pieces, id)!
  const piece = allPieces(card.pieces).find((one) => one.id === id)!
  const holders = holdersOf(card.pieces, id)
  // The innermost list that holds both.
  let { list } = drawing
  while (list.holder !== null && !holders.some(({ id }) => id === list.holder)) list = list.around!
  let there = { ...drawing, list }
  const entered = holders.findIndex((holder) => holder.id === list.holder) + 1
  for (const [i, holder] of holders.entries()) {
    if (i < entered) continue
    const standing = standingOf({ ...holder, on: true, span: null, opacity: 100 }, there.list.parent, there.list.at)
    if (!standing) return null
    there = within(there, standing, `${there.list.path}[${way[i]}]`)
  }
  return { piece: shownAnyway(piece), drawing: there, place: `${there.list.path}[${way.at(-1)}]` }
}

const shown = new WeakMap<Piece, Piece>()

/** A piece that is seen whenever it is asked for. */
function shownAnyway(piece: Piece): Piece {
  const there = shown.get(piece) ?? { ...piece, on: true, span: null }
  shown.set(piece, there)
  return there
}

/** How a found piece is laid. */
export const planFound = ({ piece, drawing, place }: FoundPiece): PlannedPiece =>
  drawing.lists.plan(drawing, piece, place)

/** The picture of a found piece alone, in a box. */
export function pictureOf(found: FoundPiece, box: GridBox): Picture {
  const { contents, finished, list } = found.drawing
  const plan = planFound(found)
  const { x, y, w, h } = box
  const name = contents.name(`alone ${plan.name()} ${JSON.stringify(list.parent)} ${x} ${y} ${w} ${h}`)
  return finished.of(name, () => isolated(found.drawing, { box, visible: box, name }, (canvas) => plan.lay(canvas)))
}

/** Another piece alone, in a box; null where it cannot be looked at. */
export function pieceAlone(drawing: Drawing, from: string, id: string, box: GridBox): Picture | null {
  const found = foundPiece(drawing, from, id)
  return found && pictureOf(found, box)
}
