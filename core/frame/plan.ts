import type { Piece } from '../card/schema'
import type { Placement } from '../outline/outline'
import type { Moment } from '../values/moment'
import { movedTo } from '../values/moment'
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

/** A list of pieces, front first, and what it lies on. */
export interface PieceList {
  pieces: readonly Piece[]
  /** Where their places count from. */
  parent: Placement
  /** Where the list stands in the card. */
  path: string
  /** What lies behind all of them. */
  ground?: (drawing: Drawing) => Stratum[]
  /** Whether that moves. */
  shifting?: boolean
}

/** All that a list lays from an entry on backward, back to front. */
export function strataOf(drawing: Drawing, list: PieceList, from = 0, at = drawing.at): Stratum[] {
  const ground = list.ground?.(drawing) ?? []
  return [...ground, ...joinStill(drawing, plannedPieces(drawing, list, from, at), list.shifting ?? false)]
}

/** The pieces of a list that are seen, from an entry on backward, back to front. */
function plannedPieces(drawing: Drawing, list: PieceList, from: number, at: Moment): PlannedPiece[] {
  const { pieces, parent, path } = list
  const planned: PlannedPiece[] = []
  for (let i = pieces.length - 1; i >= from; i--) {
    const piece = pieces[i]!
    // It comes and goes with the frame, whatever the shutter does.
    if (!isSeen(piece, at)) continue
    const place = `${path}[${i}]`
    planned.push(
      piece.kind === 'wash'
        ? planWash(drawing, piece, behindOf(list, i), place, at)
        : planPiece(drawing, piece, parent, place, at),
    )
  }
  return planned
}

/** What lies behind an entry of a list. */
const behindOf = (list: PieceList, index: number): Behind => ({
  strata: (drawing, at) => strataOf(drawing, list, index + 1, at),
  touched: (drawing, at) => LISTS.touched(drawing, list.pieces.slice(index + 1), list.parent, list.path, at),
  seen(drawing, at) {
    // What a group holds is needed whole.
    if (!drawing.part || !list.ground) return null
    const looks = LISTS.looks(drawing, list.pieces.slice(0, index), at)
    if (!Number.isFinite(looks)) return null
    const by = Math.ceil(looks / 16) * 16
    const { x, y, w, h } = drawing.part
    return { x: x - by, y: y - by, w: (w + 2 * by + 15) & ~15, h: h + 2 * by }
  },
})

/** What groups ask of the lists that they hold. */
export const LISTS: Lists = {
  plan: planPiece,
  lay(drawing, pieces, parent, canvas, path, at) {
    for (const planned of plannedPieces(drawing, { pieces, parent, path }, 0, at)) planned.lay(canvas)
  },
  touched(drawing, pieces, parent, path, at) {
    let all: Rect | null = null
    for (let i = pieces.length - 1; i >= 0; i--) {
      const piece = pieces[i]!
      if (!isSeen(piece, at)) continue
      const place = `${path}[${i}]`
      if (piece.kind !== 'wash') all = joined(all, touches(drawing, piece, parent, at, place))
      else
        all = washedBounds(drawing, piece, at, all, (there, now) =>
          LISTS.touched(there, pieces.slice(i + 1), parent, path, now),
        )
    }
    return all
  },
  looks(drawing, pieces, at) {
    let need: Px = 0
    for (let i = pieces.length - 1; i >= 0; i--) {
      const piece = pieces[i]!
      if (piece.kind !== 'wash' || !isSeen(piece, at)) continue
      const finishes = washFinishes(piece, at)
      const others = finishes.flatMap((finish) =>
        momentsOf(finish).map((frames) => {
          const there = movedFor(drawing, finish, frames)
          return there ? LISTS.looks(there, pieces.slice(i + 1), movedTo(at, at.frame + frames)) : 0
        }),
      )
      need = looksOf(finishes, washScale(drawing)) + Math.max(need, ...others)
    }
    return need
  },
}

/** A piece that is seen, as it will be laid. */
function planPiece(drawing: Drawing, piece: Piece, parent: Placement, place: string, at: Moment): PlannedPiece {
  const shot = shotIfWorked(drawing, piece, parent, place, at)
  return shot ? planFinished(shot) : planPlain(drawing, piece, parent, place, at)
}

/** What a piece can touch, its finishes included. */
function touches(drawing: Drawing, piece: Piece, parent: Placement, at: Moment, place: string): Rect | null {
  const shot = shotIfWorked(drawing, piece, parent, place, at)
  return shot ? boundsOf(shot) : touchesPlainly(drawing, piece, parent, at, place)
}

/** What is worked on after its coats: a piece with finishes, or one that is woven. */
function shotIfWorked(drawing: Drawing, piece: Piece, parent: Placement, place: string, at: Moment): Shot | null {
  if (piece.finishes.length === 0 && piece.weave === null) return null
  const shot = shotOf(drawing, piece, parent, place, at)
  return shot && (shot.finishes.length > 0 || shot.weave) ? shot : null
}
