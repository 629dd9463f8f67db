import { listParameters } from '../card/addresses'
import type { Card } from '../card/schema'
import { isMoving } from '../values/moving'

const known = new WeakMap<Card, boolean>()

/** Whether anything of a card's background moves. Found once for a card. */
export function backgroundMoves(card: Card): boolean {
  const found =
    known.get(card) ??
    listParameters(card).some(({ address, value }) => address.startsWith('background') && isMoving(value))
  known.set(card, found)
  return found
}
