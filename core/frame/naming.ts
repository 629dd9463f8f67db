import type { Piece } from '../card/schema'
import { WaxError } from '../errors'

/** Does work for a piece; what is too much for the card is said to be too much at the piece. */
export function namingPiece<T>(piece: Piece, place: string, work: () => T): T {
  try {
    return work()
  } catch (error) {
    if (!(error instanceof WaxError) || error.fault.place !== 'card') throw error
    const { code, message, remedy } = error.fault
    throw new WaxError(code, place, `“${piece.name}”: ${message}`, remedy)
  }
}
