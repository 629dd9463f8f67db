import { coatOf } from '../coats/table'
import type { DepthGroup } from '../coats/definition'
import { createCoat, createPiece, firstFree, freeId, takenIds } from '../card/create'
import { withParts } from '../card/parts'
import type { PieceKind } from '../pieces/table'
import { PLACE_PARAMETERS } from '../pieces/place'
import { PIECE_KINDS } from '../pieces/table'
import type { Parameters } from '../values/parameter-kinds'
import type { Card, Coat, Piece, TypePiece } from '../card/schema'
import { allPieces, holdsPieces, pathTo, piecesIn, replacePiece } from '../card/tree'
import { withPiece } from './path'

// Edits of the stack: pieces and their coats.

/** A new piece in front of all others. */
export function addPiece(card: Card, kind: PieceKind): { card: Card; id: string } {
  const piece = createPiece(kind, card)
  const same = allPieces(card.pieces).filter((other) => other.kind === kind).length
  const named = { ...piece, name: same === 0 ? piece.name : `${piece.name} ${same + 1}` }
  const placed = named.kind === 'type' ? { ...named, y: freeLine(card, named) } : named
  return { card: { ...card, pieces: [placed, ...card.pieces] }, id: piece.id }
}

/** Share of their size by which lines of words lie beneath each other. */
const LEADING = 1.2

/** Where new words stand: in the middle, or in a line beneath those that stand there already, as long as it is in the frame. */
function freeLine(card: Card, { x, y, size }: TypePiece): TypePiece['y'] {
  if (typeof y !== 'number' || typeof size !== 'number') return y
  const taken = new Set(card.pieces.filter((other) => other.kind === 'type' && other.x === x).map((other) => other.y))
  let line = y
  while (taken.has(line)) line = Math.round(line + size * LEADING)
  return line + size / 2 <= card.frame.height ? line : y
}

export function removePiece(card: Card, id: string): Card {
  return { ...card, pieces: replacePiece(card.pieces, id, () => []) }
}

/** A copy in front of the original, with ids of its own. */
export function duplicatePiece(card: Card, id: string): { card: Card; id: string } {
  const original = allPieces(card.pieces).find((piece) => piece.id === id)
  if (!original) return { card, id }
  const [copy] = renewed(card, [original])
  const named = { ...copy!, name: `${original.name}, copy`.slice(0, 200) }
  return { card: { ...card, pieces: replacePiece(card.pieces, id, (piece) => [named, piece]) }, id: named.id }
}

/** Lays copied pieces in front of all others, with ids of their own. */
export function pastePieces(card: Card, pieces: readonly Piece[]): { card: Card; ids: string[] } {
  const copies = renewed(card, pieces)
  return { card: { ...card, pieces: [...copies, ...card.pieces] }, ids: copies.map(({ id }) => id) }
}

/** A copy of a piece with ids of its own. */
export const copyOf = (card: Card, piece: Piece): Piece => renewed(card, [piece])[0]!

/** Copies with ids that nothing on the card has. */
function renewed(card: Card, pieces: readonly Piece[]): Piece[] {
  const taken = takenIds(card)
  const fresh = (kind: string) => {
    const made = firstFree(taken, kind)
    taken.add(made)
    return made
  }
  const ids = new Map<string, string>()
  const copied = (piece: Piece): Piece => {
    const id = fresh(piece.kind)
    ids.set(piece.id, id)
    const copy = { ...withParts(piece, (entry, list) => ({ ...entry, id: fresh(list.stem(entry)) })), id }
    return holdsPieces(copy) ? { ...copy, pieces: copy.pieces.map(copied) } : copy
  }
  const copies = pieces.map(copied)
  return copies.map((copy) => relinked(copy, (id) => ids.get(id) ?? id))
}

/** What was copied together keeps together: a copied bar fits the copied words, a copied picture is seen within them. */
function relinked(piece: Piece, to: (id: string) => string): Piece {
  const linked = <T extends object>(of: T, parameters: Parameters): T => {
    const links = Object.entries(parameters).flatMap(([name, { type }]): [string, unknown][] => {
      const value = (of as Record<string, unknown>)[name]
      if (type === 'piece' && typeof value === 'string') return [[name, to(value)]]
      return type === 'pieces' && Array.isArray(value) ? [[name, value.map(to)]] : []
    })
    return links.length > 0 ? { ...of, ...Object.fromEntries(links) } : of
  }
  const placed = linked(piece, { ...PLACE_PARAMETERS, ...PIECE_KINDS[piece.kind].parameters })
  const own = withParts(placed, (entry, list) => linked(entry, list.parameters(entry)))
  return holdsPieces(own) ? { ...own, pieces: own.pieces.map((inner) => relinked(inner, to)) } : own
}

/**
 * Moves a piece: among its neighbours, or into the list of another group (`group`; null is the card's own list). `to`
 * is the place in that list after the piece was taken out. A group is never put into itself.
 */
export function movePiece(card: Card, id: string, to: number, group?: string | null): Card {
  const piece = allPieces(card.pieces).find((other) => other.id === id)
  if (!piece || (group && (group === id || pathTo(piecesIn(piece), group)))) return card
  const target = group === undefined ? parentOf(card.pieces, id) : group
  const without = replacePiece(card.pieces, id, () => [])
  const inserted = (list: readonly Piece[]) => [...list.slice(0, to), piece, ...list.slice(to)]
  if (target === null) return { ...card, pieces: inserted(without) }
  const pieces = replacePiece(without, target, (owner) =>
    holdsPieces(owner) ? [{ ...owner, pieces: inserted(owner.pieces) }] : [owner],
  )
  return { ...card, pieces }
}

/** The group whose own list holds a piece; null for the card. */
function parentOf(pieces: readonly Piece[], id: string): string | null {
  const owner = allPieces(pieces).find((piece) => piecesIn(piece).some((p) => p.id === id))
  return owner?.id ?? null
}

export function changePiece(card: Card, id: string, change: Partial<Piece>): Card {
  return withPiece(card, id, (piece) => ({ ...piece, ...change }) as Piece)
}

/** Pours a new coat: in front of its group, or at a given place. */
export function addCoat(
  card: Card,
  pieceId: string,
  kind: string,
  options: { side?: string; group?: DepthGroup; at?: number } = {},
): { card: Card; id: string } {
  const plain = createCoat(kind, 'new')
  const made = options.side ? { ...plain, side: options.side } : plain
  const piece = allPieces(card.pieces).find(({ id }) => id === pieceId)
  const group = options.group ?? coatOf(kind).group(made as { side?: string })
  const others = piece?.coats[group].slice(0, options.at ?? defaultPlace(piece, made, group)) ?? []
  const { side } = made as { side?: string }
  const above = others.filter((coat) => coat.kind === kind && (coat as { side?: string }).side === side).at(-1)
  return pasteCoat(card, pieceId, above ? { ...made, ...coatOf(kind).beneathAnother?.({ ...above }) } : made, options)
}

function defaultPlace(piece: Piece, coat: Coat, group: DepthGroup): number {
  const under = coatOf(coat.kind).underFills?.(coat as { side?: string }) ?? false
  return under && group === 'face' ? piece.coats.face.length : 0
}

export function removeCoat(card: Card, pieceId: string, coatId: string): Card {
  return withPiece(card, pieceId, (piece) => ({
    ...piece,
    coats: {
      face: piece.coats.face.filter(({ id }) => id !== coatId),
      behind: piece.coats.behind.filter(({ id }) => id !== coatId),
    },
  }))
}

/** Moves a coat within its group or across the face line; `to` counts after it was taken out. */
export function moveCoat(card: Card, pieceId: string, coatId: string, group: DepthGroup, to: number): Card {
  const piece = allPieces(card.pieces).find(({ id }) => id === pieceId)
  const coat = piece && [...piece.coats.face, ...piece.coats.behind].find(({ id }) => id === coatId)
  if (!coat) return card
  return withPiece(removeCoat(card, pieceId, coatId), pieceId, (rest) => {
    const list = rest.coats[group]
    return { ...rest, coats: { ...rest.coats, [group]: [...list.slice(0, to), coat, ...list.slice(to)] } }
  })
}

export function changeCoat(card: Card, pieceId: string, coatId: string, change: Partial<Coat>): Card {
  const changed = (coats: Coat[]) => coats.map((coat) => (coat.id === coatId ? ({ ...coat, ...change } as Coat) : coat))
  return withPiece(card, pieceId, (piece) => ({
    ...piece,
    coats: { face: changed(piece.coats.face), behind: changed(piece.coats.behind) },
  }))
}

/** A copy right in front of the coat. */
export function duplicateCoat(card: Card, pieceId: string, coatId: string): { card: Card; id: string } {
  const piece = allPieces(card.pieces).find(({ id }) => id === pieceId)
  for (const group of ['face', 'behind'] as const) {
    const at = piece?.coats[group].findIndex(({ id }) => id === coatId) ?? -1
    if (at < 0) continue
    const coat = piece!.coats[group][at]!
    const id = freeId(card, coat.kind)
    return {
      id,
      card: withPiece(card, pieceId, (old) => {
        const list = old.coats[group]
        return { ...old, coats: { ...old.coats, [group]: [...list.slice(0, at), { ...coat, id }, ...list.slice(at)] } }
      }),
    }
  }
  return { card, id: coatId }
}

/** A wash has nothing to lay coats on. */
function takesCoats(card: Card, pieceId: string): boolean {
  const piece = allPieces(card.pieces).find(({ id }) => id === pieceId)
  return piece !== undefined && PIECE_KINDS[piece.kind].coatsFrom !== 'nothing'
}

/** Lays a copied coat on a piece: in front of its group, or at a given place. */
export function pasteCoat(
  card: Card,
  pieceId: string,
  coat: Coat,
  options: { group?: DepthGroup; at?: number } = {},
): { card: Card; id: string } {
  const id = freeId(card, coat.kind)
  if (!takesCoats(card, pieceId)) return { card, id }
  const group = options.group ?? coatOf(coat.kind).group(coat as { side?: string })
  return {
    id,
    card: withPiece(card, pieceId, (piece) => {
      const list = piece.coats[group]
      const at = options.at ?? defaultPlace(piece, coat, group)
      return {
        ...piece,
        coats: { ...piece.coats, [group]: [...list.slice(0, at), { ...coat, id }, ...list.slice(at)] },
      }
    }),
  }
}

/** Gives a piece the coats of another one, in place of its own; a wash has none. */
export function pasteStack(card: Card, pieceId: string, coats: Piece['coats']): Card {
  if (!takesCoats(card, pieceId)) return card
  let grown = withPiece(card, pieceId, (piece) => ({ ...piece, coats: { face: [], behind: [] } }))
  for (const group of ['face', 'behind'] as const) {
    for (const coat of coats[group]) {
      const id = freeId(grown, coat.kind)
      grown = withPiece(grown, pieceId, (piece) => ({
        ...piece,
        coats: { ...piece.coats, [group]: [...piece.coats[group], { ...coat, id }] },
      }))
    }
  }
  return grown
}
