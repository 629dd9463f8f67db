import type { LinkFault } from '../card/links'
import { linkFault, lookedAt } from '../card/links'
import type { Card, Piece } from '../card/schema'
import { piecesIn } from '../card/tree'
import { finishOf } from '../finishes/table'
import { MOST_MOMENTS } from '../frame/moments'
import { valuesAt } from '../values/evaluated'
import type { MotionFault } from './motion-faults'
import { momentOf } from '../time/ring'

const WORDS: Record<LinkFault, readonly [string, string]> = {
  missing: ['The piece that is its map is gone.', 'Choose another piece, or a paint.'],
  shapeless: ['Its map is a wash, which has no picture of its own.', 'Choose a piece with a shape, or a paint.'],
  circle: ['Its map leads back to the piece itself.', 'Choose a piece that does not look at this one.'],
}

/** Finishes that do not do what they were meant to: they are passed over, the rest of the card goes on. */
export function finishFaults(card: Card): MotionFault[] {
  const ofList = (pieces: readonly Piece[], copies: number): MotionFault[] => {
    // Back to front: a wash makes copies of all that lies behind it, their own copies included.
    let behind = copies
    return [...pieces].reverse().flatMap((piece) => {
      const own = piece.kind === 'wash' ? behind : copies
      const { faults, count } = ofPiece(card, piece, own)
      if (piece.kind === 'wash') behind = count
      return [...faults, ...ofList(piecesIn(piece), count)]
    })
  }
  return ofList(card.pieces, 1)
}

function ofPiece(card: Card, piece: Piece, copies: number): { faults: MotionFault[]; count: number } {
  let count = copies
  const faults = [...piece.finishes].reverse().flatMap((finish): MotionFault[] => {
    const { label, moments, parameters } = finishOf(finish.kind)
    const place = {
      address: `${piece.id}/${finish.id}`,
      label: `${piece.name} · ${finish.name || label.toLowerCase()}`,
      motor: null,
    }
    const map = lookedAt(finish)
    const fault = map ? linkFault(card, piece.id, map) : null
    if (fault) return [{ ...place, message: WORDS[fault][0], remedy: WORDS[fault][1] }]
    const asked = moments?.(valuesAt(parameters, finish, momentOf(card, 0)) as never).length ?? 0
    if (asked > 0) count *= asked
    if (asked === 0 || count <= MOST_MOMENTS) return []
    return [
      {
        ...place,
        message: `With the copies behind it ${count} pictures would be made for one; beyond ${MOST_MOMENTS} they are left out.`,
        remedy: 'Use fewer copies, or trails on fewer pieces and washes.',
      },
    ]
  })
  return { faults, count }
}
