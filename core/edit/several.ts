import { allPieces } from '../card/tree'
import { listParameters, listPieceParameters } from '../card/addresses'
import type { Part, PartList } from '../card/parts'
import { partOf, partsOf } from '../card/parts'
import type { Card, Piece } from '../card/schema'
import type { Frames } from '../units'
import { writeValue } from './values'

// Several pieces at once: one value goes to all of them that have it.

/** What an address stands for, whatever the piece: a value of its own, or of an entry in one of its lists. */
export interface ValueName {
  /** Which entry: of the family, alike, and its number among those that are alike. */
  part: { family: PartList['family']; likeness: string; ordinal: number } | null
  /** The rest of the address. */
  rest: string
}

/** Null for what belongs to the card and not to a piece, or to a piece that is gone. */
export function nameOf(card: Card, address: string): ValueName | null {
  const [head = '', second = '', ...rest] = address.split('/')
  const own = allPieces(card.pieces).find(({ id }) => id === head)
  if (!own) return null
  const part = partOf(own, second)
  if (!part) return { part: null, rest: [second, ...rest].join('/') }
  const { list, entry } = part
  const likeness = list.likeness(entry)
  const ordinal = alike(own, list.family, likeness).findIndex(({ id }) => id === second)
  return { part: { family: list.family, likeness, ordinal }, rest: rest.join('/') }
}

/** The address of the same thing on a piece; null where the piece does not have it. */
export function addressOn(piece: Piece, { part, rest }: ValueName): string | null {
  const twin = part && alike(piece, part.family, part.likeness)[part.ordinal]
  if (part && !twin) return null
  const address = [piece.id, ...(twin ? [twin.id] : []), rest].join('/')
  return listPieceParameters(piece).some((place) => place.address === address) ? address : null
}

/** The entries of a family that are alike, through all its lists. */
const alike = (piece: Piece, family: PartList['family'], likeness: string): Part[] =>
  partsOf(piece)
    .filter(({ list, entry }) => list.family === family && list.likeness(entry) === likeness)
    .map(({ entry }) => entry)

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
