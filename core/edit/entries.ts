import { freeId } from '../card/create'
import type { Part, PartList } from '../card/parts'
import { PART_LISTS, partOf } from '../card/parts'
import type { Card, Finish, Mask, OutlineStep, Piece } from '../card/schema'
import { allPieces } from '../card/tree'
import { withPiece } from './path'

// Edits of the lists that a piece carries, whatever is in them.

/** Families of which a piece carries one list. */
export type EntryFamily = 'step' | 'finish' | 'mask'
export type Entry = OutlineStep | Finish | Mask

const listOf = (family: EntryFamily): PartList => PART_LISTS.find((list) => list.family === family)!

const pieceOf = (card: Card, id: string): Piece | undefined => allPieces(card.pieces).find((piece) => piece.id === id)

/** The entries of a family that a piece carries. */
export const entriesOf = (piece: Piece, family: EntryFamily) => listOf(family).of(piece) as readonly Part[] as Entry[]

/** Whether a piece carries entries of a family: a group has no outline for steps to change. */
export function takesEntries(piece: Piece, family: EntryFamily): boolean {
  const list = listOf(family)
  return list.put(piece, list.of(piece)) !== piece
}

/** Lays a copied entry on a piece: the last to work, or at a given place of the list. */
export function pasteEntry(
  card: Card,
  pieceId: string,
  family: EntryFamily,
  entry: Entry,
  at = 0,
): { card: Card; id: string } {
  const list = listOf(family)
  const id = freeId(card, list.stem(entry))
  const inserted = (entries: readonly Part[]) => [...entries.slice(0, at), { ...entry, id }, ...entries.slice(at)]
  return { id, card: withPiece(card, pieceId, (piece) => list.put(piece, inserted(list.of(piece)))) }
}

/** Gives a piece the entries of another one, in place of its own. */
export function pasteEntries(card: Card, pieceId: string, family: EntryFamily, entries: readonly Entry[]): Card {
  const bare = withPiece(card, pieceId, (piece) => listOf(family).put(piece, []))
  // The first of the list stands in front: it is laid last.
  return [...entries].reverse().reduce((next, entry) => pasteEntry(next, pieceId, family, entry).card, bare)
}

export const removeEntry = (card: Card, pieceId: string, id: string): Card =>
  withList(card, pieceId, id, (entries) => entries.filter((entry) => entry.id !== id))

export const changeEntry = (card: Card, pieceId: string, id: string, change: Partial<Entry>): Card =>
  withList(card, pieceId, id, (entries) =>
    entries.map((entry) => (entry.id === id ? ({ ...entry, ...change } as Part) : entry)),
  )

/** Moves an entry in its list; `to` counts after it was taken out. */
export const moveEntry = (card: Card, pieceId: string, id: string, to: number): Card =>
  withList(card, pieceId, id, (entries) => {
    const entry = entries.find((one) => one.id === id)!
    const rest = entries.filter((one) => one.id !== id)
    return [...rest.slice(0, to), entry, ...rest.slice(to)]
  })

/** A copy right in front of the entry. */
export function duplicateEntry(card: Card, pieceId: string, id: string): { card: Card; id: string } {
  const piece = pieceOf(card, pieceId)
  const found = piece && partOf(piece, id)
  if (!found) return { card, id }
  return pasteEntry(card, pieceId, found.list.family as EntryFamily, found.entry as Entry, found.index)
}

/** The list that an entry stands in, changed; the card as it is where it stands in none. */
function withList(
  card: Card,
  pieceId: string,
  id: string,
  change: (entries: readonly Part[]) => readonly Part[],
): Card {
  const piece = pieceOf(card, pieceId)
  const list = piece && partOf(piece, id)?.list
  return list ? withPiece(card, pieceId, (one) => list.put(one, change(list.of(one)))) : card
}
