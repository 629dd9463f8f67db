import type { Piece } from '../card/schema'
import type { Px, Rect } from '../units'
import { washScale } from './finish-scale'
import type { Shot } from './finished-piece'
import { boundsOf, planFinished, shotOf } from './finished-piece'
import { joined } from './grid-box'
import type { Stratum } from './ground'
import { looksOf, momentsOf, washFinishes } from './laid-finishes'
import { movedFor } from './moments'
import type { Drawing, Lists } from './piece'
import { isSeen } from './piece'
import { planPlain, touchesPlainly } from './plain-piece'
import type { Behind } from './planned-wash'
import { planWash, washedBounds } from './planned-wash'
import type { PlannedPiece } from './still-runs'
import { joinStill } from './still-runs'

// How each piece of a list will be laid: plainly, or on a canvas of its own where it has finishes; and washes, which treat
// what lies behind them.

/** The pieces of an open list, front first, and what they lie on. */
export interface PieceList {
  pieces: readonly Piece[]
  /** What lies behind all of them. */
  ground?: (drawing: Drawing) => Stratum[]
  /** Whether that moves. */
  shifting?: boolean
}

/** All that a list lays from an entry on backward, back to front. */
export function strataOf(drawing: Drawing, list: PieceList, from = 0): Stratum[] {
  const ground = list.ground?.(drawing) ?? []
  return [...ground, ...joinStill(drawing, plannedPieces(drawing, list, from), list.shifting ?? false)]
}

/** The pieces of a list that are seen, from an entry on backward, back to front. */
function plannedPieces(drawing: Drawing, list: PieceList, from = 0): PlannedPiece[] {
  const { pieces } = list
  const { at, path } = drawing.list
  const planned: PlannedPiece[] = []
  for (let i = pieces.length - 1; i >= from; i--) {
    const piece = pieces[i]!
    // It comes and goes with the frame, whatever the shutter does.
    if (!isSeen(piece, at)) continue
    const place = `${path}[${i}]`
    planned.push(
      piece.kind === 'wash' ? planWash(drawing, piece, behindOf(list, i), place) : planPiece(drawing, piece, place),
    )
  }
  return planned
}

/** What lies behind an entry of a list. */
const behindOf = (list: PieceList, index: number): Behind => ({
  strata: (drawing) => strataOf(drawing, list, index + 1),
  touched: (drawing) => LISTS.touched(drawing, list.pieces.slice(index + 1)),
  seen(drawing) {
    // What a group holds is needed whole.
    if (!drawing.part || !list.ground) return null
    const looks = LISTS.looks(drawing, list.pieces.slice(0, index))
    if (!Number.isFinite(looks)) return null
    const by = Math.ceil(looks / 16) * 16
    const { x, y, w, h } = drawing.part
    return { x: x - by, y: y - by, w: (w + 2 * by + 15) & ~15, h: h + 2 * by }
  },
})

/** What groups ask of the lists that they hold. */
export const LISTS: Lists = {
  plan: planPiece,
  lay(drawing, pieces, canvas) {
    for (const planned of plannedPieces(drawing, { pieces })) planned.lay(canvas)
  },
  touched(drawing, pieces) {
    const { at, path } = drawing.list
    let all: Rect | null = null
    for (let i = pieces.length - 1; i >= 0; i--) {
      const piece = pieces[i]!
      if (!isSeen(piece, at)) continue
      const place = `${path}[${i}]`
      if (piece.kind !== 'wash') all = joined(all, touches(drawing, piece, place))
      else all = washedBounds(drawing, piece, all, (there) => LISTS.touched(there, pieces.slice(i + 1)))
    }
    return all
  },
  looks(drawing, pieces) {
    const { at } = drawing.list
    let need: Px = 0
    for (let i = pieces.length - 1; i >= 0; i--) {
      const piece = pieces[i]!
      if (piece.kind !== 'wash' || !isSeen(piece, at)) continue
      const finishes = washFinishes(piece, at)
      const others = finishes.flatMap((finish) =>
        momentsOf(finish).map((frames) => {
          const there = movedFor(drawing, finish, frames)
          return there ? LISTS.looks(there, pieces.slice(i + 1)) : 0
        }),
      )
      need = looksOf(finishes, washScale(drawing)) + Math.max(need, ...others)
    }
    return need
  },
}

/** A piece that is seen, as it will be laid. */
function planPiece(drawing: Drawing, piece: Piece, place: string): PlannedPiece {
  const shot = shotIfWorked(drawing, piece, place)
  return shot ? planFinished(shot) : planPlain(drawing, piece, place)
}

/** What a piece can touch, its finishes included. */
function touches(drawing: Drawing, piece: Piece, place: string): Rect | null {
  const shot = shotIfWorked(drawing, piece, place)
  return shot ? boundsOf(shot) : touchesPlainly(drawing, piece, place)
}

/** What is worked on after its coats: a piece with finishes, or one that is woven or masked where those would have worked. */
function shotIfWorked(drawing: Drawing, piece: Piece, place: string): Shot | null {
  if (piece.finishes.length === 0 && piece.weave === null) return null
  const shot = shotOf(drawing, piece, place)
  return shot && (shot.finishes.length > 0 || shot.weave || shot.masked) ? shot : null
}
