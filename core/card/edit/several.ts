import { allPieces } from '../tree'
import { listParameters, listPieceParameters } from '../addresses'
import type { Card, Coat, Piece } from '../schema'
import type { Frames } from '../../units'
import { writeValue } from './values'

// Several pieces at once: one value goes to all of them that have it.

/** What an address stands for, whatever the piece: a value of its own, or of its coat of a kind, side and number. */
export interface ValueName {
  coat: { kind: string; side: unknown; ordinal: number } | null
  /** The number of its range of letter motion. */
  range?: number
  /** The rest of the address. */
  rest: string
}

/** Null for what belongs to the card and not to a piece, or to a piece that is gone. */
export function nameOf(card: Card, address: string): ValueName | null {
  const [head = '', second = '', ...rest] = address.split('/')
  const own = allPieces(card.pieces).find(({ id }) => id === head)
  if (!own) return null
  const coat = coatsOf(own).find(({ id }) => id === second)
  const range = rangesOf(own).findIndex(({ id }) => id === second)
  if (range >= 0) return { coat: null, range, rest: rest.join('/') }
  if (!coat) return { coat: null, rest: [second, ...rest].join('/') }
  return { coat: { kind: coat.kind, side: coat.side, ordinal: ordinal(own, coat) }, rest: rest.join('/') }
}

/** The address of the same thing on a piece; null where the piece does not have it. */
export function addressOn(piece: Piece, { coat, range, rest }: ValueName): string | null {
  const twin = coat ? coatsOf(piece).filter((c) => sameKind(c, coat))[coat.ordinal] : null
  if (coat && !twin) return null
  const sameRange = range === undefined ? null : rangesOf(piece)[range]
  if (range !== undefined && !sameRange) return null
  const address = [piece.id, ...(twin ? [twin.id] : []), ...(sameRange ? [sameRange.id] : []), rest].join('/')
  return listPieceParameters(piece).some((place) => place.address === address) ? address : null
}

/**
 * The addresses that stand for the same thing on other pieces: `a/x` is `b/x` on b; a coat's values are those of the
 * coat of the same kind, side and number in the stack. The address itself comes first; pieces without it are left out.
 */
export function sharedAddresses(card: Card, address: string, ids: readonly string[]): string[] {
  const name = nameOf(card, address)
  if (!name) return [address]
  const [head] = address.split('/')
  const others = allPieces(card.pieces).filter(({ id }) => id !== head && ids.includes(id))
  return [address, ...others.flatMap((other) => addressOn(other, name) ?? [])]
}

const rangesOf = (piece: Piece) => (piece.kind === 'type' ? piece.ranges : [])
const coatsOf = ({ coats }: Piece): Coat[] => [...coats.face, ...coats.behind]
const sameKind = (a: Coat, b: Pick<Coat, 'kind'> & { side?: unknown }) => a.kind === b.kind && a.side === b.side
const ordinal = (piece: Piece, coat: Coat) =>
  coatsOf(piece)
    .filter((other) => sameKind(other, coat))
    .indexOf(coat)

/** Writes one value at several addresses, as `writeValue` does at one. */
export function writeShared(card: Card, addresses: readonly string[], frame: Frames, value: unknown): Card {
  return addresses.reduce((next, address) => writeValue(next, address, frame, value), card)
}

/** Whether the stored values at these addresses differ. */
export function differs(card: Card, addresses: readonly string[]): boolean {
  if (addresses.length < 2) return false
  const values = listParameters(card)
    .filter((place) => addresses.includes(place.address))
    .map((place) => JSON.stringify(place.value))
  return new Set(values).size > 1
}
