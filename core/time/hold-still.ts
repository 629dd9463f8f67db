import { listParameters } from '../card/addresses'
import type { Card, Piece } from '../card/schema'
import { allPieces } from '../card/tree'
import type { Frames } from '../units'
import { isMoving } from '../values/moving'
import { evaluateCard } from './evaluate'
import { zonesOf } from './held'

// A hold in which nothing moves can be left at any of its frames, so it lasts exactly as long as is wished. One that moves
// is played whole, or its picture would jump.

const known = new WeakMap<Card, boolean>()

/**
 * Whether the pictures of a hold are alike as far as the card's values tell: none moves, nothing comes or goes, nothing runs by a
 * time of its own. What changes by chance from frame to frame, as grain does, has no step to jump over. True without zones.
 */
export function holdsStill(card: Card): boolean {
  let still = known.get(card)
  if (still === undefined) {
    still = findStill(card)
    known.set(card, still)
  }
  return still
}

function findStill(card: Card): boolean {
  const zones = zonesOf(card)
  if (!zones) return true
  if (allPieces(card.pieces).some((piece) => runsByItself(piece) || changesWithin(piece, zones))) return false
  const moving = listParameters(card).filter(({ value }) => isMoving(value))
  if (moving.length === 0) return true
  const valuesAt = (frame: Frames) => JSON.stringify(evaluateCard(card, frame, moving).map(({ value }) => value))
  const first = valuesAt(zones.hold)
  for (let frame = zones.hold + 1; frame < zones.out; frame++) if (valuesAt(frame) !== first) return false
  return true
}

function runsByItself(piece: Piece): boolean {
  if (piece.kind === 'sequence') return piece.sequence !== null
  if (!('clock' in piece)) return false
  const isDelayed = piece.kind === 'twin' && (isMoving(piece.delay) || piece.delay !== 0)
  return piece.clock !== 'around' || isDelayed
}

const changesWithin = ({ span }: Piece, { hold, out }: { hold: Frames; out: Frames }): boolean =>
  span !== null && [span.in, span.out].some((edge) => edge > hold && edge < out)

/** How many holds a hold of so many frames is: whole ones where the hold moves, one at least. Null without zones. */
export function holdsForHold(card: Card, frames: Frames): number | null {
  const zones = zonesOf(card)
  if (!zones) return null
  const holds = frames / (zones.out - zones.hold)
  return holdsStill(card) ? holds : Math.max(1, Math.round(holds))
}

/** How many holds come nearest to a wished length of the whole run. */
export function holdsFor(card: Card, wished: Frames): number {
  const zones = zonesOf(card)
  return zones ? holdsForHold(card, Math.max(1, wished - card.length + zones.out - zones.hold))! : 1
}
